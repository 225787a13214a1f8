/** How the book's numbers are written. Nothing is reckoned here. */
import type { KitchensFigure } from '@/api/client'
import { plain, withUnit, type Units } from '@/base/format'
import { minutesText } from '@/base/times'

export const BEST = 5
/** "4 of 5", with the tenth where it is a mean. */
export const scoreText = (score: number): string => `${Number(score.toFixed(1))} of ${BEST}`
export const share = (value: number): string => `${plain(100 * value, 3)}\u202f%`
/** Signed, for what is more or less than meant. */
export const signed = (value: number, unit: string): string => `${value > 0 ? '+' : value < 0 ? '−' : ''}${plain(Math.abs(value), 3)}\u202f${unit}`
/** Grams to a tenth under 20, whole from there. */
export const grams = (g: number, units: Units): string => withUnit(units.weight === 'g' ? (g < 20 ? Math.round(g * 100) / 100 : Math.round(g)) : g, 'g', units)
export const celsius = (c: number): string => `${plain(Math.round(c * 10) / 10)}\u202f°C`

const two = (n: number) => String(n).padStart(2, '0')
/** "Sat 21 Nov 2026", as the device's clock has it. */
export function dayText(at: string | number): string {
  const own = new Date(typeof at === 'number' ? at * 1000 : at)
  return `${own.toLocaleString('en', { weekday: 'short' })} ${own.getDate()} ${own.toLocaleString('en', { month: 'short' })} ${own.getFullYear()}`
}
export function timeText(at: string | number): string {
  const own = new Date(typeof at === 'number' ? at * 1000 : at)
  return `${two(own.getHours())}:${two(own.getMinutes())}`
}
/** "November 2026" of "2026-11". */
export const monthText = (month: string): string => new Date(`${month}-15T12:00:00`).toLocaleString('en', { month: 'long', year: 'numeric' })

/** A row's number with its unit, side by side. */
export function cellText(value: number, unit: string, units: Units): string {
  if (unit === 'g') return grams(value, units)
  if (unit === 'percent') return `${plain(value, 3)}\u202f%`
  if (unit === 'share') return share(value)
  if (unit === 'celsius') return celsius(value)
  if (unit === 'min') return minutesText(value)
  if (unit === 'cm') return withUnit(value, 'cm', units)
  if (unit === 'score') return scoreText(value)
  return plain(value)
}

/** A learned figure's number with its unit. */
export function figureText(value: number, figure: Pick<KitchensFigure, 'unit' | 'of'>, units: Units): string {
  if (figure.unit === 'share') return share(value)
  if (figure.unit === 'factor') return `× ${plain(value, 3)}`
  if (figure.unit === 'celsius') return `${value < 0 ? '−' : ''}${plain(Math.abs(value), 3)}\u202f°C`
  if (figure.unit === 'min') return value < 1 ? `${Math.round(value * 60)}\u202fs` : value < 10 ? `${plain(value, 2)}\u202fmin` : minutesText(value)
  return withUnit(value, 'g', units, 3)
}
/** How far a single bake strays: of what is told by a factor, in percent. */
export const straysText = (figure: KitchensFigure, units: Units): string => (figure.by_factor ? `± ${Math.round(figure.strays * 100)}\u202f%` : `± ${figureText(figure.strays, figure, units)}`)
