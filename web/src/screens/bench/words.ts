/** Times and weights at the bench, as they are shown. Only written, not reckoned. */
import type { LineNow, TaskNow } from '@/api/client'
import { dayName, isoDate } from '@/base/dayTimes'
import { shown, unitOf, upper, type Units } from '@/base/format'

const two = (n: number): string => String(n).padStart(2, '0')

/** A time by the clock of this device: "06:20" today, "Tue 06:20" on another day. [s since 1970] */
export function clockOf(at_s: number): string {
  const at = new Date(at_s * 1000)
  const day = isoDate(at)
  return `${day === isoDate(new Date()) ? '' : `${dayName(day, 0)} `}${two(at.getHours())}:${two(at.getMinutes())}`
}
/** How long it is until then, or since: "4:12", "1:04:00". [s] */
export function untilText(seconds: number): string {
  const size = Math.abs(seconds < 0 ? Math.floor(seconds) : Math.ceil(seconds))
  const [h, m, s] = [Math.floor(size / 3600), Math.floor((size % 3600) / 60), size % 60]
  return h ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`
}
/** "14 min", "2 h 5 min", "40 s". [s] */
export function spanText(seconds: number): string {
  const size = Math.round(Math.abs(seconds))
  if (size < 60) return `${size} s`
  const minutes = Math.round(size / 60)
  const [h, m] = [Math.floor(minutes / 60), minutes % 60]
  return h ? `${h} h${m ? ` ${m} min` : ''}` : `${m} min`
}
/** Grams as the scale that they are weighed on shows them, without their unit. */
export function grams(g: number, step_g: number, units: Units): string {
  const worth = units.reference.weight_units[units.weight] ?? 1
  const step = step_g / worth
  const places = step >= 1 ? 0 : Math.min(3, Math.max(0, -Math.floor(Math.log10(step) + 1e-9)))
  const text = (g / worth).toFixed(places)
  return places ? text.replace(/^-/, '−') : shown(Math.round(g / worth) * worth, 'g', units).replace(/^-/, '−')
}
export const gramsUnit = (g: number, step_g: number, units: Units): string => `${grams(g, step_g, units)}\u202f${unitOf('g', units)}`
export const lineText = (line: LineNow, units: Units): string => (line.target_g == null ? 'to taste' : gramsUnit(line.target_g, line.step_g, units))

/** What something to do is called. */
export function taskName(task: TaskNow): string {
  const name = task.on ? `${task.on}: ${task.label}` : upper(task.label)
  return task.load >= 0 ? `${name}, load ${task.load + 1}` : name
}
