/** One line at the foot of the screen: what was done, and the way to undo it. */
import { ElButton, ElMessage, type MessageHandler } from 'element-plus'
import 'element-plus/es/components/button/style/css'
import 'element-plus/es/components/message/style/css'
import { h } from 'vue'

const LASTS_MS = 12_000
let last: MessageHandler | undefined

/** What was told is over: with something new begun, its undo would be taken for that of the new. */
export const hush = (): void => last?.close()

/** `undo` takes back what the text tells. */
export function tell(text: string, undo?: () => unknown): void {
  hush()
  const mine = ElMessage({
    message: () => h('span', { class: 'told' }, [text, undo && h(ElButton, { size: 'small', onClick: () => (mine.close(), void undo()) }, () => 'Undo')]),
    customClass: 'notice no-print',
    placement: 'bottom',
    offset: 14,
    showClose: true,
    icon: () => null,
    duration: LASTS_MS,
  })
  last = mine
}
