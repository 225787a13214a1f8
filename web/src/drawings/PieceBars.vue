<script setup lang="ts">
/** Every piece weighed off so far as a bar about what it is to weigh: within its tolerance, under or over; and the places of those to come. */
import { computed } from 'vue'
import type { PieceStrip } from '@/api/client'
import { withUnit, type Units } from '@/base/format'

export interface PieceBarsProps {
  strip: PieceStrip
  pieceG: number
  units: Units
}
const props = defineProps<PieceBarsProps>()
const HIGH = 74
const MIDDLE = HIGH / 2
const STEP = 18
const total = computed(() => props.strip.pieces.length + props.strip.left)
const wide = computed(() => Math.max(1, total.value) * STEP)
/** So many grams off reach the edge. */
const reach = computed(() => Math.max(props.strip.tolerance_g * 3, ...props.strip.pieces.map((g) => Math.abs(g - props.pieceG))))
const bars = computed(() =>
  props.strip.pieces.map((g, n) => {
    const high = ((g - props.pieceG) / reach.value) * (MIDDLE - 4)
    return { x: n * STEP + 3, y: high >= 0 ? MIDDLE - high : MIDDLE, high: Math.max(3, Math.abs(high)), off: props.strip.off[n] ?? 0 }
  }),
)
const band = computed(() => (props.strip.tolerance_g / reach.value) * (MIDDLE - 4))
const told = computed(() => `${props.strip.pieces.length} of ${total.value} pieces, ${props.strip.off.filter((off) => off !== 0).length} outside of ${withUnit(props.pieceG, 'g', props.units)} ± ${withUnit(props.strip.tolerance_g, 'g', props.units)}`)
</script>

<template>
  <svg :viewBox="`0 0 ${wide} ${HIGH}`" :style="{ maxWidth: `${wide * 1.5}px` }" role="img" :aria-label="told">
    <rect class="band" x="0" :y="MIDDLE - band" :width="wide" :height="band * 2" />
    <line x1="0" :x2="wide" :y1="MIDDLE" :y2="MIDDLE" />
    <rect v-for="(bar, n) in bars" :key="n" :class="{ off: bar.off !== 0 }" class="piece" :x="bar.x" :y="bar.y" :width="STEP - 6" :height="bar.high" rx="3" />
    <circle v-for="n in strip.left" :key="`c${n}`" class="to-come" :cx="(strip.pieces.length + n - 0.5) * STEP" :cy="MIDDLE" r="4" />
  </svg>
</template>

<style scoped>
svg { display: block; width: 100%; height: auto }
.band { fill: var(--ok-soft) }
line { stroke: var(--ok); stroke-width: 1.5 }
.piece { fill: var(--crumb); stroke: var(--ink-2); stroke-width: 1 }
.piece.off { fill: var(--stop) }
.to-come { fill: none; stroke: var(--rim-soft); stroke-width: 1.5 }
</style>
