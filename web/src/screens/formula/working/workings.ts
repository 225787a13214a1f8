/** How a number was worked out, put into words from the core's relations. Only words are made here, no numbers. */
import { ofFlour, ofGauge, ofLine, ofStage, ofTotal, type LineField } from './ofFormula'
import { bare, figureOf, fillIn, fillPer, fillShown, FROM, labelOf, namesIn, targetOf, type FillPer, type Opened, type Working } from './words'
import type { Count, Derived, Formula, GaugeName, Method, Whole } from '@/api/client'
import { DIGITS, withUnit, type Units } from '@/base/format'
import { lowerFirst } from '@/screens/formula/lines/lines'

function ofQuantity(name: string, whole: Whole, formula: Formula, count: Count, units: Units): Working | null {
  const worked = whole.count.quantities[name]
  const label = labelOf(name, count, units.reference)
  if (!worked) return null
  const figure = figureOf(name, worked.value, formula, count, units)
  const relation = worked.relation ? units.reference.relations[worked.relation] : undefined
  if (!relation) {
    if (name === 'total_percent') return ofTotal(whole, formula, units)
    return { title: label, figure, says: `${label} is ${FROM[worked.source]}.`, words: '', figures: '', inputs: [] }
  }
  const target = targetOf(name)
  // A target's relations are written once, without its number; those over all targets come with the count.
  const full = (n: string) => (n.includes('.') || !(`${n}.${target}` in whole.count.quantities) ? n : `${n}.${target}`)
  const reads = fillIn(whole.count.reads[name] ?? relation.reads[bare(name)] ?? '', (n) => `{${full(n)}}`)
  const value = (n: string) => figureOf(n, whole.count.quantities[n]?.value ?? NaN, formula, count, units)
  return {
    title: label,
    figure,
    says: relation.says,
    words: fillIn(reads, (n) => lowerFirst(labelOf(n, count, units.reference))),
    figures: `${fillIn(reads, value)} = ${figure}`,
    inputs: namesIn(reads).map((n) => {
      const source = whole.count.quantities[n]?.source ?? 'worked'
      const opens = source === 'worked' || n === 'total_percent' ? n : undefined
      return { label: labelOf(n, count, units.reference), figure: value(n), from: FROM[source], opens }
    }),
  }
}

/** A figure that brings its own working: depths, limits, loads, shaping, selling. */
function ofDerived(one: Derived, per: FillPer, units: Units): Working {
  const say = (value: number, unit: Derived['unit']) => (unit === 'fill' ? fillShown(value, per, units, DIGITS.working) : withUnit(value, unit, units, DIGITS.working))
  const input = (name: string) => one.inputs.find((i) => i.name === name)
  const figure = say(one.value, one.unit)
  const told = namesIn(one.reads).flatMap((name) => input(name) ?? [])
  return {
    title: one.label,
    figure,
    says: one.says,
    words: fillIn(one.reads, (name) => lowerFirst(input(name)?.label ?? name)),
    figures: `${fillIn(one.reads, (name) => say(input(name)?.value ?? NaN, input(name)?.unit ?? 'count'))} = ${figure}`,
    inputs: told.map((i) => ({ label: i.label, figure: say(i.value, i.unit), from: '' })),
  }
}

/** The working of a figure of the method; null where it is not there any more. */
export function ofMethod(opened: Opened, method: Method, units: Units): Working | null {
  const own = method.figures[opened.replace(/^method:/, '')]
  return own ? ofDerived(own, 'area', units) : null
}

/** The working of an opened number; null where it is not on the screen any more. */
export function workingOf(opened: Opened, whole: Whole, formula: Formula, count: Count, units: Units): Working | null {
  const [kind, s, n, field] = opened.split(':')
  if (kind === 'gauge') return ofGauge(s as GaugeName, whole, formula, units)
  if (kind === 'line') return ofLine(Number(s), Number(n), field as LineField, whole, formula, units)
  if (kind === 'stage') return ofStage(Number(s), whole, formula, units)
  const own = whole.figures[opened]
  if (own) return ofDerived(own, whole.looked_at?.pan?.fill_per ?? fillPer(formula, count, whole.looking_at, units), units)
  if (opened === 'written_flour') return ofFlour(whole, formula, units)
  if (opened === 'total') return ofTotal(whole, formula, units)
  return ofQuantity(opened, whole, formula, count, units)
}
