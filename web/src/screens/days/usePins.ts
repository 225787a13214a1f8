/** Times of a day that are held where the baker put them, and what has happened of it. */
import type { Ref } from 'vue'
import type { Day, DayProduct, Doing, Mark, Timetable } from '@/api/client'
import { blocksOf } from '@/drawings/dayRows'

export function usePins(day: Ref<Day>, timetable: Ref<Timetable | null>, step: () => void) {
  /** A step begins just then; what hangs together with it goes with it. */
  function pin(product: DayProduct, doing: Doing, at: number): void {
    step()
    const own = new Set((timetable.value?.doings ?? []).filter((one) => one.block === doing.block).map((one) => one.step))
    product.pins = [...product.pins.filter((one) => !own.has(one.step)), { step: doing.step, kind: doing.kind, edge: doing.edge, at_min: Math.round(at) }]
  }
  /** What hangs together is moved by so much, and stays there. */
  function move(block: number, by: number): void {
    const own = timetable.value && blocksOf(timetable.value).find((one) => one.block === block)
    const first = own?.doings.find((one) => one.load === null) ?? own?.doings[0]
    const product = own && day.value.products[own.product]
    if (first && product) pin(product, first, first.begins_min + by)
  }
  function free(product: DayProduct, steps: number[]): void {
    step()
    product.pins = product.pins.filter((one) => !steps.includes(one.step))
  }
  /** What has happened; with the first of it the day runs. */
  function mark(product: DayProduct, one: Mark): void {
    step()
    product.marks = [...product.marks.filter((own) => own.step !== one.step), one].sort((a, b) => a.step - b.step)
    product.not_yet = product.not_yet.filter((own) => own !== one.step)
    const at = Math.max(one.began_min ?? -Infinity, one.ended_min ?? -Infinity)
    if (day.value.now_min == null || day.value.now_min < at) {
      if (day.value.now_min == null && timetable.value) day.value.told = timetable.value.starts
      day.value.now_min = at
    }
  }
  function unmark(product: DayProduct, number: number): void {
    step()
    product.marks = product.marks.filter((own) => own.step !== number)
  }
  /** Told for a time that has passed, and not begun. */
  function hold(product: DayProduct, steps: number[]): void {
    step()
    product.marks = product.marks.filter((own) => !steps.includes(own.step))
    product.not_yet = [...new Set([...product.not_yet, ...steps])]
  }
  return { pin, move, free, mark, unmark, hold }
}
