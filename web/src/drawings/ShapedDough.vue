<script setup lang="ts">
/** A piece as shaped, to scale, beside a ruler: ball, disc, rope, knot, ring, or a log with its cuts. All measures in cm. */
import { computed } from 'vue'
import type { Shaped } from '@/api/client'
import { shown, unitOf, worth, type Units } from '@/base/format'

export interface ShapedDoughProps {
  shaped: Shaped
  units: Units
  /** The room there is. [px] */
  room: number
}
const props = defineProps<ShapedDoughProps>()

const RULER = 26
const PAD = 6
/** A rope, a knot's rope and a log lie along the ruler; what is round lies above it. */
const long = computed(() => props.shaped.length_cm ?? props.shaped.across_cm)
const isRope = computed(() => ['rope', 'knot', 'log'].includes(props.shaped.kind))
const wide = computed(() => Math.max(long.value, props.shaped.across_cm, 0.1))
const high = computed(() => {
  if (props.shaped.kind === 'ring') return Math.max(props.shaped.across_cm, 0.1) + (props.shaped.thickness_cm ?? 0) + 1
  return isRope.value ? (props.shaped.thickness_cm ?? 1) : props.shaped.across_cm
})
const MOST_HIGH = 170
const scale = computed(() => Math.min((props.room - 2 * PAD) / wide.value, MOST_HIGH / Math.max(0.1, high.value), 24))
const h = computed(() => high.value * scale.value)
const w = computed(() => wide.value * scale.value)
const thick = computed(() => (props.shaped.thickness_cm ?? 0) * scale.value)
const step = computed(() => worth('cm', props.units))
/** Every unit where there is room, else every fifth or tenth. */
const marks = computed(() => {
  const every = step.value * scale.value > 15 ? 1 : step.value * scale.value > 4 ? 5 : 10
  return Array.from({ length: Math.floor(wide.value / step.value / every) + 1 }, (_, i) => ({ x: i * every * step.value * scale.value, says: i * every }))
})
const cuts = computed(() => {
  const n = props.shaped.cuts ?? 0
  return n > 1 && n <= 200 ? Array.from({ length: n - 1 }, (_, i) => ((i + 1) * w.value) / n) : []
})
const told = computed(() => `The shaped piece, drawn to scale: ${shown(long.value, 'cm', props.units)} ${unitOf('cm', props.units)} along the ruler`)
const middle = computed(() => Math.max(0, (props.shaped.across_cm * scale.value - thick.value) / 2))
</script>

<template>
  <svg :viewBox="`${-PAD} ${-PAD} ${w + 2 * PAD} ${h + RULER + 2 * PAD}`" :width="w + 2 * PAD" :height="h + RULER + 2 * PAD" role="img" :aria-label="told">
    <template v-if="shaped.kind === 'ring'">
      <circle class="rope" :cx="w / 2" :cy="(shaped.across_cm * scale) / 2" :r="middle" :stroke-width="thick" />
      <rect class="dough" :y="h - thick" :width="(shaped.length_cm ?? 0) * scale" :height="thick" :rx="thick / 2" />
    </template>
    <template v-else-if="isRope">
      <rect class="dough" :width="w" :height="h" :rx="h / 2" />
      <path v-for="(x, i) in cuts" :key="i" class="cut" :d="`M${x} -3V${h + 3}`" />
    </template>
    <circle v-else class="dough" :cx="w / 2" :cy="h / 2" :r="h / 2" />
    <g class="ruler" :transform="`translate(0 ${h + 6})`">
      <path :d="`M0 0H${w}`" />
      <g v-for="mark in marks" :key="mark.says"><path :d="`M${mark.x} 0v6`" /><text :x="mark.x" y="18">{{ mark.says }}</text></g>
    </g>
  </svg>
</template>

<style scoped>
svg { display: block; max-width: 100%; height: auto; overflow: visible }
.dough { fill: var(--crumb); stroke: var(--dough); stroke-width: 2 }
.rope { fill: none; stroke: var(--crumb) }
.cut { stroke: var(--crust); stroke-width: 2; stroke-dasharray: 4 3 }
.ruler path { stroke: var(--ink-2); stroke-width: 1.2; fill: none }
text { font: 500 11px var(--body); fill: var(--ink-2); text-anchor: middle; font-variant-numeric: tabular-nums slashed-zero }
</style>
