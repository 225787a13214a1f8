/** Workings of the formula's own figures: a line, a stage, the flour, the total, a gauge. */
import { fillIn, namesIn, type Working } from './words'
import type { Formula, GaugeName, Whole } from '@/api/client'
import { DIGITS, shown, withUnit, type Units } from '@/base/format'
import { lowerFirst, stageName } from '@/screens/formula/lines/lines'

/** A line's name, with its stage where there are several. */
function lineName(formula: Formula, s: number, n: number, units: Units): string {
  const name = formula.stages[s]?.lines[n]?.name || 'Line without a name'
  return formula.stages.length > 1 ? `${name}, ${lowerFirst(stageName(formula, s, units))}` : name
}

export function ofTotal(whole: Whole, formula: Formula, units: Units): Working {
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

export function ofFlour(whole: Whole, formula: Formula, units: Units): Working {
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

export type LineField = 'percent' | 'weight_g' | 'count_g'
const LINE_RULE = { percent: 'percent_of', weight_g: 'weight_of', count_g: 'count_weight' } as const

export function ofLine(s: number, n: number, field: LineField, whole: Whole, formula: Formula, units: Units): Working | null {
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

export function ofStage(s: number, whole: Whole, formula: Formula, units: Units): Working | null {
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
export function ofGauge(key: GaugeName, whole: Whole, formula: Formula, units: Units): Working | null {
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
