<script setup lang="ts">
/** A rise over its own time: how warm the dough is and what is around it; when to look, when it is ready, and from when it is too far. */
import { computed } from 'vue'
import type { RiseFigures } from '@/api/client'
import { minutesText } from '@/base/times'

export interface RiseCurveProps {
  rise: RiseFigures
}
const props = defineProps<RiseCurveProps>()

const WIDE = 340
const HIGH = 96
const LEFT = 26
/** What the words of "too far" need. */
const FAR = 118
const end = computed(() => props.rise.too_far_min ?? props.rise.course.at(-1)?.minute ?? 1)
const x = (minute: number) => LEFT + (minute / (end.value * 1.08)) * (WIDE - LEFT)
const temps = computed(() => props.rise.course.flatMap((point) => [point.dough_c, point.around_c]))
const low = computed(() => Math.floor(Math.min(...temps.value, 18) / 5) * 5)
const high = computed(() => Math.ceil((Math.max(...temps.value, 28) + 0.5) / 5) * 5)
const y = (celsius: number) => 6 + (1 - (celsius - low.value) / (high.value - low.value)) * (HIGH - 24)
const line = (key: 'dough_c' | 'around_c') => props.rise.course.map((point) => `${x(point.minute).toFixed(1)},${y(point[key]).toFixed(1)}`).join(' ')
const ready = computed(() => (props.rise.look_min == null || props.rise.ready_by_min == null ? null : { x: x(props.rise.look_min), width: Math.max(2, x(props.rise.ready_by_min) - x(props.rise.look_min)) }))
const told = computed(() => `The dough goes from ${props.rise.begins_c.toFixed(0)} °C towards ${props.rise.around_c.toFixed(0)} °C${props.rise.look_min == null || props.rise.too_far_min == null ? '' : `; look from ${minutesText(props.rise.look_min)}, too far by ${minutesText(props.rise.too_far_min)}`}`)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDE} ${HIGH}`" role="img" :aria-label="told">
    <rect v-if="ready" class="ready" :x="ready.x" y="4" :width="ready.width" :height="HIGH - 20" />
    <line v-if="rise.too_far_min != null" class="far" :x1="x(rise.too_far_min)" :x2="x(rise.too_far_min)" y1="4" :y2="HIGH - 16" />
    <line v-if="rise.usual_min != null" class="usual" :x1="x(rise.usual_min)" :x2="x(rise.usual_min)" y1="4" :y2="HIGH - 16" />
    <polyline class="around" :points="line('around_c')" />
    <polyline class="dough" :points="line('dough_c')" />
    <text class="at" x="0" :y="y(high) + 8">{{ high }}</text><text class="at" x="0" :y="y(low) + 2">{{ low }}</text>
    <text v-if="ready" :x="Math.min(ready.x + 10, x(end) - FAR)" :y="HIGH - 3" text-anchor="end">look from {{ minutesText(rise.look_min ?? 0) }}</text>
    <text v-if="rise.too_far_min != null" :x="x(rise.too_far_min) + 10" :y="HIGH - 3" text-anchor="end">too far by {{ minutesText(rise.too_far_min) }}</text>
  </svg>
</template>

<style scoped>
svg { display: block; width: 100%; height: auto }
text { font: 500 11.5px var(--body); fill: var(--ink) }
.at { fill: var(--ink-2) }
.ready { fill: var(--ok-soft); stroke: var(--ok) }
.usual { stroke: var(--ok); stroke-width: 2 }
.far { stroke: var(--stop); stroke-width: 2; stroke-dasharray: 5 3 }
.dough { fill: none; stroke: var(--crust); stroke-width: 2.4 }
.around { fill: none; stroke: var(--rim); stroke-width: 1.4; stroke-dasharray: 4 4 }
</style>
