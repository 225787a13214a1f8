/**
 * Everything worked out on the screen, asked from the server as the baker types: at once, and while an answer is on
 * its way only the latest state is asked for after it. So nothing waits for a pause in typing, and nothing piles up.
 */
import { ref, shallowRef, toRaw, watch, type Ref } from 'vue'
import { api, ask, Refused, type Problem, type Whole } from '@/api/client'
import type { Desk } from './useDesk'

const TRY_AGAIN_MS = 2000

export function useReckoning(desk: Ref<Desk>, ready: Ref<boolean>) {
  /** The last figures that came; they stay while newer ones are asked for, or cannot be had. */
  const whole = shallowRef<Whole | null>(null)
  /** Why there are no figures for what stands now. */
  const problem = shallowRef<Problem | null>(null)
  /** True while the figures on screen are not those of what stands now. */
  const stale = ref(false)
  let asking = false
  let changed = false

  async function askOnce(): Promise<void> {
    try {
      const body = { formula: toRaw(desk.value.formula), count: toRaw(desk.value.count) }
      whole.value = await ask(api.POST('/api/reckon/count', { body }))
      problem.value = null
    } catch (caught) {
      if (!(caught instanceof Refused)) throw caught
      problem.value = caught.problem
      if (caught.isAway) setTimeout(() => void reckon(), TRY_AGAIN_MS)
    }
  }

  async function reckon(): Promise<void> {
    changed = true
    if (asking) return
    asking = true
    try {
      while (changed) {
        changed = false
        await askOnce()
      }
      stale.value = problem.value !== null
    } finally {
      asking = false
    }
  }

  watch(
    [desk, ready],
    () => {
      if (!ready.value) return
      stale.value = true
      void reckon()
    },
    { deep: true },
  )
  return { whole, problem, stale }
}
