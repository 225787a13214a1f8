<script setup lang="ts">
/** A bake on one strip of time: planned above, as it was below. Long waits are drawn short in both. */
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { timeScale } from './timeScale'
import type { StepWas } from '@/api/client'
import { minutesText } from '@/base/times'

export interface PlannedRealProps {
  steps: readonly StepWas[]
  begunS: number
  endedS: number | null
}
const props = defineProps<PlannedRealProps>()
const box = ref<HTMLElement>()
const { width } = useElementSize(box, { width: 900, height: 0 })
const NAMES = 70
const LANE = 22
const MINUTE = 60
const LETTER = 6.4
const minute = (s: number) => Math.max(0, (s - props.begunS) / MINUTE)

interface Bar {
  key: string
  label: string
  group: string
  from: number
  to: number
}
const planned = computed<Bar[]>(() => props.steps.map((one) => ({ key: one.key, label: one.label, group: one.group, from: minute(one.planned_s), to: minute(one.planned_s) + one.planned_min })))
const real = computed<Bar[]>(() => props.steps.flatMap((one) => (one.began_s == null || one.done_s == null ? [] : [{ key: one.key, label: one.label, group: one.group, from: minute(one.began_s), to: minute(one.done_s) }])))
const end = computed(() => Math.max(1, ...planned.value.map((one) => one.to), ...real.value.map((one) => one.to), props.endedS === null ? 0 : minute(props.endedS)))
const wide = computed(() => Math.max(240, width.value - NAMES - 8))
const scale = computed(() => timeScale([...planned.value, ...real.value].flatMap((one) => [one.from, one.to]), end.value, wide.value))
const x = (at: number) => NAMES + scale.value.at(at)

/** Bars that overlap go into lanes under each other. */
function laned(bars: Bar[]) {
  const free: number[] = []
  return [...bars].filter((one) => one.to > one.from).sort((a, b) => a.from - b.from).map((one) => {
    let lane = free.findIndex((until) => until <= one.from + 0.01)
    if (lane < 0) lane = free.length
    free[lane] = one.to
    const [left, right] = [x(one.from), x(one.to)]
    const room = right - left - 8
    const words = one.label.length * LETTER < room ? one.label : ''
    return { ...one, lane, x: left, wide: Math.max(2.5, right - left - 1), words, told: `${one.label}, ${minutesText(one.to - one.from)}` }
  })
}
const above = computed(() => laned(planned.value))
const below = computed(() => laned(real.value))
const lanes = (bars: { lane: number }[]) => Math.max(1, ...bars.map((one) => one.lane + 1))
const split = computed(() => 4 + lanes(above.value) * LANE + 5)
const high = computed(() => split.value + lanes(below.value) * LANE + 24)
const two = (n: number) => String(n).padStart(2, '0')
const clock = (at: number) => {
  const own = new Date((props.begunS + at * MINUTE) * 1000)
  return `${two(own.getHours())}:${two(own.getMinutes())}`
}
/** As many times on the axis as have room, each where something really began. */
const times = computed(() => {
  const found: { x: number; text: string; anchor: string }[] = []
  for (const at of [0, ...(below.value.length ? below.value : above.value).map((one) => one.from), end.value].sort((a, b) => a - b)) {
    const place = x(at)
    if (found.length && place - (found.at(-1)?.x ?? 0) < (found.length === 1 ? 62 : 46)) {
      if (at === end.value) found.pop()
      else continue
    }
    found.push({ x: place, text: clock(at), anchor: at === 0 ? 'start' : at === end.value ? 'end' : 'middle' })
  }
  return found
})
const told = computed(() => `Planned above, as it was below: ${props.steps.filter((one) => one.began_s != null && one.done_s != null).map((one) => `${one.label} ${minutesText((Number(one.done_s) - Number(one.began_s)) / MINUTE)}, planned ${minutesText(one.planned_min)}`).join('; ') || 'no times were told'}`)
</script>

<template>
  <div ref="box" class="strip">
    <svg :viewBox="`0 0 ${width} ${high}`" :height="high" width="100%" role="img" :aria-label="told">
      <text class="row" x="0" y="19">planned</text>
      <text class="row" x="0" :y="split + 16">as it was</text>
      <line class="split" :x1="NAMES" :x2="NAMES + wide" :y1="split - 3" :y2="split - 3" />
      <g v-for="bar in above" :key="`a${bar.key}`"><title>{{ bar.told }}</title><rect :class="['planned', bar.group]" :x="bar.x" :y="3 + bar.lane * LANE" :width="bar.wide" :height="LANE - 3" rx="4" /><text v-if="bar.words" class="word" :x="bar.x + 4" :y="17 + bar.lane * LANE">{{ bar.words }}</text></g>
      <g v-for="bar in below" :key="`b${bar.key}`"><title>{{ bar.told }}</title><rect :class="['real', bar.group]" :x="bar.x" :y="split + bar.lane * LANE" :width="bar.wide" :height="LANE - 3" rx="4" /><text v-if="bar.words" class="word" :x="bar.x + 4" :y="split + 14 + bar.lane * LANE">{{ bar.words }}</text></g>
      <text v-for="(one, n) in times" :key="n" class="time" :x="one.x" :y="high - 5" :text-anchor="one.anchor">{{ one.text }}</text>
    </svg>
  </div>
</template>

<style scoped>
.strip { overflow: hidden }
svg { display: block }
.row, .time { font: 600 12px var(--body); fill: var(--ink-2) }
.word { font: 600 12px var(--body); fill: var(--ink); pointer-events: none }
.split { stroke: var(--rim-faint); stroke-width: 1 }
rect { stroke: var(--rim); stroke-width: 1.2; fill: var(--rim-faint) }
.rise { fill: var(--dough) }
.heat { fill: var(--crumb) }
.planned { stroke: var(--rim-soft); stroke-dasharray: 3 2 }
</style>
