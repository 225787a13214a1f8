/** How numbers are written and read. Nothing is reckoned here but the change of unit. */
import type { Pan, Reference, Settings } from '@/api/client'

export type Kind = 'g' | 'cm' | 'percent' | 'share' | 'count' | 'fill' | 'size'

/** Units as the kitchen set them, with their worth from the server. */
export interface Units {
  weight: Settings['scale']['unit']
  length: Settings['length_unit']
  reference: Reference
}

/** Digits of a number that was worked out, of one inside a working, and of one that was typed. */
export const DIGITS = { worked: 4, working: 6, typed: 12 } as const

/**
 * So many significant digits, never cutting whole numbers, with at most two places behind the point for what was
 * worked out; thin spaces between thousands.
 */
export function plain(value: number, digits: number = DIGITS.worked): string {
  if (!Number.isFinite(value)) return '–'
  const size = Math.abs(value)
  const whole = size >= 1 ? Math.floor(Math.log10(size)) + 1 : 1
  const most = digits === DIGITS.typed ? 6 : size < 0.1 ? 3 : 2
  const places = Math.min(most, Math.max(0, digits - whole))
  const [front = '0', back] = String(Number(value.toFixed(places))).split('.')
  const spaced = front.replace(/\B(?=(\d{3})+(?!\d))/g, '\u202f').replace('-', '−')
  return back ? `${spaced}.${back}` : spaced
}

/** A shown number as it is typed: without the spaces between thousands. */
export const ungrouped = (text: string): string => text.replaceAll('\u202f', '')

/** How many of the core's unit one shown unit is worth. */
export function worth(kind: Kind, units: Units): number {
  if (kind === 'g') return units.reference.weight_units[units.weight] ?? 1
  if (kind === 'cm') return units.reference.length_units[units.length] ?? 1
  return kind === 'share' ? 0.01 : 1
}

export function unitOf(kind: Kind, units: Units): string {
  if (kind === 'g') return units.weight
  if (kind === 'cm') return units.length
  return kind === 'percent' || kind === 'share' ? '%' : ''
}

/** A value without its unit, as shown. */
export function shown(value: number, kind: Kind, units: Units, digits?: number): string {
  return plain(value / worth(kind, units), digits)
}

/** A value with its unit. */
export function withUnit(value: number, kind: Kind, units: Units, digits?: number): string {
  return [shown(value, kind, units, digits), unitOf(kind, units)].filter(Boolean).join('\u202f')
}

/**
 * A typed number in the core's unit: "1.5 kg", "12,5", "½", "1 1/2", "1 892". Null for nothing, NaN for what is not
 * a number or has a unit that does not belong.
 */
export function read(text: string, kind: Kind, units: Units): number | null {
  const tidy = text.trim().replace(/[\s\u202f\u00a0]+/g, ' ').replace('½', ' 1/2').replace('¼', ' 1/4').replace('¾', ' 3/4').trim()
  if (!tidy) return null
  const found = /^(\d[\d ]*(?:[.,]\d*)?|[.,]\d+)?(?: ?(\d+)\/(\d+))? ?([a-z%]*)$/i.exec(tidy.replace(/^(\d+)\/(\d+)/, '0 $1/$2'))
  if (!found || (!found[1] && !found[2])) return NaN
  const thousands = (found[1] ?? '0').replace(/ (?=\d{3}\b)/g, '').trim()
  if (thousands.includes(' ')) return NaN
  const number = Number(thousands.replace(',', '.')) + (found[2] ? Number(found[2]) / Number(found[3]) : 0)
  const unit = found[4]?.toLowerCase() ?? ''
  const known = kind === 'g' ? units.reference.weight_units : kind === 'cm' ? units.reference.length_units : {}
  if (!unit || unit === unitOf(kind, units)) return number * worth(kind, units)
  return unit in known ? number * (known[unit] as number) : NaN
}

const two = (n: number) => String(n).padStart(2, '0')

/** When something was changed: the time today, else the day. */
export function when(iso: string, now = new Date()): string {
  const at = new Date(iso)
  const time = `${two(at.getHours())}:${two(at.getMinutes())}`
  if (at.toDateString() === now.toDateString()) return `today ${time}`
  return `${at.getDate()} ${at.toLocaleString('en', { month: 'short' })} ${at.getFullYear()}, ${time}`
}

/** A pan's inside measures: "33 × 23 cm", "30 cm across". */
export function measures(pan: Pan, units: Units): string {
  if (pan.shape === 'round') return `${withUnit(pan.diameter_cm, 'cm', units)} across`
  return `${shown(pan.length_cm, 'cm', units)} × ${withUnit(pan.width_cm, 'cm', units)}`
}
