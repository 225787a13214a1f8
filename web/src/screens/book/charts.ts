/** The charts over many bakes: which numbers each looks at, and how. A chart shows what lies beside what, never why. */
import type { BookPoint } from '@/api/client'
import { celsius, scoreText, share } from './words'
import { plain } from '@/base/format'
import { minutesText } from '@/base/times'

export interface ChartKind {
  key: string
  title: string
  says: string
  /** Along: when it was baked, or how warm the dough was. */
  along: 'begun_at' | 'rise_c'
  y: (point: BookPoint) => number | null
  text: (value: number) => string
  /** The axis begins at nothing. */
  fromZero: boolean
}
const n = (value: number | null | undefined): number | null => value ?? null
export const CHARTS: readonly ChartKind[] = [
  { key: 'score', title: 'Score', says: 'the mean of its scales', along: 'begun_at', y: (one) => n(one.numbers.score), text: scoreText, fromZero: false },
  { key: 'bake_loss', title: 'Baking loss', says: 'of the raw piece', along: 'begun_at', y: (one) => n(one.numbers.bake_loss), text: share, fromZero: false },
  { key: 'bench_loss', title: 'Bowl and bench loss', says: 'of what was mixed', along: 'begun_at', y: (one) => n(one.numbers.bench_loss), text: share, fromZero: true },
  { key: 'spread', title: 'How far pieces stray', says: 'standard deviation of those weighed off', along: 'begun_at', y: (one) => n(one.numbers.spread_g), text: (value) => `${plain(value, 2)} g`, fromZero: true },
  { key: 'rise', title: 'All rises against warmth', says: 'of the dough, in the middle of its first rise', along: 'rise_c', y: (one) => n(one.numbers.rise_min), text: minutesText, fromZero: false },
  { key: 'water', title: 'Water added at the mixer', says: 'over what was meant, in points of all flour', along: 'begun_at', y: (one) => one.numbers.water_added_points, text: (value) => `${plain(value, 2)} points`, fromZero: true },
]
export const alongText = (kind: ChartKind, value: number): string => {
  if (kind.along === 'rise_c') return celsius(value)
  const at = new Date(value)
  return `${at.getDate()} ${at.toLocaleString('en', { month: 'short' })} ${at.getFullYear()}`
}
export const along = (kind: ChartKind, one: BookPoint): number | null => (kind.along === 'begun_at' ? Date.parse(one.begun_at) : (one.numbers.rise_c ?? null))
