/** How numbers are written and read. Nothing is reckoned here but the change of unit. */
import type { Derived, Pan, Reference, Settings, Solid } from '@/api/client'

export type Kind = 'g' | 'cm' | 'percent' | 'share' | 'count' | 'fill' | 'size' | Derived['unit']

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
  return UNITS[kind] ?? ''
}

const UNITS: Partial<Record<Kind, string>> = { percent: '%', share: '%', ml: 'ml', cm2: 'cm²', min: 'min', density: 'g/ml', celsius: '°C', kj: 'kJ' }

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

type PanFields = Partial<Record<'length_cm' | 'width_cm' | 'side_cm' | 'diameter_cm' | 'hole_cm' | 'depth_cm' | 'cups', number>>

/** A pan's inside measures at the top: "33 × 23 cm", "30 cm across", "12 cups 7 cm across". */
export function measures(pan: Pan, units: Units): string {
  const m = pan as PanFields
  if (m.diameter_cm !== undefined) {
    const across = `${withUnit(m.diameter_cm, 'cm', units)} across`
    if (m.cups !== undefined) return `${m.cups} cups ${across}`
    return m.hole_cm === undefined ? across : `${across}, hole ${withUnit(m.hole_cm, 'cm', units)}`
  }
  const [length = 0, width = 0] = m.side_cm === undefined ? [m.length_cm, m.width_cm] : [m.side_cm, m.side_cm]
  return `${shown(length, 'cm', units)} × ${withUnit(width, 'cm', units)}`
}

/** A pan's name and measures in one line. */
export const panTitle = (pan: Pan, units: Units): string => [pan.name, measures(pan, units)].filter(Boolean).join(', ')

/** What a pan takes up from above: [across, down]. Cups stand in rows. [cm] */
export function outline(solid: Solid): [number, number] {
  const [a = 0, b = 0] = solid.top
  if (solid.count > 1) {
    const rows = Math.max(1, Math.round(Math.sqrt(solid.count) * 0.8))
    return [a * 1.2 * Math.ceil(solid.count / rows), a * 1.2 * rows]
  }
  return solid.form === 'rectangle' ? [a, b] : [a, a]
}

/** With a large letter at its front, for what begins a line. */
export const upper = (text: string): string => text.slice(0, 1).toUpperCase() + text.slice(1)
