<script setup lang="ts">
/** How a figure moved with each bake: bakes as dots, the figure as a line that begins at what stood in without them. */
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { KitchensFigure } from '@/api/client'

export interface FigureMovedProps {
  figure: KitchensFigure
  text: (value: number) => string
}
const props = defineProps<FigureMovedProps>()
const box = ref<HTMLElement>()
const { width } = useElementSize(box, { width: 600, height: 0 })
const HIGH = 96
const NAMES = 64
const SIDE = 8
const bakes = computed(() => [...props.figure.said].reverse().filter((one) => one.counts))
/** What lies beyond the odd ones: those are drawn at the edge. */
const ends = computed(() => {
  const all = [props.figure.trade, props.figure.low, props.figure.high, ...props.figure.moved.map((one) => one.value), ...bakes.value.filter((one) => one.odd < 0.8).map((one) => one.value)]
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const room = (high - low || Math.abs(high) || 1) * 0.12
  return [low - room, high + room] as const
})
const y = (value: number) => SIDE + (1 - (Math.min(Math.max(value, ends.value[0]), ends.value[1]) - ends.value[0]) / (ends.value[1] - ends.value[0])) * (HIGH - 2 * SIDE)
const x = (n: number) => NAMES + ((n + 1) / (props.figure.moved.length + 1)) * Math.max(60, width.value - NAMES - 16)
const line = computed(() => [`${NAMES},${y(props.figure.trade)}`, ...props.figure.moved.map((one, n) => `${x(n)},${y(one.value)}`)].join(' '))
const told = computed(() => `From ${props.text(props.figure.trade)} without the book to ${props.text(props.figure.usual)} after ${props.figure.moved.length} bakes`)
</script>

<template>
  <div ref="box">
    <svg :viewBox="`0 0 ${width} ${HIGH}`" :height="HIGH" width="100%" role="img" :aria-label="told">
      <rect class="range" :x="NAMES" :width="Math.max(0, width - NAMES - 8)" :y="y(figure.high)" :height="Math.max(1, y(figure.low) - y(figure.high))" />
      <line class="trade" :x1="NAMES" :x2="width - 8" :y1="y(figure.trade)" :y2="y(figure.trade)" />
      <text x="0" :y="y(figure.trade) + 4">{{ text(figure.trade) }}</text>
      <polyline :points="line" />
      <circle v-for="(one, n) in bakes" :key="n" :class="{ odd: one.odd >= 0.8 }" :cx="x(n)" :cy="y(one.value)" r="4"><title>{{ text(one.value) }}</title></circle>
    </svg>
  </div>
</template>

<style scoped>
svg { display: block }
.range { fill: var(--crust-soft) }
.trade { stroke: var(--ink-2); stroke-dasharray: 4 3; stroke-width: 1.2 }
polyline { fill: none; stroke: var(--crust); stroke-width: 2 }
circle { fill: var(--crumb); stroke: var(--ink-2); stroke-width: 1 }
.odd { fill: none; stroke: var(--stop) }
text { font: 600 12px var(--body); fill: var(--ink-2) }
</style>
