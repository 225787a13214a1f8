/**
 * An answer asked from the server as the baker types: at once, and while one is on its way only the latest state is
 * asked for after it. So nothing waits for a pause in typing, and nothing piles up.
 */
import { ref, shallowRef, watch, type Ref, type WatchSource } from 'vue'
import { Refused, type Problem } from '@/api/client'

const TRY_AGAIN_MS = 2000

/** Asks again whenever one of `sources` changes, as soon as `ready`. */
export function useAnswer<T>(sources: WatchSource<unknown>[], ready: Ref<boolean>, askFor: () => Promise<T>) {
  /** The last answer that came; it stays while a newer one is asked for, or cannot be had. */
  const answer = shallowRef<T | null>(null)
  /** Why there is no answer for what stands now. */
  const problem = shallowRef<Problem | null>(null)
  /** True while there is an answer, and it is not that of what stands now. */
  const stale = ref(false)
  let asking = false
  let changed = false

  async function askOnce(): Promise<void> {
    try {
      answer.value = await askFor()
      problem.value = null
    } catch (caught) {
      if (!(caught instanceof Refused)) throw caught
      problem.value = caught.problem
      if (caught.isAway) setTimeout(() => void again(), TRY_AGAIN_MS)
    }
  }

  async function again(): Promise<void> {
    changed = true
    if (asking) return
    asking = true
    try {
      while (changed) {
        changed = false
        await askOnce()
      }
      stale.value = problem.value !== null && answer.value !== null
    } finally {
      asking = false
    }
  }

  watch(
    [...sources, ready],
    () => {
      if (!ready.value) return
      stale.value = answer.value !== null
      void again()
    },
    { deep: true, immediate: true },
  )
  return { answer, problem, stale, again }
}
