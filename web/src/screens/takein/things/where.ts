/** Where a thing of a recipe goes: into the dough, or what it goes on instead. */
export const WHERE = [
  { value: 'dough', label: 'in the dough' },
  { value: 'wash', label: 'wash' },
  { value: 'topping', label: 'topping' },
  { value: 'filling', label: 'filling' },
  { value: 'bath', label: 'bath' },
  { value: 'pan', label: 'for the pan' },
  { value: 'bench', label: 'for the bench' },
] as const

/** What a line of a recipe may be taken to be. */
export const LINE_KINDS = [
  { value: 'ingredient', label: 'an ingredient' },
  { value: 'step', label: 'a step' },
  { value: 'heading', label: 'a heading' },
  { value: 'note', label: 'a note' },
] as const
