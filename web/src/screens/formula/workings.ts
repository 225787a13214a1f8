/** How a number was worked out, put into words from the core's relations. Only words are made here, no numbers. */
import type { Formula, GaugeName, PinName, Reference, Whole } from '@/api/client'
import { DIGITS, shown, withUnit, type Kind, type Units } from '@/format'
import { lowerFirst, stageName } from './lines'

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
} as const

const fillUnit = (per: string) => (per === 'area' ? 'g/cm²' : 'g/ml')

/** A quantity of the count with its unit. */
export function figureOf(name: string, value: number, formula: Formula, units: Units): string {
  const kind = (units.reference.quantities[name]?.kind ?? 'g') as Kind
  const per = units.reference.fills[formula.usual.fill_kind]?.per ?? 'area'
  if (kind === 'fill') return `${withUnit(value, kind, units, DIGITS.working)} ${fillUnit(per)}`
  if (kind === 'size') return `${withUnit(value, kind, units, DIGITS.working)} ${per === 'area' ? 'cm²' : 'ml'}`
  return withUnit(value, kind, units, DIGITS.working)
}

const fillIn = (reads: string, put: (name: string) => string) => reads.replace(/\{(\w+)\}/g, (_, name: string) => put(name))
const namesIn = (reads: string) => [...reads.matchAll(/\{(\w+)\}/g)].map((found) => found[1] as string)

function ofQuantity(name: string, whole: Whole, formula: Formula, units: Units): Working | null {
  const { quantities, relations } = units.reference
  const worked = whole.count.quantities[name]
  const label = quantities[name]?.label ?? name
  if (!worked) return null
  const figure = figureOf(name, worked.value, formula, units)
  const relation = worked.relation ? relations[worked.relation] : undefined
  if (!relation) {
    if (name === 'total_percent') return ofTotal(whole, formula, units)
    return { title: label, figure, says: `${label} is ${FROM[worked.source]}.`, words: '', figures: '', inputs: [] }
  }
  const reads = relation.reads[name] ?? ''
  const value = (n: string) => figureOf(n, whole.count.quantities[n]?.value ?? NaN, formula, units)
  return {
    title: label,
    figure,
    says: relation.says,
    words: fillIn(reads, (n) => quantities[n]?.label.toLowerCase() ?? n),
    figures: `${fillIn(reads, value)} = ${figure}`,
    inputs: namesIn(reads).map((n) => {
      const source = whole.count.quantities[n]?.source ?? 'worked'
      const opens = source === 'worked' || n === 'total_percent' ? n : undefined
      return { label: quantities[n]?.label ?? n, figure: value(n), from: FROM[source], opens }
    }),
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

type PanFigure = 'depth_divided' | 'depth_doubled' | 'pan_fill'
const PAN_TITLES: Record<PanFigure, string> = { depth_divided: 'Depth as divided', depth_doubled: 'Depth when doubled', pan_fill: 'Fill' }

function ofPan(name: PanFigure, whole: Whole, units: Units): Working | null {
  const pan = whole.pan
  if (!pan) return null
  const square = `${withUnit(pan.area_cm2, 'size', units, DIGITS.working)} cm²`
  const figures: Record<string, [label: string, figure: string, from: string, opens?: Opened]> = {
    depth_divided: ['depth as divided', withUnit(pan.depth_divided_cm, 'cm', units), 'worked out', 'depth_divided'],
    depth_doubled: ['depth when doubled', withUnit(pan.depth_doubled_cm, 'cm', units), 'worked out'],
    pan_fill: ['fill', `${withUnit(pan.fill, 'fill', units)} ${fillUnit(pan.fill_per)}`, 'worked out'],
    pan_dough_g: ['dough in the fullest pan', withUnit(pan.dough_g, 'g', units, DIGITS.working), 'its pieces together', 'piece_g'],
    density: ['density', `${withUnit(pan.density_g_per_ml, 'fill', units)} g/ml`, 'common practice for mixed dough'],
    area: ['area of the pan', square, 'from the pan'],
    rise: ['rise', withUnit(pan.rise, 'count', units), 'doubled'],
    pan_size: ['size of the pan', pan.fill_per === 'area' ? square : `${withUnit(pan.volume_ml, 'size', units, DIGITS.working)} ml`, 'from the pan'],
  }
  const rule = units.reference.relations[name]
  const reads = rule?.reads[name] ?? ''
  const figure = figures[name]?.[1] ?? ''
  return {
    title: PAN_TITLES[name],
    figure,
    says: rule?.says ?? '',
    words: fillIn(reads, (n) => figures[n]?.[0] ?? n),
    figures: `${fillIn(reads, (n) => figures[n]?.[1] ?? n)} = ${figure}`,
    inputs: namesIn(reads).map((n) => {
      const [label = n, shown = '', from = '', opens] = figures[n] ?? []
      return { label, figure: shown, from, opens }
    }),
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
export function workingOf(opened: Opened, whole: Whole, formula: Formula, units: Units): Working | null {
  const [kind, s, n, field] = opened.split(':')
  if (kind === 'gauge') return ofGauge(s as GaugeName, whole, formula, units)
  if (kind === 'line') return ofLine(Number(s), Number(n), field as LineField, whole, formula, units)
  if (kind === 'stage') return ofStage(Number(s), whole, formula, units)
  if (opened in PAN_TITLES) return ofPan(opened as PanFigure, whole, units)
  if (opened === 'written_flour') return ofFlour(whole, formula, units)
  if (opened === 'total') return ofTotal(whole, formula, units)
  return ofQuantity(opened, whole, formula, units)
}

/** A pin's name inside a sentence. */
export function pinWords(pin: string, reference: Reference): string {
  return reference.quantities[pin as PinName]?.label.toLowerCase() ?? pin
}
