/** Times of a baking day: minutes from the midnight it begins at, below nothing on the days before. Only words are read and written here. */
import { clockText, DAY, readClock } from './times'

const NAMES = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat']
const LONG = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday']
const MONTHS = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December']

const dateOf = (date: string): Date => new Date(`${date}T12:00:00`)
export const dayOf = (minutes: number): number => Math.floor(Math.round(minutes) / DAY)
const weekday = (date: string, day: number): number => (dateOf(date).getDay() + day + 70) % 7

/** "Fri", for 0 the day itself, -1 the one before. */
export const dayName = (date: string, day: number): string => NAMES[weekday(date, day)] ?? ''

/** "Saturday 5 December". */
export function dateText(date: string): string {
  const own = dateOf(date)
  return `${LONG[own.getDay()]} ${own.getDate()} ${MONTHS[own.getMonth()]}`
}

/** "7:30" on the day itself, "Fri 19:40" on another. */
export const atText = (date: string, minutes: number): string => `${dayOf(minutes) === 0 ? '' : `${dayName(date, dayOf(minutes))} `}${clockOnly(minutes)}`
/** "Sat 7:30", always with its day. */
export const fullText = (date: string, minutes: number): string => `${dayName(date, dayOf(minutes))} ${clockOnly(minutes)}`
export const clockOnly = (minutes: number): string => clockText(((Math.round(minutes) % DAY) + DAY) % DAY).replace(/^0(\d)/, '$1')

/**
 * A typed time as minutes: "fri 19:40", "19:40". Without a day it is the one nearest to `near`. Null for nothing, NaN for what is no time.
 */
export function readAt(text: string, date: string, near: number): number | null {
  const found = /^\s*([a-z]{2,9})\.?\s+(.+)$/i.exec(text)
  const name = found?.[1]?.toLowerCase().slice(0, 3)
  const clock = readClock(found && name ? (found[2] ?? '') : text)
  if (clock === null || Number.isNaN(clock)) return clock
  if (name) {
    const day = [0, -1, -2, -3, -4, 1, 2].find((one) => dayName(date, one).toLowerCase() === name)
    return day === undefined ? NaN : day * DAY + clock
  }
  const day = Math.round((near - clock) / DAY)
  return day * DAY + clock
}

/** The next of a weekday (6: Saturday) from today on, as a date. */
export function nextDate(day: number): string {
  const now = new Date()
  const ahead = (day - now.getDay() + 7) % 7 || 7
  return isoDate(new Date(now.getFullYear(), now.getMonth(), now.getDate() + ahead))
}
export const isoDate = (own: Date): string => `${own.getFullYear()}-${String(own.getMonth() + 1).padStart(2, '0')}-${String(own.getDate()).padStart(2, '0')}`

/** What time it is, in minutes of a day; null where that is not within the days around it. */
export function nowOf(date: string): number | null {
  const midnight = new Date(`${date}T00:00:00`)
  const minutes = (Date.now() - midnight.getTime()) / 60_000
  return minutes > -3 * DAY && minutes < 2 * DAY ? minutes : null
}
