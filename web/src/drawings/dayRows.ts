/** What a day's drawing shows in which row: by product, or by what is used. Places only; times are turned into places by the drawing. */
import type { Doing, Giving, Timetable } from '@/api/client'

export type DayMode = 'product' | 'lane'

export interface DayRow {
  key: string
  name: string
  detail: string
  height: number
}
export interface DayBar {
  key: string
  row: string
  from: number
  to: number
  tone: 'hands' | 'heat' | 'plain' | 'rise' | 'cold' | 'lies' | 'kept'
  /** Above and below which part of its row it lies, from 0 to 1. */
  top: number
  bottom: number
  label: string
  /** Which block it opens; what only gives opens the block after it. */
  block: number
  product: number
  /** Whether it can be taken hold of. */
  held: boolean
  pinned: boolean
  happened: boolean
}

const ROW = 34
const LOW = 24
const MACHINES: readonly [string, string][] = [['mixer', 'Mixer'], ['stove', 'Stove'], ['pot', 'Pot'], ['griddle', 'Griddle']]
const HOT = new Set(['oven', 'griddle', 'pot', 'stove'])
const COLD = new Set(['fridge', 'freezer'])

const toneOf = (one: Doing): DayBar['tone'] => (one.hands.length ? 'hands' : HOT.has(one.place) ? 'heat' : 'plain')
const gapTone = (one: Giving): DayBar['tone'] => (!one.steps.length ? 'lies' : COLD.has(one.place) ? 'cold' : HOT.has(one.place) ? 'kept' : 'rise')
const short = (name: string) => name.split(' ').slice(-1)[0] ?? name

interface BlockOf {
  block: number
  product: number
  from: number
  to: number
  label: string
  doings: Doing[]
}
/** What hangs together, in order of time. */
export function blocksOf(table: Timetable): BlockOf[] {
  const found = new Map<number, BlockOf>()
  for (const one of table.doings) {
    const own = found.get(one.block)
    if (own) {
      own.doings.push(one)
      own.from = Math.min(own.from, one.begins_min)
      own.to = Math.max(own.to, one.ends_min)
    } else found.set(one.block, { block: one.block, product: one.product, from: one.begins_min, to: one.ends_min, label: '', doings: [one] })
  }
  for (const own of found.values()) own.label = (own.doings[0]?.of ? `${own.doings[0].of}: ` : '') + [...new Set(own.doings.map((one) => one.label))].join(', ')
  return [...found.values()].sort((a, b) => a.from - b.from)
}

/** Rows and bars of a timetable. */
export function dayRows(table: Timetable, mode: DayMode, bakers: readonly string[], ready: (at: number) => string): { rows: DayRow[]; bars: DayBar[] } {
  const rows: DayRow[] = []
  const bars: DayBar[] = []
  const names = table.products.map((one) => one.name)
  const hands = bakers.map((name, n) => ({ key: `baker${n}`, name: name || (bakers.length > 1 ? `Baker ${n + 1}` : 'Your hands'), detail: '', height: LOW }))
  const blocks = blocksOf(table)
  const common = (one: { block: number; product: number; pinned: boolean; happened: boolean }) => ({ block: one.block, product: one.product, pinned: one.pinned, happened: one.happened })

  for (const one of table.doings) {
    for (const [n, own] of one.hands.entries()) {
      bars.push({ ...common(one), key: `h${one.block}.${one.step}.${one.load ?? ''}.${one.begins_min}.${n}`, row: `baker${own.baker}`, from: own.begins_min, to: own.ends_min, tone: 'hands', top: 0.12, bottom: 0.88, label: mode === 'lane' ? `${short(names[one.product] ?? '')}: ${one.label}` : '', held: mode === 'lane' })
    }
  }
  if (mode === 'product') {
    table.products.forEach((one, n) => rows.push({ key: `p${n}`, name: one.name, detail: [one.pieces ? `${one.pieces}` : '', one.ready_min == null ? 'no place' : `ready ${ready(one.ready_min)}`].filter(Boolean).join(' · '), height: ROW }))
    for (const gap of table.giving) bars.push({ key: `g${gap.before}.${gap.after}.${gap.steps.join('.')}`, row: `p${gap.product}`, from: gap.begins_min, to: gap.ends_min, tone: gapTone(gap), top: 0.36, bottom: 0.64, label: gap.label, block: gap.after, product: gap.product, held: false, pinned: false, happened: false })
    for (const own of blocks) {
      const first = own.doings[0]
      if (!first) continue
      const ahead = own.doings.length === 1 && (first.kind === 'preheat' || first.kind.startsWith('heat_'))
      const [top, bottom] = ahead ? [0.68, 0.98] : [0.1, 0.9]
      bars.push({ ...common(first), key: `b${own.block}`, row: `p${own.product}`, from: own.from, to: own.to, tone: 'plain', top, bottom, label: own.label, held: true })
      for (const one of own.doings) {
        if (one.ends_min > one.begins_min) bars.push({ ...common(one), key: `d${one.block}.${one.step}.${one.load ?? ''}.${one.begins_min}`, row: `p${own.product}`, from: one.begins_min, to: one.ends_min, tone: toneOf(one) === 'hands' && HOT.has(one.place) && one.ends_min - one.begins_min > 8 ? 'heat' : toneOf(one), top, bottom, label: '', held: false })
      }
    }
    rows.push(...hands)
  } else {
    rows.push(...hands)
    for (const [place, name] of MACHINES) {
      const own = table.doings.filter((one) => one.place === place)
      if (!own.length) continue
      rows.push({ key: place, name, detail: '', height: LOW })
      for (const one of own) bars.push({ ...common(one), key: `m${one.block}.${one.step}.${one.load ?? ''}.${one.begins_min}`, row: place, from: one.begins_min, to: one.ends_min, tone: HOT.has(place) ? 'heat' : 'plain', top: 0.12, bottom: 0.88, label: short(names[one.product] ?? ''), held: true })
    }
  }
  const ovens = Math.max(0, ...table.heat.map((one) => one.oven + 1))
  for (let oven = 0; oven < ovens; oven += 1) {
    const inside = table.heat.filter((one) => one.oven === oven && one.what === 'bakes')
    const shelves: number[][] = []
    for (const one of inside) {
      for (let n = 0; n < Math.max(1, one.shelves); n += 1) {
        let shelf = shelves.findIndex((ends, at) => !bars.some((bar) => bar.row === `oven${oven}.${at}` && bar.to > one.begins_min + 0.5) && ends.length >= 0)
        if (shelf < 0) shelf = shelves.push([]) - 1
        bars.push({ key: `o${oven}.${shelf}.${one.begins_min}.${one.product}`, row: `oven${oven}.${shelf}`, from: one.begins_min, to: one.ends_min, tone: 'heat', top: 0.1, bottom: 0.9, label: short(names[one.product ?? 0] ?? ''), block: blocks.find((own) => own.product === one.product && own.doings.some((doing) => doing.place === 'oven' && doing.begins_min < one.ends_min && doing.ends_min > one.begins_min))?.block ?? -1, product: one.product ?? -1, held: mode === 'lane', pinned: false, happened: false })
      }
    }
    const name = ovens > 1 ? `Oven ${oven + 1}` : 'Oven'
    shelves.forEach((_, shelf) => rows.push({ key: `oven${oven}.${shelf}`, name: shelf ? '' : name, detail: shelves.length > 1 ? `shelf ${shelf + 1}` : '', height: LOW - 4 }))
  }
  for (const [key, name, places] of [['fridge', 'Fridge', ['fridge', 'freezer']], ['warm', 'Warm spot', ['warm']]] as const) {
    const own = table.giving.filter((gap) => (places as readonly string[]).includes(gap.place))
    if (!own.length || mode === 'product') continue
    const ends: number[] = []
    for (const gap of own) {
      let at = ends.findIndex((end) => end <= gap.begins_min)
      if (at < 0) at = ends.push(0) - 1
      ends[at] = gap.ends_min
      bars.push({ key: `${key}${gap.before}.${gap.after}`, row: `${key}${at}`, from: gap.begins_min, to: gap.ends_min, tone: key === 'fridge' ? 'cold' : 'rise', top: 0.12, bottom: 0.88, label: short(names[gap.product] ?? ''), block: gap.after, product: gap.product, held: false, pinned: false, happened: false })
    }
    ends.forEach((_, at) => rows.push({ key: `${key}${at}`, name: at ? '' : name, detail: '', height: LOW - 4 }))
  }
  return { rows, bars }
}
