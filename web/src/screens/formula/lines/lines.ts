/** Editing of lines and stages: plain functions on the desk's own copy of a formula. No baking arithmetic. */
import type { Beside, Formula, Ingredient, Line, Role, Stage, StageKind } from '@/api/client'
import { upper, type Units } from '@/base/format'

export const ROLES: readonly Role[] = ['flour', 'liquid', 'fat', 'sugar', 'salt', 'leaven', 'egg', 'dairy', 'flavour', 'mash', 'inclusion']

export const emptyLine = (): Line => ({ name: '', role: null, weight_g: null, percent: null, note: '', held_back: 0, parts: 1, hydration: null, key: '', written: '', band: null })
export const emptyStage = (name: string, kind: StageKind = 'dough'): Stage => ({ name, kind, key: '', feeds: [], boiled_off: 0, lines: [emptyLine()] })
export const emptyBeside = (name: string, kind: Beside['kind']): Beside => ({ name, key: '', kind, serves: null, border_cm: 1, lines: [emptyLine()] })

export function emptyFormula(): Formula {
  return {
    name: '',
    styles: [],
    flour_g: 1000,
    stages: [emptyStage('Dough')],
    beside: [],
    ways: [],
    usual: { piece_g: 80, pieces_per_pan: 12, pans: 1, bench_loss: 0.02, fill_kind: 'pull_apart_buns', fill: null, pan: null, shaping: { kind: 'ball', overlap_cm: 2 } },
    bands: {},
    rested: [],
    note: '',
  }
}

/** What a stage is called: its name, else what it is. */
export function stageName(formula: Formula, s: number, units: Units): string {
  const stage = formula.stages[s]
  const label = units.reference.stages[stage?.kind ?? 'dough']?.label ?? 'stage'
  return stage?.name || upper(label)
}

/** The same inside a sentence. */
export const lowerFirst = (text: string): string => text.slice(0, 1).toLowerCase() + text.slice(1)

/** Where a line stands. */
export interface Spot {
  stage: number
  line: number
}

/** Put an empty line after `spot` (before the first with line −1). Returns its spot. */
export function addLine(formula: Formula, spot: Spot): Spot {
  const at = { stage: spot.stage, line: spot.line + 1 }
  formula.stages[at.stage]?.lines.splice(at.line, 0, emptyLine())
  return at
}

/** Take a line out. Returns the spot to go on at, or null where the stage is empty now. */
export function removeLine(formula: Formula, spot: Spot): Spot | null {
  const lines = formula.stages[spot.stage]?.lines
  if (!lines) return null
  lines.splice(spot.line, 1)
  return lines.length ? { stage: spot.stage, line: Math.min(spot.line, lines.length - 1) } : null
}

/** Move a line one place up or down, over the edge into the next stage. Returns its new spot. */
export function moveLine(formula: Formula, spot: Spot, by: 1 | -1): Spot {
  const from = formula.stages[spot.stage]
  const line = from?.lines[spot.line]
  if (!from || !line) return spot
  const next = spot.line + by
  if (next >= 0 && next < from.lines.length) {
    from.lines.splice(spot.line, 1)
    from.lines.splice(next, 0, line)
    return { stage: spot.stage, line: next }
  }
  const other = formula.stages[spot.stage + by]
  if (!other) return spot
  from.lines.splice(spot.line, 1)
  const at = by > 0 ? 0 : other.lines.length
  other.lines.splice(at, 0, line)
  return { stage: spot.stage + by, line: at }
}

/** Set a line's weight or percent; the other one follows from it, so it is let go, as is how far off it may have been. */
export function setAmount(line: Line, field: 'weight_g' | 'percent', value: number | null): void {
  line.weight_g = field === 'weight_g' ? value : null
  line.percent = field === 'percent' ? value : null
  line.band = null
}

const namesOf = (item: Ingredient): string[] => [item.name, ...item.also, ...item.also_de]

/** The known ingredient that is called `name`, by its own or another name. */
export function findIngredient(pantry: readonly Ingredient[], name: string): Ingredient | undefined {
  const wanted = name.trim().toLowerCase()
  const called = (item: Ingredient) => namesOf(item).some((n) => n.toLowerCase() === wanted)
  return pantry.find(called)
}

/** Ingredients whose name, or another name of theirs, holds `text`; those that start with it first, the shortest first. */
export function suggest(pantry: readonly Ingredient[], text: string, most = 8): Ingredient[] {
  const wanted = text.trim().toLowerCase()
  if (!wanted) return []
  const rank = (item: Ingredient) => {
    const names = namesOf(item).map((n) => n.toLowerCase())
    if (names[0]?.startsWith(wanted)) return 0
    if (names.some((n) => n.split(/[\s,]+/).some((word) => word.startsWith(wanted)))) return 1
    return names.some((n) => n.includes(wanted)) ? 2 : 3
  }
  return pantry
    .map((item) => ({ item, rank: rank(item) }))
    .filter((found) => found.rank < 3)
    .sort((a, b) => a.rank - b.rank || a.item.name.length - b.item.name.length)
    .slice(0, most)
    .map((found) => found.item)
}
