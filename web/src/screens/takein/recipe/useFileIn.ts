/** A file taken in: a formula of ours, a recipe as text, or a table whose columns are asked about. */
import { ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, Refused, type FormulaState, type Table } from '@/api/client'
import { tell } from '@/base/notice'

/** The kinds of file that a recipe may be in. */
export const FILES = '.json,.jsonld,.html,.htm,.csv,.tsv,.txt,.md'
/** What the server takes; it would break off in the middle of a larger one. */
const LARGEST_FILE = 4_000_000

export interface FileIn {
  attempt: (act: () => Promise<unknown>) => Promise<void>
  /** A recipe of its own from a text. */
  begin: (text: string) => Promise<void>
  refresh: () => Promise<unknown>
  undo: (state: FormulaState) => () => Promise<void>
}

export function useFileIn({ attempt, begin, refresh, undo }: FileIn) {
  const router = useRouter()
  const table = shallowRef<{ table: Table; text: string; title: string } | null>(null)
  const mapping = ref(false)

  const takeIn = (chosen: File) =>
    attempt(async () => {
      if (chosen.size > LARGEST_FILE) throw new Refused({ type: '', title: 'Too large', status: 413, detail: `${chosen.name} holds ${Math.round(chosen.size / 1e6)} MB, more than a recipe. Is it the right file?`, errors: [] })
      const read = await ask(api.POST('/api/take-in/file', { params: { query: { name: chosen.name.slice(0, 300) } }, body: (await chosen.arrayBuffer()) as never, bodySerializer: (body: unknown) => body as ArrayBuffer }))
      if (read.formula_id != null) {
        const state = await ask(api.GET('/api/formulas/{formula_id}', { params: { path: { formula_id: read.formula_id } } }))
        tell(`Took in ${state.head.name}.`, undo(state))
        await refresh()
        await router.push({ name: 'formula', params: { id: read.formula_id } })
      } else if (read.table) {
        table.value = { table: read.table, text: read.text, title: chosen.name.replace(/\.\w+$/, '') }
        mapping.value = true
      } else {
        await begin(read.text)
      }
    })
  return { table, mapping, takeIn }
}
