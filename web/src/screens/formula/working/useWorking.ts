/** The working that is open, kept in the address; what was pressed gets the focus back. */
import { computed, nextTick } from 'vue'
import type { View } from '@/screens/formula/desk/useView'
import type { Working } from './words'

/** `of` gives the working of a number by its name; null where there is none. */
export function useWorking(view: View, of: (name: string) => Working | null) {
  let cameFrom: HTMLElement | null = null
  const remember = () => (cameFrom = document.activeElement as HTMLElement | null)
  const giveBackFocus = () => void nextTick(() => cameFrom?.focus())

  const opened = computed(() => (view.route.query.working ? String(view.route.query.working) : null))
  const working = computed(() => (opened.value ? of(opened.value) : null))
  function open(name: string): void {
    if (!opened.value) remember()
    void view.show({ working: name })
  }
  function close(): void {
    if (!opened.value) return
    void view.show({ working: undefined })
    giveBackFocus()
  }
  return { working, open, close, remember, giveBackFocus }
}
