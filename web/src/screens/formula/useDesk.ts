/** The formula on the desk: kept as it is typed, and saved as revisions. */
import { computed } from 'vue'
import { api, ask, Refused, type Count, type Formula, type FormulaState, type Target } from '@/api/client'
import { plainCopy } from '@/copy'
import { useKept } from '@/useKept'
import { emptyFormula } from './lines'

export interface Desk {
  formula: Formula
  count: Count
}

export const emptyTarget = (name = ''): Target => ({ name, pins: {}, pan: null, leave_gaps: false })
export const emptyCount = (): Count => ({ pins: {}, targets: [emptyTarget()], limits: [], leave_remainder: false, rules: 'EU' })

const path = (id: number) => ({ path: { formula_id: id } })

export function useDesk(started: (id: number) => void) {
  const kept = useKept<Desk, FormulaState>({
    kind: 'desk',
    empty: () => ({ formula: emptyFormula(), count: emptyCount() }),
    fetch: (id) => ask(api.GET('/api/formulas/{formula_id}', { params: path(id) })),
    start: (body) => ask(api.POST('/api/formulas', { body })),
    put: (id, body, version) => ask(api.PUT('/api/formulas/{formula_id}/desk', { params: path(id), body: { ...body, version } })),
    read: (state) => ({ id: state.head.id, version: state.version, body: { formula: state.formula, count: state.count } }),
    started,
  })
  const head = computed(() => kept.state.value?.head ?? null)

  /** Save a revision. Throws `Refused`; what is on the desk stays there either way. */
  async function save(note: string, formula?: Formula, onTopOf?: number): Promise<void> {
    const saved = formula ?? plainCopy(kept.body.value.formula)
    await kept.keepNow()
    const now = kept.state.value
    if (now === null) throw new Refused({ type: '', title: '', status: 0, detail: 'It cannot be saved just now; it is kept in this browser.', errors: [] })
    const body = { formula: saved, base_number: onTopOf ?? now.base_number, note }
    const state = await ask(api.POST('/api/formulas/{formula_id}/revisions', { params: path(now.head.id), body }))
    kept.settle({ ...state, count: kept.body.value.count })
  }

  return {
    ...kept,
    desk: kept.body,
    head,
    save,
    /** Puts ours on top of what another window left; gives the number of its latest revision. */
    keepMine: async (): Promise<number> => (await kept.keepMine())?.head.latest_number ?? 0,
    /** True where what is on the desk is not the latest revision. */
    unsaved: computed(() => head.value === null || head.value.unsaved || kept.keeping.value !== 'kept'),
  }
}
