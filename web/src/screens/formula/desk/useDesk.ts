/** The formula on the desk: kept as it is typed, and saved as revisions. */
import { computed } from 'vue'
import { api, ask, Refused, type Count, type Formula, type FormulaState, type Target } from '@/api/client'
import { plainCopy } from '@/base/copy'
import { useKept } from '@/base/useKept'
import { deskText } from './deskText'
import { emptyFormula } from '@/screens/formula/lines/lines'
import { emptyStep, emptyWay } from '@/screens/method/steps'

export interface Desk {
  formula: Formula
  count: Count
}

export const emptyTarget = (name = ''): Target => ({ name, pins: {}, pan: null, leave_gaps: false })
export const emptyCount = (): Count => ({ pins: {}, targets: [emptyTarget()], limits: [], leave_remainder: false, rules: 'EU', way: '', today: {}, learned: [] })

const STEPS = 60
/** One note each; where there are more than a way has, so many in one. */
function asNotes(texts: string[]) {
  const each = Math.ceil(texts.length / STEPS)
  return Array.from({ length: Math.ceil(texts.length / each) }, (_, n) => ({ ...emptyStep(), text: texts.slice(n * each, (n + 1) * each).join('\n') }))
}

/** As an earlier release left it: a draft of steps and no ways; and before that one pan, its pins among those of the batch, and nothing told of shaping and borders. */
function broughtUp(desk: Desk): Desk {
  const { steps, ...formula } = desk.formula as Formula & { steps?: { text: string }[] }
  const ways = formula.ways ?? (steps?.length ? [{ ...emptyWay('As written'), steps: asNotes(steps.map(({ text }) => text)) }] : [])
  return pansBroughtUp({ formula: { ...formula, ways }, count: { ...desk.count, way: desk.count.way ?? '', today: desk.count.today ?? {} } })
}

function pansBroughtUp(desk: Desk): Desk {
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
    asOwn: (desk) => ({ ...desk, formula: { ...desk.formula, name: `${desk.formula.name.slice(0, 280)}, other text` } }),
    started,
  })
  const head = computed(() => kept.state.value?.head ?? null)

  /** Save a revision. Throws `Refused`; what is on the desk stays there either way. */
  async function save(note: string, formula?: Formula): Promise<void> {
    if (kept.state.value === null) await kept.keepNow()
    else await kept.flush()
    const now = kept.state.value
    if (now === null) throw new Refused({ type: '', title: 'Not saved', status: 0, detail: 'It cannot be saved just now; it is kept in this browser.', errors: [] })
    if (kept.keeping.value === 'behind') throw new Refused({ type: 'urn:pancount:problem:behind', title: 'Changed in another window', status: 409, detail: 'What the other window left is not part of this text yet.', errors: [] })
    const { formula: typed, count } = plainCopy(kept.body.value)
    const body = { formula: formula ?? typed, count, version: now.version, note }
    try {
      kept.settle(await ask(api.POST('/api/formulas/{formula_id}/revisions', { params: path(now.head.id), body })))
    } catch (caught) {
      if (caught instanceof Refused && caught.isBehind) await kept.fallBehind()
      throw caught
    }
  }

  /** True where what is on the desk is not the latest revision. */
  const unsaved = computed(() => head.value === null || head.value.unsaved || kept.keeping.value !== 'kept')
  /** Where the text is, in a few words. */
  const says = computed(() => {
    const number = head.value?.latest_number ?? 0
    if (kept.keeping.value === 'keeping') return 'keeping …'
    if (kept.keeping.value !== 'kept') return 'in this browser only'
    if (!unsaved.value) return number ? `revision ${number}` : ''
    if (!head.value) return 'not kept yet'
    return number ? `draft on revision ${number}, kept` : 'draft, kept'
  })

  return {
    ...kept,
    says,
    desk: kept.body,
    head,
    save,
    /** While ours is behind: both texts, line by line. */
    texts: computed(() => ({ ours: deskText(kept.body.value), theirs: kept.theirs.value ? deskText(kept.theirs.value) : null })),
    unsaved,
  }
}
