<script setup lang="ts">
/**
 * A day as a drawing: hours across; a row a product with its steps on one thread, or a row for each pair of hands, machine, shelf; nights shaded,
 * long quiet stretches drawn short. What hangs together can be dragged, or moved by arrow keys: that pins it.
 */
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { blocksOf, dayRows, type DayBar, type DayMode } from './dayRows'
import { timeScale } from './timeScale'
import type { Timetable } from '@/api/client'
import { atText, dayName, dayOf, clockOnly, fullText } from '@/base/dayTimes'
import { DAY } from '@/base/times'

export interface DayChartProps {
  timetable: Timetable
  date: string
  bakers: readonly string[]
  mode: DayMode
  /** Which block is open; -1 for none. */
  open: number
  now: number | null
}
const props = defineProps<DayChartProps>()
const emit = defineEmits<{ pick: [block: number]; move: [block: number, by: number] }>()

const box = ref<HTMLElement>()
const { width } = useElementSize(box, { width: 900, height: 0 })
const NAMES = 148
const HEAD = 34
const HEAT = 34
const GAP = 3
const LETTER = 5.9
const SNAP = 5
const HOUR = 60

const wide = computed(() => Math.max(300, width.value - NAMES - 14))
const begin = computed(() => props.timetable.origin_min - 5)
const end = computed(() => props.timetable.until_min - begin.value + 5)
const marks = computed(() => [...props.timetable.doings.flatMap((one) => [one.begins_min, one.ends_min]), ...props.timetable.heat.flatMap((one) => [one.begins_min, one.ends_min]), ...props.timetable.products.flatMap((one) => (one.ready_min == null ? [] : [one.ready_min]))].map((at) => at - begin.value))
const scale = computed(() => timeScale(marks.value, end.value, wide.value))
const x = (at: number) => NAMES + scale.value.at(Math.min(Math.max(at - begin.value, 0), end.value))

const laid = computed(() => dayRows(props.timetable, props.mode, props.bakers, (at) => atText(props.date, at)))
const tops = computed(() => {
  const found = new Map<string, { y: number; height: number }>()
  let y = HEAD
  for (const row of laid.value.rows) {
    found.set(row.key, { y, height: row.height })
    y += row.height + GAP
  }
  return { found, bottom: y }
})
const hasHeat = computed(() => props.timetable.heat.length > 0)
const height = computed(() => tops.value.bottom + (hasHeat.value ? HEAT + 8 : 0))
const drag = ref<{ block: number; from: number; by: number } | null>(null)
const shift = (block: number) => (drag.value?.block === block ? drag.value.by : 0)
const bars = computed(() =>
  laid.value.bars.flatMap((bar) => {
    const row = tops.value.found.get(bar.row)
    if (!row) return []
    const moved = bar.tone === 'rise' || bar.tone === 'cold' || bar.tone === 'lies' ? 0 : shift(bar.block)
    const [left, right] = [x(bar.from + moved), x(bar.to + moved)]
    return [{ ...bar, x: left, width: Math.max(2, right - left), y: row.y + row.height * bar.top, height: row.height * (bar.bottom - bar.top), mid: row.y + row.height / 2 }]
  }),
)
const blocks = computed(() => new Map(blocksOf(props.timetable).map((one) => [one.block, one])))
const grips = computed(() => bars.value.filter((bar) => bar.held && bar.block >= 0))
const fits = (bar: { width: number; label: string }, room = bar.width) => bar.label.length * LETTER + 6 < room
/** As much of a label as has room, cut at a word. */
function cut(bar: DayBar & { width: number }): string {
  if (fits(bar)) return bar.label
  const first = bar.label.split(', ')[0] ?? ''
  return first.length * LETTER + 6 < bar.width ? first : ''
}
const nights = computed(() => {
  const [first, ...others] = props.timetable.away
  if (!first) return []
  const within = first.flatMap(([from, to]) => {
    let spans: [number, number][] = [[from as number, to as number]]
    for (const own of others) spans = spans.flatMap(([a, b]) => own.flatMap(([c, d]): [number, number][] => (Math.max(a, c as number) < Math.min(b, d as number) ? [[Math.max(a, c as number), Math.min(b, d as number)]] : [])))
    return spans
  })
  return within.map(([from, to]) => ({ from, x: x(from), width: x(to) - x(from) })).filter((one) => one.width > 1)
})
const hours = computed(() => {
  const found: { at: number; x: number; text: string; isDay: boolean }[] = []
  let last = -Infinity
  for (let at = Math.ceil(begin.value / HOUR) * HOUR; at <= begin.value + end.value; at += HOUR) {
    const place = x(at)
    if (place - last < 34) continue
    const before = found.at(-1)
    found.push({ at, x: place, text: clockOnly(at).replace(':00', ''), isDay: !before || dayOf(before.at) !== dayOf(at) })
    last = place
  }
  return found
})
const days = computed(() => {
  const found: { x: number; text: string }[] = []
  for (let day = dayOf(begin.value); day <= dayOf(begin.value + end.value); day += 1) {
    const at = Math.max(begin.value, day * DAY)
    if (x(Math.min((day + 1) * DAY, begin.value + end.value)) - x(at) > 24) found.push({ x: x(at), text: dayName(props.date, day) })
  }
  return found
})
/** How hot the oven is, as a line. */
const HOTTEST = 260
const heatY = (celsius: number) => tops.value.bottom + 6 + HEAT - (Math.min(celsius, HOTTEST) / HOTTEST) * (HEAT - 8)
const heatLines = computed(() => {
  const found: { key: string; points: string; label: string; x: number; y: number }[] = []
  const ovens = Math.max(0, ...props.timetable.heat.map((one) => one.oven + 1))
  for (let oven = 0; oven < ovens; oven += 1) {
    let run: string[] = []
    let ended = -Infinity
    let celsius = 0
    let labelled = -Infinity
    const close = () => {
      if (run.length) found.push({ key: `${oven}.${found.length}`, points: [...run, `${x(ended)},${heatY(0)}`].join(' '), label: '', x: 0, y: 0 })
      run = []
    }
    for (const one of props.timetable.heat.filter((own) => own.oven === oven)) {
      if (one.begins_min > ended + 1) {
        close()
        run.push(`${x(one.begins_min)},${heatY(0)}`)
      }
      const isNew = one.celsius !== celsius || one.what === 'heats'
      if (isNew && x(one.ends_min) - labelled > 24) {
        labelled = x(one.ends_min)
        found.push({ key: `t${oven}.${one.begins_min}.${one.celsius}`, points: '', label: String(Math.round(one.celsius / 5) * 5), x: x(one.ends_min), y: heatY(one.celsius) - 3 })
      }
      celsius = one.celsius
      run.push(`${x(one.what === 'heats' ? one.ends_min : one.begins_min)},${heatY(one.celsius)}`, `${x(one.ends_min)},${heatY(one.celsius)}`)
      ended = Math.max(ended, one.ends_min)
    }
    close()
  }
  return found
})
/** Each product's steps on a thread, where rows are not products. */
const threads = computed(() => {
  if (props.mode === 'product') return []
  return props.timetable.products.map((_, n) => {
    const own = grips.value.filter((bar) => bar.product === n).sort((a, b) => a.from - b.from)
    return { n, points: own.map((bar) => `${(bar.x + Math.min(bar.width, 8) / 2).toFixed(1)},${bar.mid}`).join(' '), open: own.some((bar) => bar.block === props.open) }
  })
})
const told = (bar: { block: number; product: number }) => {
  const own = blocks.value.get(bar.block)
  return own ? `${props.timetable.products[bar.product]?.name ?? ''}: ${own.label}, ${fullText(props.date, own.from)} to ${clockOnly(own.to)}${own.doings.some((one) => one.pinned) ? ', pinned' : ''}` : ''
}

function grab(event: PointerEvent, bar: DayBar): void {
  if (bar.happened || event.button !== 0) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  drag.value = { block: bar.block, from: event.clientX, by: 0 }
}
function pull(event: PointerEvent): void {
  const held = drag.value
  const own = held && blocks.value.get(held.block)
  if (!held || !own) return
  const from = scale.value.at(own.from - begin.value)
  const to = scale.value.minute(Math.min(Math.max(from + event.clientX - held.from, 0), wide.value))
  held.by = Math.round((to - (own.from - begin.value)) / SNAP) * SNAP
}
function drop(): void {
  const held = drag.value
  drag.value = null
  if (!held) return
  if (held.by) emit('move', held.block, held.by)
  else emit('pick', held.block)
}
function key(event: KeyboardEvent, bar: DayBar): void {
  if (event.key === 'Enter' || event.key === ' ') emit('pick', bar.block)
  else if ((event.key === 'ArrowLeft' || event.key === 'ArrowRight') && !bar.happened) emit('move', bar.block, event.key === 'ArrowLeft' ? -SNAP : SNAP)
  else return
  event.preventDefault()
}
</script>

<template>
  <div ref="box" class="chart">
    <svg :viewBox="`0 0 ${NAMES + wide + 14} ${height}`" :width="NAMES + wide + 14" :height="height" role="group" aria-label="The day, by time">
      <g v-for="night in nights" :key="night.from"><rect class="night" :x="night.x" :y="HEAD - 4" :width="night.width" :height="height - HEAD" rx="6" /></g>
      <g v-for="hour in hours" :key="hour.at"><line class="hour" :x1="hour.x" :x2="hour.x" :y1="HEAD - 6" :y2="height - 4" /><text class="time" :x="hour.x" :y="HEAD - 9" text-anchor="middle">{{ hour.text }}</text></g>
      <text v-for="day in days" :key="day.text" class="day" :x="day.x" y="12">{{ day.text }}</text>
      <g v-for="row in laid.rows" :key="row.key">
        <text class="name" x="0" :y="(tops.found.get(row.key)?.y ?? 0) + (row.detail && row.height > 30 ? 15 : row.height / 2 + 4)">{{ row.name.length > 22 ? `${row.name.slice(0, 21)}…` : row.name }}<title>{{ row.name }}</title></text>
        <text v-if="row.detail && row.height > 30" class="detail" x="0" :y="(tops.found.get(row.key)?.y ?? 0) + 29">{{ row.detail }}</text>
        <text v-else-if="row.detail" class="detail" :x="NAMES - 12" text-anchor="end" :y="(tops.found.get(row.key)?.y ?? 0) + row.height / 2 + 4">{{ row.detail }}</text>
        <line class="row" :x1="NAMES" :x2="NAMES + wide" :y1="(tops.found.get(row.key)?.y ?? 0) + row.height / 2" :y2="(tops.found.get(row.key)?.y ?? 0) + row.height / 2" />
      </g>
      <polyline v-for="thread in threads" :key="thread.n" class="thread" :class="{ open: thread.open }" :points="thread.points" />
      <g v-for="bar in bars" :key="bar.key" class="bar" :class="[bar.tone, { open: bar.block === open, pinned: bar.pinned, happened: bar.happened, whole: bar.held && mode === 'product' }]">
        <rect :x="bar.x" :y="bar.y" :width="bar.width" :height="bar.height" :rx="bar.held ? 3 : 2" />
        <text v-if="!bar.held && cut(bar) && ['rise', 'cold'].includes(bar.tone) && mode === 'product'" class="in" :x="bar.x + bar.width / 2" :y="bar.mid + 4" text-anchor="middle">{{ cut(bar) }}</text>
      </g>
      <text v-for="bar in bars.filter((one) => mode === 'lane' && cut(one))" :key="`l${bar.key}`" class="in" :class="{ light: bar.tone === 'hands' }" :x="bar.x + 4" :y="bar.mid + 4">{{ cut(bar) }}</text>
      <g v-if="hasHeat"><text class="name" x="0" :y="tops.bottom + HEAT - 4">Oven, °C</text><line class="row" :x1="NAMES" :x2="NAMES + wide" :y1="heatY(0)" :y2="heatY(0)" /></g>
      <template v-for="one in heatLines" :key="one.key"><polyline v-if="one.points" class="heat-line" :points="one.points" /><text v-else class="time hot" :x="one.x + 2" :y="one.y">{{ one.label }}</text></template>
      <g v-for="bar in grips" :key="`k${bar.key}`" class="grip" role="button" tabindex="0" :aria-label="told(bar)" :aria-pressed="bar.block === open" @pointerdown="grab($event, bar)" @pointermove="pull" @pointerup="drop" @pointercancel="drag = null" @keydown="key($event, bar)">
        <rect :x="bar.x - Math.max(0, (14 - bar.width) / 2)" :y="bar.mid - 15" :width="Math.max(14, bar.width)" height="30" rx="4"><title>{{ told(bar) }}</title></rect>
        <circle v-if="bar.pinned" class="pin" :cx="bar.x + 3" :cy="bar.y - 1" r="4" />
      </g>
      <g v-if="now !== null && now > begin && now < begin + end"><line class="now" :x1="x(now)" :x2="x(now)" :y1="HEAD - 6" :y2="height" /><text class="time hot" :x="x(now)" :y="HEAD - 20" text-anchor="middle">now</text></g>
      <g v-if="drag?.by"><text class="day" :x="x((blocks.get(drag.block)?.from ?? 0) + drag.by)" y="24" text-anchor="middle">{{ atText(date, (blocks.get(drag.block)?.from ?? 0) + drag.by) }}</text></g>
    </svg>
  </div>
</template>

<style scoped>
.chart { width: 100%; overflow: hidden; touch-action: pan-y }
svg { display: block; user-select: none }
text { font: 500 11.5px var(--body); fill: var(--ink); pointer-events: none }
.name { font-weight: 650; fill: var(--rim) }
.detail { fill: var(--crust); font-size: 11px }
.time { fill: var(--ink-2); font-size: 11px }
.hot { fill: var(--crust) }
.day { font: 700 12px var(--head); fill: var(--rim) }
.night { fill: var(--rim-faint); opacity: .75 }
.hour { stroke: var(--rim-faint); stroke-width: 1 }
.row { stroke: var(--rim-soft); stroke-width: 1.4 }
.thread { fill: none; stroke: var(--rim-soft); stroke-width: 1 }
.thread.open { stroke: var(--crust); stroke-width: 2 }
.bar rect { fill: var(--tray); stroke: var(--rim-soft) }
.bar.hands rect { fill: var(--rim); stroke: var(--rim) }
.bar.heat rect { fill: var(--crust-soft); stroke: var(--crust) }
.bar.rise rect { fill: var(--dough); stroke: var(--crumb) }
.bar.cold rect { fill: var(--rim-soft); stroke: var(--rim-soft) }
.bar.lies rect { fill: none; stroke: none }
.bar.kept rect { fill: none; stroke: none }
.bar.whole rect { fill: var(--tray); stroke: var(--rim) }
.bar.whole.open rect { stroke: var(--crust); stroke-width: 3 }
.bar.happened { opacity: .55 }
.in { font-size: 10.5px }
.light { fill: var(--on-rim) }
.grip { cursor: grab; outline: none }
.grip rect { fill: transparent }
.grip:hover rect { fill: color-mix(in srgb, var(--crust) 12%, transparent) }
.grip:focus-visible rect { stroke: var(--crust); stroke-width: 3 }
.pin { fill: var(--crust); stroke: var(--tray); stroke-width: 1.5 }
.heat-line { fill: none; stroke: var(--crust); stroke-width: 2 }
.now { stroke: var(--crust); stroke-width: 2.4 }
</style>
