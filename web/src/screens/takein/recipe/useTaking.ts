/** A recipe being taken in: its text and what was settled of its lines, kept as they are typed, and how it is read. */
import { computed, toRaw, type Ref } from 'vue'
import { api, ask, type Settled, type TakenIn, type TakenLine, type TakingState, type Thing } from '@/api/client'
import { useAnswer } from '@/base/useAnswer'
import { useKept } from '@/base/useKept'

export type Taking = TakingState['taking']

const path = (id: number) => ({ path: { taking_id: id } })

export function useTaking(started: (id: number) => void) {
  const kept = useKept<Taking, TakingState>({
    kind: 'taking',
    empty: () => ({ text: '', settled: [], system: null }),
    fetch: (id) => ask(api.GET('/api/takings/{taking_id}', { params: path(id) })),
    start: (body) => ask(api.POST('/api/takings', { body })),
    put: (id, body, version) => ask(api.PUT('/api/takings/{taking_id}', { params: path(id), body: { ...body, version } })),
    read: (state) => ({ id: state.head.id, version: state.head.version, body: state.taking }),
    started,
  })
  const ready = computed(() => kept.loaded.value && kept.body.value.text.trim() !== '')
  const reading = useAnswer<TakenIn>([kept.body], ready as Ref<boolean>, () => ask(api.POST('/api/take-in', { body: toRaw(kept.body.value) })))
  /** While ours is behind: both texts, and what was settled of their lines. */
  const texts = computed(() => ({ ours: takingText(kept.body.value), theirs: kept.theirs.value ? takingText(kept.theirs.value.taking) : null }))
  return { ...kept, taking: kept.body, ready, reading, texts }
}

const takingText = ({ text, settled, system }: Taking): string[] => [
  ...text.split('\n').filter((line) => line.trim()),
  ...(settled ?? []).map(({ written, nth, part, ...what }) => {
    const said = Object.entries(what).filter(([, value]) => value !== null && value !== undefined)
    return `${written}${nth ? `, number ${nth + 1}` : ''}${part ? `, part ${part + 1}` : ''}: ${said.map(([key, value]) => `${key.replace(/_g$/, '').replaceAll('_', ' ')} ${String(value)}`).join(', ')}`
  }),
  ...(system ? [`Cups and spoons: ${system}`] : []),
]

/** Where a thing stands in the text, as what was settled of it is found again. */
export interface Spot {
  line: TakenLine
  part: number
}

const isOf = ({ line, part }: Spot) => (one: Settled) => one.written === line.text && one.nth === line.nth && one.part === part

/** Settle something of a line; what was settled of it before stays. Null lets a field go again. */
export function settle(taking: Taking, spot: Spot, what: Partial<Settled>): void {
  const before = taking.settled.find(isOf(spot))
  const settled = { written: spot.line.text, nth: spot.line.nth, part: spot.part, ...before, ...what }
  taking.settled = [...taking.settled.filter((one) => !isOf(spot)(one)), settled]
}

/** Take a line as it reads, as if nothing had been settled of it. */
export function unsettle(taking: Taking, spot: Spot): void {
  taking.settled = taking.settled.filter((one) => !isOf(spot)(one))
}

/** Ingredient lines with their things, each with the number of its line. */
export interface Row {
  key: string
  number: number
  line: TakenLine
  thing: Thing
}

export function rowsOf(taken: TakenIn): Row[] {
  return taken.lines.flatMap((line, number) => line.things.map((thing) => ({ key: `${number}:${thing.part}`, number, line, thing })))
}
