/** Rows put in another order by dragging their handle, by mouse or finger; by key it is done where the keys are. */
import { ref } from 'vue'

/** `rows` are the elements in their order; `move` puts one elsewhere while it is dragged; `step` comes before the first move. */
export function useDragOrder(rows: () => HTMLElement[], move: (from: number, to: number) => number, step: () => void) {
  const dragged = ref<number | null>(null)

  function begin(event: PointerEvent, from: number): void {
    if (event.button !== 0) return
    const handle = event.currentTarget as HTMLElement
    let moved = false
    dragged.value = from
    handle.setPointerCapture(event.pointerId)
    const over = (now: PointerEvent): void => {
      const at = dragged.value
      if (at === null) return
      const to = rows().findIndex((row, n) => n !== at && within(row, now.clientY, n < at))
      if (to < 0) return
      if (!moved) step()
      moved = true
      dragged.value = move(at, to)
    }
    const end = (): void => {
      dragged.value = null
      handle.removeEventListener('pointermove', over)
    }
    handle.addEventListener('pointermove', over)
    handle.addEventListener('pointerup', end, { once: true })
    handle.addEventListener('pointercancel', end, { once: true })
  }
  return { dragged, begin }
}

/** Whether the pointer is past the middle of a row that lies above, or below, the dragged one. */
function within(row: HTMLElement, y: number, above: boolean): boolean {
  const { top, bottom } = row.getBoundingClientRect()
  const middle = (top + bottom) / 2
  return above ? y > top && y < middle : y > middle && y < bottom
}
