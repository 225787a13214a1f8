/** The words and figures that workings are put together from. */
import type { Count, Formula, GaugeName, Reference } from '@/api/client'
import { DIGITS, shown, withUnit, type Kind, type Units } from '@/base/format'

export type FillPer = Reference['fills'][string]['per']

/** Which number is open: a quantity of the count, a figure of the formula, or a line's figure ("line:0:2:percent"), a stage ("stage:0"). */
export type Opened = string

export interface WorkingInput {
  label: string
  figure: string
  /** Where it came from, in words. */
  from: string
  /** What to open to go on from here; absent where there is nothing further back. */
  opens?: Opened
}

export interface Working {
  title: string
  figure: string
  says: string
  /** The relation with names, and the same with figures; empty where it is a plain sum. */
  words: string
  figures: string
  inputs: WorkingInput[]
  /** The gauge that it is of, where its band may be changed. */
  gauge?: GaugeName
}

export const FROM = {
  pinned: 'pinned by you',
  worked: 'worked out',
  usual: 'usual for this formula',
  learned: 'what this kitchen’s bakes say',
  written: 'as the formula is written',
  formula: 'from the formula',
  pan: 'from the pan',
  limit: 'as far as the limits let it go',
} as const

/** A quantity of the count without its target: "pieces" of "pieces.1". */
export const bare = (name: string): string => name.split('.')[0] ?? name
/** Which target a quantity is of, from 0; −1 for one of the batch. */
export const targetOf = (name: string): number => Number(name.split('.')[1] ?? -1)

/** What a target's fill is measured by. */
export function fillPer(formula: Formula, count: Count, target: number, units: Units): FillPer {
  const one = count.targets[target]
  const per = units.reference.fills[one?.fill_kind ?? formula.usual.fill_kind]?.per ?? 'area'
  return one?.pan && ['griddle', 'stone'].includes(one.pan.shape) ? 'area' : per
}
const FILL_UNIT: Record<FillPer, string> = { area: 'g/cm²', volume: 'g/ml', share: '% full' }
const SIZE_UNIT: Record<FillPer, string> = { area: 'cm²', volume: 'ml', share: 'g to the brim' }

/** A fill as it is shown. */
export const fillShown = (fill: number, per: FillPer, units: Units, digits?: number): string =>
  `${shown(per === 'share' ? fill * 100 : fill, 'fill', units, digits)} ${FILL_UNIT[per]}`

/** A quantity of the count with its unit. */
export function figureOf(name: string, value: number, formula: Formula, count: Count, units: Units): string {
  const kind = (units.reference.quantities[bare(name)]?.kind ?? 'g') as Kind
  const per = fillPer(formula, count, targetOf(name), units)
  if (kind === 'fill') return fillShown(value, per, units, DIGITS.working)
  if (kind === 'size') return `${withUnit(value, kind, units, DIGITS.working)} ${SIZE_UNIT[per]}`
  return withUnit(value, kind, units, DIGITS.working)
}

/** A quantity's name; of several targets, with which. */
export function labelOf(name: string, count: Count, reference: Reference): string {
  const label = reference.quantities[bare(name)]?.label ?? name
  const target = targetOf(name)
  return target < 0 || count.targets.length < 2 ? label : `${label}, ${count.targets[target]?.name || `target ${target + 1}`}`
}

/** A reading with something put for each of its names in braces. */
export const fillIn = (reads: string, put: (name: string) => string) =>
  reads.replace(/\{([\w.]+)\}/g, (_, name: string) => put(name)).replaceAll('+ −', '− ')
/** The names in braces of a reading, each once. */
export const namesIn = (reads: string) => [...new Set([...reads.matchAll(/\{([\w.]+)\}/g)].map((found) => found[1] as string))]
