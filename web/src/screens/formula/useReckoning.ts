/** Everything worked out on the screen, for what lies on the desk. */
import { toRaw, type Ref } from 'vue'
import { api, ask, type Known } from '@/api/client'
import { useAnswer } from '@/useAnswer'
import type { Desk } from './useDesk'

export function useReckoning(desk: Ref<Desk>, known: Ref<Known>, ready: Ref<boolean>) {
  const { answer, problem, stale } = useAnswer([desk, known], ready, () =>
    ask(api.POST('/api/reckon/count', { body: { formula: toRaw(desk.value.formula), count: toRaw(desk.value.count), ...known.value } })),
  )
  return { whole: answer, problem, stale }
}
