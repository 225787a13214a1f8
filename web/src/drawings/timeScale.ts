/** Minutes on paper: long stretches in which nothing happens are drawn short, so that the minutes that need hands can be seen. */
export interface TimeScale {
  /** Where a minute stands, from 0 to `wide`. */
  at: (minute: number) => number
  /** Which minute stands there. */
  minute: (place: number) => number
  /** Stretches that are drawn short: from, to. */
  short: [number, number][]
}

/** A stretch longer than this is drawn short [min], and what of it is over this counts only so much. */
const LONG = 75
const SHRUNK = 0.07

/** `marks` are the minutes at which something begins, ends or is done. */
export function timeScale(marks: readonly number[], end: number, wide: number): TimeScale {
  const points = [...new Set([0, ...marks, end])].filter((one) => one >= 0 && one <= end).sort((a, b) => a - b)
  const lengths = points.slice(1).map((point, n) => {
    const minutes = point - (points[n] ?? 0)
    return minutes > LONG ? LONG + (minutes - LONG) * SHRUNK : minutes
  })
  const total = lengths.reduce((a, b) => a + b, 0) || 1
  const places = [0]
  for (const length of lengths) places.push((places.at(-1) ?? 0) + (length / total) * wide)
  const at = (minute: number): number => {
    const n = Math.max(0, points.findLastIndex((point) => point <= minute))
    const [from, to] = [points[n] ?? 0, points[n + 1] ?? end]
    const [a, b] = [places[n] ?? 0, places[n + 1] ?? wide]
    return to > from ? a + ((Math.min(minute, to) - from) / (to - from)) * (b - a) : a
  }
  const minute = (place: number): number => {
    const n = Math.max(0, places.findLastIndex((one) => one <= place))
    const [from, to] = [points[n] ?? 0, points[n + 1] ?? end]
    const [a, b] = [places[n] ?? 0, places[n + 1] ?? wide]
    return b > a ? from + ((Math.min(place, b) - a) / (b - a)) * (to - from) : from
  }
  const short = points.slice(1).flatMap((point, n): [number, number][] => (point - (points[n] ?? 0) > LONG ? [[points[n] ?? 0, point]] : []))
  return { at, minute, short }
}
