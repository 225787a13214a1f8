/** Undo of what is typed: typing becomes one step after a pause, everything else a step of its own. */
import { useDebouncedRefHistory } from '@vueuse/core'
import { nextTick, type Ref } from 'vue'
import { plainCopy } from './copy'

const STEPS = 100
const PAUSE_MS = 400

export function useHistory<T>(body: Ref<T>) {
  const history = useDebouncedRefHistory(body, { deep: true, debounce: PAUSE_MS, capacity: STEPS, clone: plainCopy })

  /** Put another body in its place; it can be undone where the history is kept. */
  function lay(next: T, keep: boolean): void {
    history.pause()
    body.value = plainCopy(next)
    history.resume(true)
    if (!keep) history.clear()
  }
  /** Make what was changed until now one step, whatever comes next. */
  function step(): void {
    if (JSON.stringify(body.value) !== JSON.stringify(history.last.value.snapshot)) history.commit()
  }
  /** Something that is no step of the baker's: undo passes over it. */
  async function quietly<K extends keyof T>(key: K, value: T[K]): Promise<void> {
    step()
    history.pause()
    body.value[key] = value
    ;(history.last.value.snapshot as T)[key] = plainCopy(value)
    await nextTick()
    history.resume()
  }
  function undo(): void {
    step()
    history.undo()
  }
  return { lay, step, quietly, undo, redo: history.redo, canUndo: history.canUndo }
}
