/** How a number was worked out, put into words from the core's relations. Only words are made here, no numbers. */
import type { Count, Derived, Formula, GaugeName, Reference, Whole } from '@/api/client'
import { DIGITS, shown, withUnit, type Kind, type Units } from '@/base/format'
import { lowerFirst, stageName } from '@/screens/formula/lines/lines'

type FillPer = Reference['fills'][string]['per']

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

const FROM = {
  pinned: 'pinned by you',
  worked: 'worked out',
  usual: 'usual for this formula',
  written: 'as the formula is written',
  formula: 'from the formula',
  pan: 'from the pan',
  limit: 'as far as the limits let it go',
} as const

/** A quantity of the count without its target: "pieces" of "pieces.1". */
export const bare = (name: string): string => name.split('.')[0] ?? name
const targetOf = (name: string): number => Number(name.split('.')[1] ?? -1)

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

const fillIn = (reads: string, put: (name: string) => string) => reads.replace(/\{([\w.]+)\}/g, (_, name: string) => put(name))
const namesIn = (reads: string) => [...new Set([...reads.matchAll(/\{([\w.]+)\}/g)].map((found) => found[1] as string))]

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

/** A line's name, with its stage where there are several. */
function lineName(formula: Formula, s: number, n: number, units: Units): string {
  const name = formula.stages[s]?.lines[n]?.name || 'Line without a name'
  return formula.stages.length > 1 ? `${name}, ${lowerFirst(stageName(formula, s, units))}` : name
}

function ofTotal(whole: Whole, formula: Formula, units: Units): Working {
  const figure = withUnit(whole.formula.shown_total_percent, 'percent', units, DIGITS.working)
  return {
    title: 'Total',
    figure,
    says: units.reference.relations.total?.says ?? '',
    words: '',
    figures: '',
    inputs: whole.formula.stages.map((stage, s) => ({
      label: stageName(formula, s, units),
      figure: withUnit(stage.shown_percent, 'percent', units, DIGITS.working),
      from: stage.reach < 0.9999 ? `${shown(stage.reach, 'share', units, 3)} % of it reaches the dough` : `${stage.lines.length} ${stage.lines.length === 1 ? 'line' : 'lines'}`,
    })),
  }
}

function ofFlour(whole: Whole, formula: Formula, units: Units): Working {
  return {
    title: 'All flour as written',
    figure: withUnit(whole.formula.flour_g, 'g', units, DIGITS.working),
    says: units.reference.relations.written_flour?.says ?? '',
    words: '',
    figures: '',
    inputs: whole.formula.flours.map(({ stage: s, line: n, weight_g }) => {
      const line = formula.stages[s]?.lines[n]
      const given = whole.formula.stages[s]?.lines[n]?.given === 'weight' ? 'given by weight' : 'given in percent'
      return {
        label: lineName(formula, s, n, units),
        figure: withUnit(weight_g, 'g', units, DIGITS.working),
        from: line?.role === 'flour' ? given : 'the flour of a starter',
        opens: `line:${s}:${n}:weight_g`,
      }
    }),
  }
}

type LineField = 'percent' | 'weight_g' | 'count_g'
const LINE_RULE = { percent: 'percent_of', weight_g: 'weight_of', count_g: 'count_weight' } as const

function ofLine(s: number, n: number, field: LineField, whole: Whole, formula: Formula, units: Units): Working | null {
  const line = formula.stages[s]?.lines[n]
  const own = whole.formula.stages[s]?.lines[n]
  if (!line || !own) return null
  const values: Record<string, string> = {
    percent: withUnit(own.shown_percent, 'percent', units, DIGITS.working),
    weight_g: withUnit(own.weight_g, 'g', units, DIGITS.working),
    count_g: withUnit(whole.count_g[s]?.[n] ?? NaN, 'g', units, DIGITS.working),
    written_flour_g: withUnit(whole.formula.base_g, 'g', units, DIGITS.working),
    flour_g: withUnit(whole.count.quantities.flour_g?.value ?? NaN, 'g', units, DIGITS.working),
  }
  const labels: Record<string, string> = {
    percent: 'its percentage',
    weight_g: 'its weight as written',
    written_flour_g: whole.formula.base_g < whole.formula.flour_g ? 'the flour that is 100 %' : 'all flour as written',
    flour_g: "the count's flour",
  }
  const given = own.given === 'weight' ? 'weight_g' : 'percent'
  const title = `${line.name || 'This line'}, ${field === 'percent' ? '% of flour' : field === 'weight_g' ? 'as written' : 'this count'}`
  if (field === given) {
    return { title, figure: values[field] ?? '', says: 'You typed this.', words: '', figures: '', inputs: [] }
  }
  const rule = units.reference.relations[LINE_RULE[field]]
  const reads = rule?.reads[field] ?? ''
  const opens = (name: string) =>
    name === 'written_flour_g' ? 'written_flour' : name === 'flour_g' ? name : name === given ? undefined : `line:${s}:${n}:${name}`
  return {
    title,
    figure: values[field] ?? '',
    says: rule?.says ?? '',
    words: fillIn(reads, (name) => labels[name] ?? name),
    figures: `${fillIn(reads, (name) => values[name] ?? '')} = ${values[field]}`,
    inputs: namesIn(reads).map((name) => ({
      label: labels[name] ?? name,
      figure: values[name] ?? '',
      from: name === given ? 'typed by you' : 'worked out',
      opens: opens(name),
    })),
  }
}

function ofStage(s: number, whole: Whole, formula: Formula, units: Units): Working | null {
  const stage = formula.stages[s]
  const weight = whole.stage_count_g[s]
  if (!stage || weight === undefined) return null
  return {
    title: stage.name || 'This stage',
    figure: withUnit(weight, 'g', units, DIGITS.working),
    says: units.reference.relations.stage?.says ?? '',
    words: '',
    figures: '',
    inputs: [
      ...stage.lines.map((line, n) => ({
        label: line.name || 'Line without a name',
        figure: withUnit(whole.count_g[s]?.[n] ?? NaN, 'g', units, DIGITS.working),
        from: 'worked out',
        opens: `line:${s}:${n}:count_g`,
      })),
      ...(whole.passing[s] ?? []).flatMap((one) => (one.source == null ? [] : [{
        label: one.what === 'fed' ? stageName(formula, one.source, units) : 'Water, for what boiled off',
        figure: withUnit(one.count_g, 'g', units, DIGITS.working),
        from: 'comes in',
        opens: `stage:${one.source}`,
      }])),
    ],
  }
}

const gaugeFigure = (percent: number, units: Units) => withUnit(percent, 'percent', units, DIGITS.working)

/** A gauge, line by line: what each brings, and how much of it a hundred grams hold. */
function ofGauge(key: GaugeName, whole: Whole, formula: Formula, units: Units): Working | null {
  const gauge = whole.character.gauges[key]
  const rule = units.reference.gauges[key]
  if (!gauge || !rule) return null
  const band = gauge.low == null || gauge.high == null ? '' : ` ${gauge.of === 'formula' ? 'Your band for this dough' : `The band of ${whole.character.style}`}: ${withUnit(gauge.low, 'percent', units)} to ${withUnit(gauge.high, 'percent', units)}.`
  return {
    title: rule.label,
    figure: gaugeFigure(gauge.value, units),
    says: rule.says + band,
    words: '',
    figures: '',
    inputs: [...gauge.brings]
      .sort((a, b) => Number(a.apart) - Number(b.apart) || b.percent - a.percent)
      .map((one) => {
        const holds = key === 'yeast' ? `counts ${shown(one.holds / 100, 'count', units, 3)} times` : `${shown(one.holds, 'count', units, 3)} g in 100 g`
        return {
          label: lineName(formula, one.stage, one.line, units),
          figure: gaugeFigure(one.percent, units),
          from: one.apart ? `${rule.apart}, not counted` : holds,
          opens: `line:${one.stage}:${one.line}:percent`,
        }
      }),
    gauge: key,
  }
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
