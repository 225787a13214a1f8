/** Times as bakers write and read them: "45 min", "1 h 30", "8–10 min", "7:30". Only words are read here; nothing is reckoned. */

const HOUR = 60
export const DAY = 24 * HOUR
/** Nobody looks at a rise by the minute: what is nearer than this is on time. */
export const NEAR_MIN = 3

/** "30 s", "1½ min", "45 min", "1 h 30 min", "12 h". */
export function minutesText(minutes: number): string {
  if (!Number.isFinite(minutes)) return '–'
  if (minutes === 1.5) return '1½ min'
  if (minutes > 0 && Math.round(minutes * HOUR) < HOUR) return `${Math.round(minutes * HOUR)} s`
  const whole = Math.round(minutes)
  if (whole < HOUR) return `${whole} min`
  const [hours, rest] = [Math.floor(whole / HOUR), whole % HOUR]
  return rest ? `${hours} h ${rest} min` : `${hours} h`
}

/** From so long to so long: "8–10 min", "1 h – 1 h 30 min". */
export function spanText(low: number, high: number): string {
  const [first, last] = [minutesText(low), minutesText(high)]
  if (first === last) return last
  const [number, unit] = first.split(' ')
  const plain = first.split(' ').length === 2 && last.split(' ').length === 2 && last.endsWith(` ${unit}`)
  return plain ? `${number}–${last}` : `${first} – ${last}`
}

const UNITS: Record<string, number> = { s: 1 / HOUR, sec: 1 / HOUR, m: 1, min: 1, h: HOUR, hr: HOUR, std: HOUR, d: DAY, day: DAY, days: DAY }
const FRACTIONS: Record<string, string> = { '½': '.5', '¼': '.25', '¾': '.75' }

/** One time: null where it is not read. A bare number is of `unit`; behind hours it is minutes: "1 h 30". */
function readOne(text: string, unit: number): number | null {
  const tidy = text.replace(/(\d)\s*([½¼¾])/g, (_, whole: string, part: string) => whole + FRACTIONS[part]).replace(/[½¼¾]/g, (part) => `0${FRACTIONS[part]}`)
  const parts = [...tidy.matchAll(/(\d+(?:[.,]\d+)?)\s*([a-z]*)\.?\s*/gi)]
  if (!parts.length || parts.map((part) => part[0]).join('').length !== tidy.trim().length + (tidy.length - tidy.trimEnd().length)) return null
  let total = 0
  for (const [n, [, number = '', name = '']] of parts.entries()) {
    const worth = name ? UNITS[name.toLowerCase()] : n ? 1 : unit
    if (worth === undefined) return null
    total += Number(number.replace(',', '.')) * worth
  }
  return total
}

export interface Span {
  low_min: number
  usual_min: number
  high_min: number
}

/** A typed time or range of times: "60–75–90 min" is least, usual and most. Null for nothing, 'unread' for what is no time. */
export function readSpan(text: string): Span | null | 'unread' {
  const parts = text.trim().split(/\s*(?:–|—|-|\bto\b|\bbis\b)\s*/)
  if (!text.trim()) return null
  const last = parts.at(-1) ?? ''
  const named = /([a-z]+)\.?\s*$/i.exec(last)?.[1]?.toLowerCase()
  const unit = named && /^\S+\s*[a-z]+\.?$/i.test(last.trim()) ? (UNITS[named] ?? 1) : 1
  const read = parts.map((part) => readOne(part, unit))
  const [first, middle, end] = read.length === 3 ? read : [read[0], undefined, read.at(-1)]
  if (read.length > 3 || first == null || end == null || middle === null || first > end) return 'unread'
  const usual = middle ?? (first + end) / 2
  return usual < first || usual > end ? 'unread' : { low_min: first, usual_min: usual, high_min: end }
}

const two = (n: number) => String(n).padStart(2, '0')

/** A time of day from minutes after a midnight: "07:05", with the day behind it where it is another than the first. */
export function clockText(minutes: number, firstDay = 0): string {
  const whole = Math.round(minutes)
  const days = Math.floor(whole / DAY) - firstDay
  const rest = ((whole % DAY) + DAY) % DAY
  return `${two(Math.floor(rest / HOUR))}:${two(rest % HOUR)}${days === 0 ? '' : days === 1 ? ' next day' : ` day ${days + 1}`}`
}

/** "7", "7:05", "19.30": minutes after midnight. Null for nothing, NaN for what is no time of day. */
export function readClock(text: string): number | null {
  const tidy = text.trim().toLowerCase()
  if (!tidy) return null
  const found = /^(\d{1,2})(?:[:.h]\s*(\d{2}))?\s*(am|pm|h|uhr)?$/.exec(tidy)
  if (!found) return NaN
  const hours = Number(found[1]) + (found[3] === 'pm' && Number(found[1]) < 12 ? 12 : 0)
  const minutes = hours * HOUR + Number(found[2] ?? 0)
  return hours > 24 || Number(found[2] ?? 0) > 59 || minutes > DAY ? NaN : minutes
}

/** A time from the beginning, "1:05", or of the day, "07:05", where it begins at one. */
export function whenText(minutes: number, begins: number | null): string {
  const whole = Math.round(minutes)
  return begins === null ? `${Math.floor(whole / HOUR)}:${two(whole % HOUR)}` : clockText(begins + minutes, dayOf(minutes, begins))
}
const dayOf = (minutes: number, begins: number): number => Math.floor(Math.round(begins + minutes) / DAY)

/** "next day", "day 3": where a time is of another day than the one before it. */
export function newDayText(minutes: number, before: number | undefined, begins: number | null): string {
  if (begins === null) return ''
  const [first, own] = [Math.floor(begins / DAY), dayOf(minutes, begins)]
  if (own === (before === undefined ? first : dayOf(before, begins))) return ''
  return own - first === 1 ? 'next day' : own === first ? '' : `day ${own - first + 1}`
}
