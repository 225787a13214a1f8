<script setup lang="ts">
/** A pan from above, to scale, empty or with dough: one slab, pieces as divided and as risen, or cups. All measures in cm. */
import { computed, useId } from 'vue'
import type { Panned, Solid } from '@/api/client'
import { outline, withUnit, type Units } from '@/base/format'

export interface PanTopProps {
  solid: Solid
  /** The dough in it; none for an empty pan. */
  panned?: Panned | null
  /** Weight of each piece, written in the pieces where there is room. [g] */
  pieceG?: number
  units: Units
  /** Pixels to a centimetre, the same as the side view's. */
  scale: number
  /** With its measures along the edges. */
  measured?: boolean
  /** So many of its pieces lie in it already; the places of the rest are empty. All, where nothing is said. */
  filled?: number | null
}
const props = withDefaults(defineProps<PanTopProps>(), { panned: null, pieceG: 0, measured: true, filled: null })

const RIM = 5
const margin = computed(() => (props.measured ? 34 : 6))
const clip = useId()
const round = computed(() => props.solid.form !== 'rectangle' && props.solid.count === 1)
const size = computed(() => outline(props.solid))
const w = computed(() => size.value[0] * props.scale)
const h = computed(() => size.value[1] * props.scale)
const hole = computed(() => (props.solid.form === 'ring' ? ((props.solid.top[1] ?? 0) / 2) * props.scale : 0))
const base = computed(() => {
  const [a = 0, b = 0] = props.solid.base
  const [c = 0] = props.solid.top
  return { a: a * props.scale, b: (props.solid.form === 'rectangle' ? b : a) * props.scale, slopes: a < c }
})
/** Cups in rows, each with its middle. */
const cups = computed(() => {
  if (props.solid.count < 2) return []
  const pitch = (props.solid.top[0] ?? 1) * 1.2 * props.scale
  const columns = Math.max(1, Math.round(w.value / pitch))
  return Array.from({ length: props.solid.count }, (_, i) => ({ x: pitch * ((i % columns) + 0.5), y: pitch * (Math.floor(i / columns) + 0.5) }))
})
const cupR = computed(() => ((props.solid.top[0] ?? 0) / 2) * props.scale)
const places = computed(() =>
  cups.value.length && props.panned
    ? cups.value.slice(0, props.panned.loads[0]?.pieces)
    : (props.panned?.layout?.places ?? []).map((place) => ({ x: place.x_cm * props.scale, y: place.y_cm * props.scale })),
)
const lying = computed(() => (props.filled === null ? places.value : places.value.slice(0, props.filled)))
const most = computed(() => Math.hypot(...size.value))
const divided = computed(() => Math.min((props.panned?.piece_divided_cm ?? 0) / 2, most.value) * props.scale)
const doubled = computed(() => Math.min((props.panned?.piece_doubled_cm ?? 0) / 2, most.value) * props.scale)
const figure = computed(() => withUnit(props.pieceG, 'g', props.units))
const FIGURE_FITS = 17
const told = computed(() => {
  const [a, b] = size.value
  const sized = round.value ? `round, ${withUnit(a, 'cm', props.units)} across` : `${withUnit(a, 'cm', props.units)} by ${withUnit(b, 'cm', props.units)}`
  const dough = props.panned ? `, ${places.value.length ? `${places.value.length} pieces${props.panned.layout ? `, ${props.panned.layout.words}` : ''}` : 'one slab'}` : ', empty'
  return `Pan from above, ${sized}${dough}`
})
</script>

<template>
  <svg :viewBox="`${-margin} ${-RIM - 2} ${w + margin + RIM + 4} ${h + RIM * 2 + margin + 2}`" :width="w + margin + RIM + 4" :height="h + RIM * 2 + margin + 2" role="img" :aria-label="told">
    <defs><clipPath :id="clip"><circle v-if="round" :cx="w / 2" :cy="h / 2" :r="w / 2" /><rect v-else :width="w" :height="h" :rx="Math.min(14, w / 8, h / 8)" /></clipPath></defs>
    <circle v-if="round" class="pan" :cx="w / 2" :cy="h / 2" :r="w / 2 + RIM / 2" :stroke-width="RIM" />
    <rect v-else class="pan" :x="-RIM / 2" :y="-RIM / 2" :width="w + RIM" :height="h + RIM" :rx="Math.min(16, w / 8, h / 8)" :stroke-width="RIM" />
    <circle v-for="(cup, i) in cups" :key="`c${i}`" class="cup" :cx="cup.x" :cy="cup.y" :r="cupR" />
    <template v-if="base.slopes && !cups.length && !panned">
      <circle v-if="round" class="base" :cx="w / 2" :cy="h / 2" :r="base.a / 2" />
      <rect v-else class="base" :x="(w - base.a) / 2" :y="(h - base.b) / 2" :width="base.a" :height="base.b" rx="6" />
    </template>
    <g :clip-path="`url(#${clip})`">
      <template v-if="places.length">
        <circle v-for="(p, i) in places" :key="`d${i}`" class="doubled" :cx="p.x" :cy="p.y" :r="cups.length ? cupR * 0.98 : doubled" />
        <circle v-for="(p, i) in lying" :key="`n${i}`" class="divided" :cx="p.x" :cy="p.y" :r="cups.length ? Math.min(cupR * 0.8, divided) : divided" />
      </template>
      <rect v-else-if="panned && !cups.length" class="slab" :width="w" :height="h" />
    </g>
    <circle v-if="hole" class="tube" :cx="w / 2" :cy="h / 2" :r="hole" />
    <g v-if="places.length && divided > FIGURE_FITS && (!cups.length || cupR > FIGURE_FITS)" class="figures">
      <text v-for="(p, i) in places" :key="i" :x="p.x" :y="p.y + 4">{{ figure }}</text>
    </g>
    <text v-else-if="panned && !places.length" class="one" :x="w / 2" :y="h / 2 + 6">{{ (panned.loads[0]?.pieces ?? 0) <= 1 ? figure : `${panned.loads[0]?.pieces} pieces` }}</text>
    <g v-if="measured" class="measure">
      <path :d="`M0 ${h + RIM + 10}v8M0 ${h + RIM + 14}H${w}M${w} ${h + RIM + 10}v8`" />
      <text :x="w / 2" :y="h + RIM + 28">{{ withUnit(size[0], 'cm', units) }}</text>
      <template v-if="!round">
        <path :d="`M${-RIM - 14} 0h8M${-RIM - 10} 0V${h}M${-RIM - 14} ${h}h8`" />
        <text :transform="`translate(${-RIM - 17} ${h / 2}) rotate(-90)`">{{ withUnit(size[1], 'cm', units) }}</text>
      </template>
    </g>
  </svg>
</template>

<style scoped>
svg { display: block; max-width: 100%; height: auto }
.pan { fill: var(--rim-faint); stroke: var(--rim) }
.base { fill: none; stroke: var(--rim-soft); stroke-width: 1.5 }
.cup { fill: var(--tray); stroke: var(--rim-soft); stroke-width: 2 }
.tube { fill: var(--tray); stroke: var(--rim); stroke-width: 4 }
.slab, .divided { fill: var(--crumb) }
.doubled { fill: var(--dough); fill-opacity: .55; stroke: var(--crumb); stroke-width: 1.5; stroke-dasharray: 4 4 }
text { font: 500 13px var(--body); fill: var(--ink-2); text-anchor: middle; font-variant-numeric: tabular-nums slashed-zero }
.figures text { font-size: 12px; font-weight: 700; fill: var(--ink) }
.one { font-size: 20px; font-weight: 700; fill: var(--ink) }
.measure path { fill: none; stroke: var(--ink-2); stroke-width: 1.2 }
</style>
