<script setup lang="ts">
/** A sheet, a pot or a griddle from above with the pieces of one load on it, baked, with the gap around each. All in cm. */
import { computed, useId } from 'vue'
import type { Flat } from './solid'
import type { Turns } from '@/api/client'
import { withUnit, type Units } from '@/base/format'

export interface SheetTopProps {
  turns: Turns
  /** What is drawn on: measures of its inside. */
  solid: Flat
  /** How many lie on it. */
  pieces: number
  units: Units
  scale: number
  label: string
}
const props = defineProps<SheetTopProps>()

const PAD = 5
const clip = useId()
const w = computed(() => props.solid.across * props.scale)
const h = computed(() => props.solid.down * props.scale)
const packing = computed(() => props.turns.packing)
const places = computed(() => (packing.value?.places ?? []).slice(0, props.pieces).map((p) => ({ x: p.x_cm * props.scale, y: p.y_cm * props.scale })))
const radius = computed(() => ((packing.value?.across_cm ?? 0) / 2) * props.scale)
const room = computed(() => radius.value + ((packing.value?.gap_cm ?? 0) / 2) * props.scale)
const told = computed(() => `${props.label} from above, ${withUnit(props.solid.across, 'cm', props.units)} across, ${props.pieces} pieces, ${packing.value?.words ?? ''}`)
</script>

<template>
  <svg :viewBox="`${-PAD} ${-PAD} ${w + 2 * PAD} ${h + 2 * PAD}`" :width="w + 2 * PAD" :height="h + 2 * PAD" role="img" :aria-label="told">
    <circle v-if="solid.form === 'disc'" class="pan" :cx="w / 2" :cy="h / 2" :r="w / 2" />
    <rect v-else class="pan" :width="w" :height="h" rx="8" />
    <defs><clipPath :id="clip"><circle v-if="solid.form === 'disc'" :cx="w / 2" :cy="h / 2" :r="w / 2" /><rect v-else :width="w" :height="h" rx="8" /></clipPath></defs>
    <circle v-for="(p, i) in places" :key="`g${i}`" class="gap" :clip-path="`url(#${clip})`" :cx="p.x" :cy="p.y" :r="room" />
    <circle v-for="(p, i) in places" :key="`p${i}`" class="piece" :cx="p.x" :cy="p.y" :r="radius" />
    <text v-if="!places.length" :x="w / 2" :y="h / 2 + 5">{{ pieces }} pieces</text>
  </svg>
</template>

<style scoped>
svg { display: block; max-width: 100%; height: auto }
.pan { fill: var(--rim-faint); stroke: var(--rim); stroke-width: 4 }
.gap { fill: none; stroke: var(--rim-soft); stroke-width: 1; stroke-dasharray: 3 4 }
.piece { fill: var(--crumb); stroke: var(--dough); stroke-width: 2 }
text { font: 600 15px var(--body); fill: var(--ink-2); text-anchor: middle }
</style>
