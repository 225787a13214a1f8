/** What a bake came to, kept as it is typed. */
import { computed, toRaw } from 'vue'
import { api, ask, type BookEntry, type Outcome } from '@/api/client'
import { useKept } from '@/base/useKept'

export const emptyOutcome = (): Outcome => ({ scores: {}, words: '', wrong: '', next_time: '', baked_g: null, baked_pieces: null, height_cm: null, across_cm: null })
const path = (id: string) => ({ path: { bake_id: id } })

const lines = (outcome: Outcome): string[] => [
  ...Object.entries(outcome.scores).map(([name, score]) => `${name} ${score}`),
  ...[outcome.words, outcome.wrong && `Went wrong: ${outcome.wrong}`, outcome.next_time && `Next time: ${outcome.next_time}`].filter(Boolean),
  ...[outcome.baked_g && `${outcome.baked_g} g baked`, outcome.height_cm && `${outcome.height_cm} cm high`, outcome.across_cm && `${outcome.across_cm} cm across`].filter((one) => typeof one === 'string'),
]

export function useOutcome(kept_: (entry: BookEntry) => void) {
  const kept = useKept<Outcome, BookEntry, string>({
    kind: 'outcome',
    empty: emptyOutcome,
    fetch: async (id) => (await ask(api.GET('/api/book/bakes/{bake_id}', { params: path(id) }))).entry,
    start: () => Promise.reject(new Error('a bake begins at the bench, or is written in')),
    put: async (id, body, version) => {
      const entry = await ask(api.PUT('/api/book/bakes/{bake_id}/outcome', { params: path(id), body: { outcome: toRaw(body), version } }))
      kept_(entry)
      return entry
    },
    read: (state) => ({ id: state.id, version: state.version, body: state.outcome }),
    broughtUp: (body) => ({ ...emptyOutcome(), ...body }),
    started: () => undefined,
  })
  /** Both words, both scores; where both scored the same, ours. */
  async function keepJoined(): Promise<void> {
    const other = kept.theirs.value?.outcome
    if (!other) return
    const ours = kept.body.value
    const words = (name: 'words' | 'wrong' | 'next_time'): string => [...new Set([other[name], ours[name]])].filter(Boolean).join('\n')
    const told = Object.fromEntries(Object.entries(ours).filter(([, value]) => value !== null))
    kept.body.value = { ...other, ...told, scores: { ...other.scores, ...ours.scores }, words: words('words'), wrong: words('wrong'), next_time: words('next_time') }
    await kept.keepMine()
  }
  const texts = computed(() => ({ ours: lines(kept.body.value), theirs: kept.theirs.value ? lines(kept.theirs.value.outcome) : null }))
  return { ...kept, outcome: kept.body, texts, keepJoined }
}
