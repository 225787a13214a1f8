<script setup lang="ts">
/** A pan from above, to scale: one slab, or pieces as divided and as risen. All measures in cm. */
import { computed } from 'vue'
import type { Panned } from '@/api/client'
import { withUnit, type Units } from '@/format'

export interface PanTopProps {
  panned: Panned
  /** Weight of each piece, written in the pieces where there is room. [g] */
  pieceG: number
  units: Units
  /** Pixels to a centimetre, the same as the side view's. */
  scale: number
}
const props = defineProps<PanTopProps>()

const MARGIN = 34
const RIM = 5
const round = computed(() => props.panned.pan.shape === 'round')
const across = computed(() => ('diameter_cm' in props.panned.pan ? props.panned.pan.diameter_cm : props.panned.pan.length_cm))
const down = computed(() => ('diameter_cm' in props.panned.pan ? props.panned.pan.diameter_cm : props.panned.pan.width_cm))
const w = computed(() => across.value * props.scale)
const h = computed(() => down.value * props.scale)
const places = computed(() =>
  (props.panned.layout?.places ?? []).map((place) => ({ x: place.x_cm * props.scale, y: place.y_cm * props.scale })),
)
const divided = computed(() => (props.panned.piece_divided_cm / 2) * props.scale)
const doubled = computed(() => Math.min(props.panned.piece_doubled_cm / 2, Math.hypot(across.value, down.value)) * props.scale)
const figure = computed(() => withUnit(props.pieceG, 'g', props.units))
const FIGURE_FITS = 17
const told = computed(() => {
  const size = round.value ? `round, ${withUnit(across.value, 'cm', props.units)} across` : `${withUnit(across.value, 'cm', props.units)} by ${withUnit(down.value, 'cm', props.units)}`
  return `Pan from above, ${size}, ${places.value.length ? `${places.value.length} pieces, ${props.panned.layout?.words}` : 'one slab'}`
})
</script>

<template>
  <svg :viewBox="`${-MARGIN} ${-RIM - 2} ${w + MARGIN + RIM + 4} ${h + RIM * 2 + MARGIN + 2}`" :width="w + MARGIN + RIM + 4" :height="h + RIM * 2 + MARGIN + 2" role="img" :aria-label="told">
    <defs><clipPath id="inside"><circle v-if="round" :cx="w / 2" :cy="h / 2" :r="w / 2" /><rect v-else :width="w" :height="h" :rx="Math.min(14, w / 8, h / 8)" /></clipPath></defs>
    <circle v-if="round" class="pan" :cx="w / 2" :cy="h / 2" :r="w / 2 + RIM / 2" :stroke-width="RIM" />
    <rect v-else class="pan" :x="-RIM / 2" :y="-RIM / 2" :width="w + RIM" :height="h + RIM" :rx="Math.min(16, w / 8, h / 8)" :stroke-width="RIM" />
    <g clip-path="url(#inside)">
      <template v-if="places.length">
        <circle v-for="(p, i) in places" :key="`d${i}`" class="doubled" :cx="p.x" :cy="p.y" :r="doubled" />
        <circle v-for="(p, i) in places" :key="`n${i}`" class="divided" :cx="p.x" :cy="p.y" :r="divided" />
      </template>
      <rect v-else class="slab" :width="w" :height="h" />
    </g>
    <g v-if="places.length && divided > FIGURE_FITS" class="figures">
      <text v-for="(p, i) in places" :key="i" :x="p.x" :y="p.y + 4">{{ figure }}</text>
    </g>
    <text v-else-if="!places.length" class="one" :x="w / 2" :y="h / 2 + 6">{{ panned.loads[0]?.pieces === 1 ? figure : `${panned.loads[0]?.pieces} pieces` }}</text>
    <g class="measure">
      <path :d="`M0 ${h + RIM + 10}v8M0 ${h + RIM + 14}H${w}M${w} ${h + RIM + 10}v8`" />
      <text :x="w / 2" :y="h + RIM + 28">{{ withUnit(across, 'cm', units) }}</text>
      <template v-if="!round">
        <path :d="`M${-RIM - 14} 0h8M${-RIM - 10} 0V${h}M${-RIM - 14} ${h}h8`" />
        <text :transform="`translate(${-RIM - 17} ${h / 2}) rotate(-90)`">{{ withUnit(down, 'cm', units) }}</text>
      </template>
    </g>
  </svg>
</template>

<style scoped>
svg { display: block; max-width: 100%; height: auto }
.pan { fill: var(--rim-faint); stroke: var(--rim) }
.slab, .divided { fill: var(--crumb) }
.doubled { fill: var(--dough); fill-opacity: .55; stroke: var(--crumb); stroke-width: 1.5; stroke-dasharray: 4 4 }
text { font: 500 13px var(--body); fill: var(--ink-2); text-anchor: middle; font-variant-numeric: tabular-nums slashed-zero }
.figures text { font-size: 12px; font-weight: 700; fill: var(--ink) }
.one { font-size: 20px; font-weight: 700; fill: var(--ink) }
.measure path { fill: none; stroke: var(--ink-2); stroke-width: 1.2 }
</style>
