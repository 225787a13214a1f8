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
