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

/** As an earlier release left it: one pan, its pins among those of the batch, and nothing told of shaping and borders. */
function broughtUp(desk: Desk): Desk {
  const old = desk.count as Partial<Count> & { pins: Count['pins'] & Target['pins']; pan?: Target['pan']; leave_gaps?: boolean }
  if (old.targets) return desk
  const { flour_g, dough_g, bench_loss, divide_g, ...own } = old.pins
  return {
    formula: {
      ...desk.formula,
      usual: { ...emptyFormula().usual, ...desk.formula.usual },
      beside: desk.formula.beside.map((stage) => ({ ...stage, border_cm: stage.border_cm ?? 1 })),
    },
    count: {
      ...emptyCount(),
      pins: { flour_g, dough_g, bench_loss, divide_g },
      targets: [{ ...emptyTarget(), pins: own, pan: old.pan ?? null, leave_gaps: old.leave_gaps ?? false }],
      leave_remainder: old.leave_remainder ?? false,
    },
  }
}

const path = (id: number) => ({ path: { formula_id: id } })

export function useDesk(started: (id: number) => void) {
  const kept = useKept<Desk, FormulaState>({
    kind: 'desk',
    empty: () => ({ formula: emptyFormula(), count: emptyCount() }),
    fetch: (id) => ask(api.GET('/api/formulas/{formula_id}', { params: path(id) })),
    start: (body) => ask(api.POST('/api/formulas', { body })),
    put: (id, body, version) => ask(api.PUT('/api/formulas/{formula_id}/desk', { params: path(id), body: { ...body, version } })),
    read: (state) => ({ id: state.head.id, version: state.version, body: { formula: state.formula, count: state.count } }),
    broughtUp,
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
