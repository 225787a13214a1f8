/** The count's way reckoned for what lies on the desk: asked for anew as it is typed. */
import { computed, toRaw, type Ref } from 'vue'
import { wayNumber } from './steps'
import { api, ask, type Known } from '@/api/client'
import { useAnswer } from '@/base/useAnswer'
import type { Desk } from '@/screens/formula/desk/useDesk'

/** Nothing is asked while there is no step, or no line with an amount. */
export function useMethod(desk: Ref<Desk>, known: Ref<Known>, lookingAt: Ref<number>, ready: Ref<boolean>) {
  const hasSteps = computed(() => Boolean(desk.value.formula.ways[wayNumber(desk.value.formula, desk.value.count)]?.steps.length))
  const isBlank = computed(() => desk.value.formula.stages.every((stage) => stage.lines.every((line) => line.weight_g == null && line.percent == null)))
  const canBe = computed(() => ready.value && hasSteps.value && !isBlank.value)
  const { answer, problem, stale } = useAnswer([desk, known, lookingAt], canBe, () =>
    ask(api.POST('/api/reckon/method', { body: { formula: toRaw(desk.value.formula), count: toRaw(desk.value.count), looking_at: lookingAt.value, ...known.value } })),
  )
  const method = computed(() => (canBe.value ? answer.value : null))
  return { method, problem, stale, hasSteps, isBlank }
}
