/** What goes out of a formula: the weigh sheet, files, the ruler. All are made of what the records hold. */
import { computed } from 'vue'
import type { useDesk } from './useDesk'
import type { View } from './useView'
import { takeOut as saveFile } from '@/api/file'

export const FILES = [
  ['formula.json', 'Formula file (JSON)'],
  ['recipe.jsonld', 'Recipe for others (schema.org)'],
  ['count.ods', 'Spreadsheet that reckons (ODS)'],
  ['formula.csv', 'Formula as a table (CSV)'],
] as const
export type OutFile = (typeof FILES)[number][0]

export function useTakeOut(desk: ReturnType<typeof useDesk>, view: View, attempt: (act: () => Promise<unknown>) => Promise<void>) {
  /** The records do not hold this text while it has not reached them. A revision is there for good. */
  const can = computed(() => desk.head.value !== null && (view.reading.value !== undefined || !['behind', 'away'].includes(desk.keeping.value)))
  const whyNot = computed(() => (can.value || !desk.head.value ? undefined : 'First this text must be in the records'))
  const sheet = computed(() => ({ name: 'sheet', params: { id: desk.head.value?.id ?? 'new' }, query: view.reading.value ? { revision: view.reading.value } : {} }))
  const ruler = computed(() => (can.value && desk.head.value ? `/api/formulas/${desk.head.value.id}/ruler.pdf?target=${view.target.value}${view.reading.value ? `&revision=${view.reading.value}` : ''}` : null))
  const takeOut = (file: OutFile) => attempt(() => saveFile(`/api/formulas/${desk.head.value?.id}/${file}${view.reading.value ? `?revision=${view.reading.value}` : ''}`))
  return { can, whyNot, sheet, ruler, takeOut }
}
