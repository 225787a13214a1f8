<script setup lang="ts">
/** A figure on its scale from nothing up, with the band where it usually lies. Drawn only; the numbers stand beside it. */
import { computed } from 'vue'

export interface GaugeBarProps {
  value: number
  low: number | null | undefined
  high: number | null | undefined
  /** Whether it lies outside its band. */
  outside: boolean
}
const props = defineProps<GaugeBarProps>()

const WIDTH = 200
const most = computed(() => Math.max(props.value * 1.15, (props.high ?? 0) * 1.3, 0.1))
const at = (value: number) => (value / most.value) * WIDTH
const band = computed(() => (props.low == null || props.high == null ? null : { x: at(props.low), width: Math.max(2, at(props.high) - at(props.low)) }))
</script>

<template>
  <svg class="gauge" :viewBox="`0 0 ${WIDTH} 18`" preserveAspectRatio="none" aria-hidden="true">
    <rect class="track" x="0" y="7" :width="WIDTH" height="4" rx="2" />
    <rect v-if="band" class="band" :x="band.x" y="3" :width="band.width" height="12" rx="3" />
    <rect class="mark" :class="{ outside }" :x="Math.min(at(value), WIDTH - 5)" y="0" width="5" height="18" rx="2.5" />
  </svg>
</template>

<style scoped>
.gauge { width: 100%; height: 18px; display: block }
.track { fill: var(--rim-faint) }
.band { fill: var(--ok-soft); stroke: var(--ok); stroke-width: 1.2; vector-effect: non-scaling-stroke }
.mark { fill: var(--ink) }
.mark.outside { fill: var(--crust) }
</style>
