/** What is known of a bake that is written in, as it is typed. */
import type { WriteIn } from '@/api/client'

export interface Told {
  water_g: number | null
  dough_c: number | null
  room_c: number | null
  oven_c: number | null
  middle_c: number | null
  dough_g: number | null
  /** "77, 79, 75". */
  pieces: string
  lines: Record<string, number | null>
  steps: Record<string, number | null>
  note: string
}
export const emptyTold = (): Told => ({ water_g: null, dough_c: null, room_c: null, oven_c: null, middle_c: null, dough_g: null, pieces: '', lines: {}, steps: {}, note: '' })

/** Weights in grams out of a line of them: apart by spaces, commas with a space, or semicolons. Those that are none are passed over. */
export const weightsIn = (text: string): number[] =>
  text.split(/[\s;]+|,(?!\d)|,(?=\d{2,}\b)/).map((one) => Number(one.replace(',', '.'))).filter((one) => Number.isFinite(one) && one > 0)

export function sentTold(told: Told): NonNullable<WriteIn['told']> {
  const { pieces, lines, steps, ...plain } = told
  const given = <T extends string>(all: Record<string, number | null>, key: T, value: string) => Object.entries(all).filter((one): one is [string, number] => one[1] !== null).map(([name, n]) => ({ [key]: name, [value]: n }))
  return {
    ...plain,
    who: '',
    pieces: weightsIn(pieces),
    lines: given(lines, 'line', 'g') as unknown as { line: string; g: number }[],
    steps: given(steps, 'task', 'minutes') as unknown as { task: string; minutes: number }[],
  }
}
