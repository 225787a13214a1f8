/** One line at the foot of the screen: what was done, and the way to undo it. */
import { shallowRef } from 'vue'

export interface Notice {
  text: string
  /** Takes back what the text tells. */
  undo?: () => unknown
}

export const notice = shallowRef<Notice | null>(null)
const LASTS_MS = 12_000
let timer: ReturnType<typeof setTimeout> | undefined

export function tell(text: string, undo?: Notice['undo']): void {
  clearTimeout(timer)
  notice.value = { text, undo }
  timer = setTimeout(() => (notice.value = null), LASTS_MS)
}
