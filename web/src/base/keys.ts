/** Keys of a screen: single letters only count where nothing is being typed. */
import { useEventListener } from '@vueuse/core'

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** Calls `does[key]` for a key; "mod+s" is Ctrl or Command with S, and counts while typing too. */
export function useKeys(does: Record<string, (event: KeyboardEvent) => void>): void {
  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    const mod = event.ctrlKey || event.metaKey
    if (event.altKey || (!mod && isTyping(event.target))) return
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
    const name = `${mod ? 'mod+' : ''}${mod && event.shiftKey ? 'shift+' : ''}${key}`
    const act = does[name]
    if (!act) return
    event.preventDefault()
    act(event)
  })
}
