/** A baking day, kept as it is told. */
import { computed, toRaw } from 'vue'
import { api, ask, type Day, type DayProduct, type DayState } from '@/api/client'
import { fullText, nextDate } from '@/base/dayTimes'
import { useKept } from '@/base/useKept'

const path = (id: number) => ({ path: { day_id: id } })
const SATURDAY = 6
const READY_MIN = 450

export const emptyDay = (): Day => ({
  name: '',
  date: nextDate(SATURDAY),
  ready_min: READY_MIN,
  starts_min: null,
  now_min: null,
  bakers: [''],
  absences: [{ why: 'asleep', baker: null, begins_min: 22 * 60, ends_min: 5 * 60, day: null }],
  products: [],
  room_c: null,
  warm_c: null,
  fridge_c: null,
  ovens: null,
  shelves: null,
  sheets: null,
  told: [],
})

export function useDay(started: (id: number) => void) {
  const kept = useKept<Day, DayState>({
    kind: 'day',
    empty: emptyDay,
    fetch: (id) => ask(api.GET('/api/days/{day_id}', { params: path(id) })),
    start: (body) => ask(api.POST('/api/days', { body })),
    put: (id, body, version) => ask(api.PUT('/api/days/{day_id}', { params: path(id), body: { day: toRaw(body), version } })),
    read: (state) => ({ id: state.head.id, version: state.head.version, body: state.day }),
    asOwn: (body) => ({ ...body, name: `${body.name || 'Day'}, mine` }),
    started,
  })
  /** While ours is behind: both days, in lines. */
  const texts = computed(() => ({ ours: dayText(kept.body.value), theirs: kept.theirs.value ? dayText(kept.theirs.value.day) : null }))
  return { ...kept, day: kept.body, texts }
}

/** A copy for another date: what was told of it, without what happened. */
export function copied(day: Day, date: string): Day {
  return { ...day, date, now_min: null, told: [], products: day.products.map((one) => ({ ...one, marks: [], not_yet: [], pins: [] })) }
}

/** A key that no product of a day has. */
export function freeKey(products: readonly DayProduct[]): string {
  const taken = new Set(products.map((one) => one.key))
  let n = 1
  while (taken.has(`p${n}`)) n += 1
  return `p${n}`
}

const dayText = (day: Day): string[] => [
  `${day.name || 'Day without a name'}, ${day.date}, ready ${day.ready_min == null ? 'as soon as can be' : fullText(day.date, day.ready_min)}`,
  ...day.products.map((one) => [one.name, one.pieces && `${one.pieces} pieces`, one.pans && `${one.pans} pans`, one.way, one.ready_min != null && `ready ${fullText(day.date, one.ready_min)}`, one.pins.length && `${one.pins.length} pins`, one.marks.length && `${one.marks.length} marked`].filter(Boolean).join(', ')),
  ...day.absences.map((one) => `${one.why} ${one.begins_min / 60} to ${one.ends_min / 60}`),
]
