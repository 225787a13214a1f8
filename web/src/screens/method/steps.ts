/** Editing of ways and steps: plain functions on the desk's own copy of a formula. No baking arithmetic. */
import type { Count, Formula, Step, StepKind, Takes, Way } from '@/api/client'
import { plainCopy } from '@/base/copy'
import type { Units } from '@/base/format'
import { stageName } from '@/screens/formula/lines/lines'

export const emptyStep = (kind = 'note'): Step => ({
  kind: kind as Step['kind'], of: '', text: '', takes: [], lasts: null, by: null, hands: null, touches: null, touch_min: null, place: null, heat: null, told_yeast: null,
  room_first_min: null, look: null, if_not: null, again_min: null, waits_min: null, caution: '', during: false,
})
export const emptyWay = (name = ''): Way => ({ name, key: '', steps: [], changed: [], stages: null, dough_c: null, warm: [], written: '' })

/** A key that nothing has: steps call lines, stages and ways by theirs. */
export const newKey = (): string => crypto.randomUUID().slice(0, 8)

/** Which way a count goes; the first where it names none, or one that is gone. */
export function wayNumber(formula: Formula, count: Count): number {
  return Math.max(0, formula.ways.findIndex((way) => count.way !== '' && way.key === count.way))
}

/** The way that a count goes, to be edited in place; it is made where there is none yet. */
export function ownWay(formula: Formula, count: Count): Way {
  if (!formula.ways.length) formula.ways.push(emptyWay())
  return formula.ways[wayNumber(formula, count)] as Way
}

/** The stages of a way: its own, or the formula's. */
export const stagesOf = (formula: Formula, way: Way | undefined): Formula['stages'] => way?.stages ?? formula.stages

/** A copy of a way under a name of its own, with a key. */
export function copyOf(formula: Formula, way: Way): Way {
  const names = new Set(formula.ways.map((one) => one.name))
  const base = way.name ? `${way.name}, otherwise`.slice(0, 290) : 'Another way'
  let name = base
  for (let n = 2; names.has(name); n++) name = `${base} ${n}`
  return { ...plainCopy(way), name, key: newKey() }
}

export function moveStep(way: Way, from: number, to: number): number {
  const [step] = way.steps.splice(from, 1)
  const at = Math.max(0, Math.min(to, way.steps.length))
  if (step) way.steps.splice(at, 0, step)
  return at
}

/** Where a step usually comes among those of a way: behind the last one of an earlier kind, by the order of kinds. */
export function placeFor(way: Way, kind: string, kinds: readonly string[]): number {
  const rank = kinds.indexOf(kind)
  const before = way.steps.findLastIndex((step) => kinds.indexOf(step.kind) <= rank && step.kind !== 'note')
  return before + 1
}

/** Something that may go in at a step, as it is chosen: "line:<key>", "rest:<key>". */
export interface Goes {
  value: string
  label: string
  group: string
}

/** All that may go in, of the dough and beside it. */
export function goesOf(formula: Formula, way: Way | undefined, units: Units): Goes[] {
  const stages = stagesOf(formula, way)
  const shown = { ...formula, stages }
  const found: Goes[] = []
  stages.forEach((stage, s) => {
    const group = stageName(shown, s, units)
    found.push({ value: `rest:${s}`, label: `all that no step names of ${group}`, group })
    if (stages.length > 1) found.push({ value: `stage:${s}`, label: `${group}, made`, group })
    stage.lines.forEach((line, n) => {
      if (line.name) found.push({ value: `line:${s}:${n}`, label: line.name, group })
    })
  })
  formula.beside.forEach((one, b) => found.push({ value: `beside:${b}`, label: one.name || 'beside the dough', group: 'Beside the dough' }))
  return found
}

const keyed = (of: { key: string }): string => (of.key ||= newKey())

/** What was chosen as something that goes in; what it calls gets a key to be called by. */
export function takesOf(chosen: string, formula: Formula, way: Way): Takes | null {
  const [what, a, n] = chosen.split(':')
  const stages = stagesOf(formula, way)
  const stage = stages[Number(a)]
  if (what === 'beside') {
    const one = formula.beside[Number(a)]
    return one ? { what, key: keyed(one), part: 'all', share: 1, called: one.name } : null
  }
  if (!stage) return null
  if (what === 'line') {
    const line = stage.lines[Number(n)]
    return line ? { what, key: keyed(line), part: line.held_back ? 'first' : 'all', share: 1, called: line.name } : null
  }
  return { what: what as 'rest' | 'stage', key: keyed(stage), part: 'all', share: 1, called: stage.name }
}

/** Kinds of step by their group, as they are chosen from. */
const GROUPS: Record<StepKind['group'], string> = { before: 'Before the dough', dough: 'The dough', rise: 'Rising and resting', shape: 'Shaping', heat: 'Into the heat', after: 'After', any: 'Besides' }
export const kindOptions = (units: Units) => Object.values(units.reference.step_kinds).map(({ key, label, group }) => ({ value: key, label, group: GROUPS[group] }))
export const kindOf = (step: Step, units: Units): StepKind => (units.reference.step_kinds[step.kind] ?? units.reference.step_kinds.note) as StepKind

export const PLACES = [
  ['bench', 'bench'], ['bowl', 'bowl'], ['mixer', 'mixer'], ['room', 'in the room'], ['warm', 'warm spot'], ['fridge', 'fridge'], ['freezer', 'freezer'],
  ['stove', 'stove'], ['pot', 'pot'], ['griddle', 'griddle'], ['oven', 'oven'], ['rack', 'rack'],
] as const
export const HANDS = [['all', 'all the time'], ['start', 'at the beginning'], ['end', 'at the end'], ['touches', 'several times'], ['none', 'not at all']] as const
export const choices = <T extends string>(of: readonly (readonly [T, string])[]) => of.map(([value, label]) => ({ value, label }))
