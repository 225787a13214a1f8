/** Everything worked out on the screen, for what lies on the desk. */
import { computed, toRaw, type Ref } from 'vue'
import type { Desk } from './useDesk'
import { api, ask, type Known } from '@/api/client'
import { useAnswer } from '@/base/useAnswer'

/** `lookingAt` is the target whose pan, shape and choices are shown. Nothing is asked while no line has an amount. */
export function useReckoning(desk: Ref<Desk>, known: Ref<Known>, lookingAt: Ref<number>, ready: Ref<boolean>) {
  const isBlank = computed(() => desk.value.formula.stages.every((stage) => stage.lines.every((line) => line.weight_g == null && line.percent == null)))
  const canBe = computed(() => ready.value && !isBlank.value)
  const { answer, problem, stale } = useAnswer([desk, known, lookingAt], canBe, () =>
    ask(api.POST('/api/reckon/count', { body: { formula: toRaw(desk.value.formula), count: toRaw(desk.value.count), looking_at: lookingAt.value, ...known.value } })),
  )
  const whole = computed(() => (isBlank.value ? null : answer.value))
  const told = computed({ get: () => (isBlank.value ? null : problem.value), set: (now) => (problem.value = now) })
  return { whole, problem: told, stale, isBlank }
}
