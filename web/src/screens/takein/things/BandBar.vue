<script setup lang="ts">
/** A band as a bar: how far from low to high, with a mark at the usual. As long as it is uncertain, whatever it weighs. */
import { computed } from 'vue'

export interface BandBarProps {
  low: number
  usual: number
  high: number
  /** What the bar begins and ends at; by default nothing, and a little above high. */
  from?: number
  to?: number
  colour?: string
}
const props = withDefaults(defineProps<BandBarProps>(), { from: 0, to: undefined, colour: 'var(--crumb)' })
const end = computed(() => props.to ?? props.high / 0.9)
const place = (value: number) => `${(100 * (value - props.from)) / Math.max(end.value - props.from, 1e-9)}%`
const style = computed(() => ({ left: place(props.low), right: `calc(100% - ${place(props.high)})`, background: props.colour }))
</script>

<template>
  <span class="bar" aria-hidden="true"><span class="band" :style="style" /><span class="usual" :style="{ left: place(usual) }" /></span>
</template>

<style scoped>
.bar { position: relative; display: block; height: 8px; background: var(--rim-faint); border-radius: 2px; min-width: 40px }
.band { position: absolute; top: 0; bottom: 0; min-width: 2px; border-radius: 2px }
.usual { position: absolute; top: -4px; bottom: -4px; width: 3px; margin-left: -1.5px; background: var(--ink); border-radius: 1px }
</style>
