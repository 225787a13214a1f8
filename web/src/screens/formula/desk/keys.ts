/** The keys of the formula screen, as they are told and what they do. */
import type { useDesk } from './useDesk'
import type { View } from './useView'

export const KEYS = [
  ['Enter', 'next line, or a new one below the last'],
  ['↑ ↓', 'the same column, one line up or down'],
  ['Alt ↑ ↓', 'move the line, over the edge into the next stage'],
  ['Alt Backspace', 'remove the line'],
  ['Alt Enter', 'new stage'],
  ['=', 'how was this number worked out?'],
  ['F', 'the whole formula, or as it is mixed'],
  ['D', 'the dough, or the count'],
  ['S', 'shape and oven, or the count'],
  ['M', 'the method, or the count'],
  ['C', 'side by side with a revision'],
  ['Ctrl S', 'save a revision'],
  ['Ctrl Z', 'undo; with Shift: do again'],
  ['W', 'weigh sheet'],
  ['?', 'these keys'],
] as const

export interface KeysNeeds {
  view: View
  desk: ReturnType<typeof useDesk>
  save: () => void
  sheet: () => unknown
  compare: () => void
  keys: () => void
  escape: () => void
}

export const keysOf = ({ view, desk, save, sheet, compare, keys, escape }: KeysNeeds) => ({
  'mod+s': save,
  'mod+z': () => void desk.undo(),
  'mod+shift+z': () => void desk.redo(),
  'mod+y': () => void desk.redo(),
  w: () => void sheet(),
  '?': keys,
  f: () => void view.showView(view.viewed.value === 'whole' ? 'mixed' : 'whole'),
  d: () => void view.turnTo('dough'),
  s: () => void view.turnTo('shape'),
  m: () => void view.turnTo('method'),
  c: compare,
  Escape: escape,
})
