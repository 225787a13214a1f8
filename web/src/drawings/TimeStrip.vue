<script setup lang="ts">
/**
 * A way as a strip of time: a row for each thing that is worked on, steps as bars, hands-on time in another tone, touches as ticks, loads one
 * after the other; under it how warm the dough is. Long waits are drawn short, with a break in them.
 */
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { timeScale } from './timeScale'
import type { Method } from '@/api/client'
import { minutesText, newDayText, whenText } from '@/base/times'

export interface TimeStripProps {
  method: Method
  /** Which step is open; −1 for none. */
  open: number
  /** Without the dough's temperature, where there is little room. */
  brief?: boolean
}
const props = defineProps<TimeStripProps>()
const emit = defineEmits<{ pick: [step: number] }>()

const box = ref<HTMLElement>()
const { width } = useElementSize(box, { width: 900, height: 0 })
const NAMES = 92
const LETTERS = 12
/** How wide a letter of the axis is, about. */
const LETTER = 6.2
const short = (name: string) => (name.length > LETTERS + 1 ? `${name.slice(0, LETTERS)}…` : name)
const ROW = 30
const HEAD = 20
const CURVE = 58
const wide = computed(() => Math.max(240, width.value - NAMES - 10))
const end = computed(() => Math.max(1, props.method.usual_min))
const scale = computed(() => timeScale([...props.method.steps.flatMap((step) => [step.begin, step.end, ...step.touches.flatMap((touch) => [touch.begin, touch.end])]), ...props.method.loads.flatMap((load) => [load.begin, load.end])], end.value, wide.value))
const x = (minute: number) => NAMES + scale.value.at(minute)

const rows = computed(() => props.method.strands.map((strand, n) => ({ strand, y: HEAD + n * ROW })))
const rowOf = (strand: number) => HEAD + strand * ROW
const TONE: Record<string, string> = { oven: 'heat', griddle: 'heat', pot: 'heat', stove: 'heat', fridge: 'cold', freezer: 'cold' }
const inLoads = computed(() => new Set(props.method.loads.map((load) => load.step)))
const bars = computed(() =>
  props.method.steps.flatMap((step, i) => {
    if (step.during || step.end <= step.begin) return []
    const ahead = step.label === 'preheat' || step.label.startsWith('heat the')
    const tone = step.around_c != null && TONE[step.place] !== 'cold' ? 'rise' : (TONE[step.place] ?? 'plain')
    const spans = inLoads.value.has(i) ? props.method.loads.filter((load) => load.step === i).map((load) => [load.begin, load.end] as const) : [[step.begin, step.end] as const]
    return spans.map(([from, to], n) => ({ i, key: `${i}.${n}`, tone, ahead, x: x(from), width: Math.max(2.5, x(to) - x(from)), y: rowOf(step.strand) + (ahead ? ROW - 7 : 4), height: ahead ? 5 : ROW - 12, label: n === 0 ? step.label : '' }))
  }),
)
const hands = computed(() => props.method.steps.flatMap((step, i) => step.touches.map(({ begin: from, end: to }, n) => ({ key: `${i}.${n}`, x: x(from), width: Math.max(2, x(to) - x(from)), y: rowOf(step.strand) + 4, tick: to - from < 3 }))))
const named = (bar: { width: number; label: string }) => bar.label.length * 6.1 + 6 < bar.width

/** As many times on the axis as have room, each where a step begins. */
const times = computed(() => {
  const found: { minute: number; x: number; text: string }[] = []
  for (const minute of [0, ...props.method.steps.map((step) => step.begin).sort((a, b) => a - b), end.value]) {
    const at = x(minute)
    const last = found.at(-1)
    const isEnd = minute === end.value
    const text = [newDayText(minute, last?.minute, props.method.begins_min), whenText(minute, props.method.begins_min)].filter(Boolean).join(' ')
    const one = { minute, text, x: isEnd ? at - text.length * LETTER : at }
    if (last && one.x < last.x + last.text.length * LETTER + 8) {
      if (!isEnd) continue
      found.pop()
    }
    found.push(one)
  }
  return found
})
const top = computed(() => HEAD + props.method.strands.length * ROW + 4)
const height = computed(() => top.value + (hasCurve.value ? CURVE + 8 : 0))
const hasCurve = computed(() => !props.brief && props.method.course.length > 1)
const HOT = 40
const y = (celsius: number) => top.value + CURVE - (Math.max(0, Math.min(HOT, celsius)) / HOT) * CURVE
const line = (key: 'dough_c' | 'around_c') => props.method.course.map((point) => `${x(point.minute).toFixed(1)},${y(point[key]).toFixed(1)}`).join(' ')
const told = computed(() => `${props.method.strands.length === 1 ? 'One thing' : `${props.method.strands.length} things`} worked on for ${minutesText(props.method.usual_min)}, ${minutesText(props.method.hands_min)} of it by hand in ${props.method.touches} goes: ${props.method.steps.map((step) => step.label).join(', ')}`)
</script>

<template>
  <div ref="box" class="strip">
    <svg :viewBox="`0 0 ${NAMES + wide + 10} ${height}`" :width="NAMES + wide + 10" :height="height" role="img" :aria-label="told">
      <g v-for="{ strand, y: top } in rows" :key="top"><text class="strand" x="0" :y="top + 19">{{ short(strand.name || 'Dough') }}<title>{{ strand.name }}</title></text><line class="row" :x1="NAMES" :x2="NAMES + wide" :y1="top + ROW - 1" :y2="top + ROW - 1" /></g>
      <g v-for="bar in bars" :key="bar.key" class="bar" :class="[bar.tone, { open: bar.i === open }]" @click="emit('pick', bar.i)">
        <rect :x="bar.x" :y="bar.y" :width="bar.width" :height="bar.height" rx="3" />
        <text v-if="!bar.ahead && named(bar)" :x="bar.x + 4" :y="bar.y + 13">{{ bar.label }}</text>
      </g>
      <rect v-for="one in hands" :key="one.key" class="hands" :class="{ tick: one.tick }" :x="one.x" :y="one.tick ? one.y - 3 : one.y + ROW - 16" :width="one.tick ? 2.5 : one.width" :height="one.tick ? ROW - 8 : 4" rx="1" />
      <g v-for="[from, to] in scale.short" :key="from" class="break"><path v-for="{ y: row } in rows" :key="row" :d="`M${x(from) + (x(to) - x(from)) * 0.86 - 5} ${row + ROW - 5} l6 -22 m4 0 l-6 22`" /></g>
      <text v-for="time in times" :key="time.x" class="time" :x="time.x" y="13">{{ time.text }}</text>
      <g v-if="hasCurve">
        <line v-for="celsius in [10, 20, 30]" :key="celsius" class="row" :x1="NAMES" :x2="NAMES + wide" :y1="y(celsius)" :y2="y(celsius)" />
        <text class="strand" x="0" :y="y(20) + 4">Dough, °C</text>
        <text v-for="celsius in [10, 30]" :key="`t${celsius}`" class="time" :x="NAMES - 6" :y="y(celsius) + 4" text-anchor="end">{{ celsius }}</text>
        <polyline class="around" :points="line('around_c')" />
        <polyline class="dough" :points="line('dough_c')" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.strip { width: 100%; overflow: hidden }
svg { display: block }
text { font: 500 11.5px var(--body); fill: var(--ink) }
.strand { font-weight: 650; fill: var(--rim) }
.time { fill: var(--ink-2); font-size: 11px }
.row { stroke: var(--rim-faint); stroke-width: 1 }
.bar { cursor: pointer }
.bar rect { fill: var(--rim-faint); stroke: var(--rim-soft) }
.bar.rise rect { fill: var(--dough) }
.bar.heat rect { fill: var(--crust-soft); stroke: var(--crust) }
.bar.cold rect { fill: var(--rim-soft) }
.bar.open rect { stroke: var(--rim); stroke-width: 2.5 }
.hands { fill: var(--rim); pointer-events: none }
.break path { fill: none; stroke: var(--tray); stroke-width: 2.4 }
.dough { fill: none; stroke: var(--crust); stroke-width: 2.2 }
.around { fill: none; stroke: var(--rim); stroke-width: 1.4; stroke-dasharray: 4 4 }
</style>
