/** Everything worked out on the screen, for what lies on the desk. */
import { toRaw, type Ref } from 'vue'
import { api, ask, type Known } from '@/api/client'
import { useAnswer } from '@/base/useAnswer'
import type { Desk } from './useDesk'

/** `lookingAt` is the target whose pan, shape and choices are shown. */
export function useReckoning(desk: Ref<Desk>, known: Ref<Known>, lookingAt: Ref<number>, ready: Ref<boolean>) {
  const { answer, problem, stale } = useAnswer([desk, known, lookingAt], ready, () =>
    ask(api.POST('/api/reckon/count', { body: { formula: toRaw(desk.value.formula), count: toRaw(desk.value.count), looking_at: lookingAt.value, ...known.value } })),
  )
  return { whole: answer, problem, stale }
}
