/** Everything worked out on the screen, asked from the server as the baker types: soon after a pause, latest wins. */
import { useDebounceFn } from '@vueuse/core'
import { ref, shallowRef, toRaw, watch, type Ref } from 'vue'
import { api, ask, Refused, type Problem, type Whole } from '@/api/client'
import type { Desk } from './useDesk'

const PAUSE_MS = 25

export function useReckoning(desk: Ref<Desk>, ready: Ref<boolean>) {
  /** The last figures that came; they stay while newer ones are asked for, or cannot be had. */
  const whole = shallowRef<Whole | null>(null)
  /** Why there are no figures for what stands now. */
  const problem = shallowRef<Problem | null>(null)
  /** True while the figures on screen are not those of what stands now. */
  const stale = ref(false)
  let asked: AbortController | null = null

  async function reckon(): Promise<void> {
    asked?.abort()
    const own = (asked = new AbortController())
    try {
      const body = { formula: toRaw(desk.value.formula), count: toRaw(desk.value.count) }
      const answer = await ask(api.POST('/api/reckon/count', { body, signal: own.signal }))
      if (own !== asked) return
      whole.value = answer
      problem.value = null
      stale.value = false
    } catch (caught) {
      if (own !== asked || !(caught instanceof Refused)) return
      problem.value = caught.problem
      if (caught.isAway) setTimeout(() => own === asked && void reckon(), 2000)
    }
  }
  const soon = useDebounceFn(reckon, PAUSE_MS)

  watch(
    [desk, ready],
    () => {
      if (!ready.value) return
      stale.value = true
      void soon()
    },
    { deep: true },
  )
  return { whole, problem, stale }
}
