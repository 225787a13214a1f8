/** A desk as plain lines, each of which says where it belongs, to lay two texts of one formula side by side. */
import type { Desk } from './useDesk'
import type { Line } from '@/api/client'
import { spanText } from '@/base/times'

function lineText(line: Line): string {
  const amount = line.weight_g != null ? `${line.weight_g} g` : line.percent != null ? `${line.percent} %` : 'amount open'
  const held = line.held_back ? `, ${line.held_back * 100} % held back` : ''
  return `${line.name || 'line without a name'}: ${amount}${line.parts > 1 ? `, in ${line.parts} parts` : ''}${held}${line.note ? `, ${line.note}` : ''}`
}

/** Settings that differ, named by their field: what no line of its own tells. */
const settings = (where: string, of: object): string[] =>
  Object.entries(of)
    .filter(([, value]) => value !== null && value !== undefined && typeof value !== 'object')
    .map(([key, value]) => `${where}, ${key.replace(/_(g|cm|min)$/, '').replaceAll('_', ' ')}: ${String(value)}`)

export function deskText({ formula, count }: Desk): string[] {
  const stages = [...formula.stages, ...formula.beside]
  return [
    `Name: ${formula.name || 'none'}`,
    ...(formula.styles.length ? [`Style: ${formula.styles.join(', ')}`] : []),
    ...stages.flatMap((stage) => {
      const { lines, ...how } = stage
      const called = stage.name || stage.kind.replaceAll('_', ' ')
      const feeds = 'feeds' in how ? how.feeds.map((feed) => `${called}, goes into ${feed.into}: ${feed.share * 100} %`) : []
      return [...lines.map((line) => `${called}, ${lineText(line)}`), ...settings(called, { ...how, key: null }), ...feeds]
    }),
    ...formula.ways.flatMap((way, w) => way.steps.map((step, n) => `Way ${w + 1}${way.name && `, ${way.name}`}, step ${n + 1}: ${step.kind}${step.lasts ? `, ${spanText(step.lasts.low_min, step.lasts.high_min)}` : ''}${step.text && `, ${step.text}`}`)),
    ...settings('Usual', formula.usual),
    ...(formula.note ? [`Note: ${formula.note}`] : []),
    ...settings('Batch', count.pins),
    ...count.targets.flatMap((target, n) => {
      const called = target.name || `Target ${n + 1}`
      return [...settings(called, target.pins), ...settings(`${called}, pan`, target.pan ?? {}), ...settings(called, { ...target, name: null })]
    }),
    ...count.limits.map((limit) => `Limit: ${JSON.stringify(limit)}`),
    ...settings('Count', count),
  ]
}
