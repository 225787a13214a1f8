<script setup lang="ts">
/** A pan from the side, to scale: level dough as divided, and when doubled, against the rim. All measures in cm. */
import { computed } from 'vue'
import type { Panned } from '@/api/client'
import OpenWorking from '@/design/OpenWorking.vue'
import { withUnit, type Units } from '@/format'

export interface PanSideProps {
  panned: Panned
  units: Units
  /** Pixels to a centimetre, the same as the top view's. */
  scale: number
}
const props = defineProps<PanSideProps>()
const emit = defineEmits<{ working: [opened: string] }>()

const MARGIN = 34
const WALL = 5
const LEAST_ABOVE = 14
const w = computed(() => ('diameter_cm' in props.panned.pan ? props.panned.pan.diameter_cm : props.panned.pan.length_cm) * props.scale)
const rim = computed(() => props.panned.pan.depth_cm * props.scale)
const dough = computed(() => props.panned.depth_divided_cm * props.scale)
const MOST_DRAWN_RIMS = 3
const risen = computed(() => Math.min(props.panned.depth_doubled_cm * props.scale, rim.value * MOST_DRAWN_RIMS + 40))
const top = computed(() => Math.max(rim.value, risen.value) + LEAST_ABOVE)
const told = computed(
  () =>
    `Pan from the side: dough ${withUnit(props.panned.depth_divided_cm, 'cm', props.units)} deep as divided, ` +
    `${withUnit(props.panned.depth_doubled_cm, 'cm', props.units)} when doubled, rim at ${withUnit(props.panned.pan.depth_cm, 'cm', props.units)}`,
)
</script>

<template>
  <div>
    <svg :viewBox="`${-MARGIN} ${-top} ${w + MARGIN + WALL + 4} ${top + WALL + 2}`" :width="w + MARGIN + WALL + 4" :height="top + WALL + 2" role="img" :aria-label="told">
      <rect class="risen" :class="{ over: panned.past_rim }" :y="-risen" :width="w" :height="risen" />
      <rect class="dough" :y="-dough" :width="w" :height="dough" />
      <path class="line" :d="`M0 ${-risen}H${w}`" />
      <path class="pan" :d="`M${-WALL / 2} ${-rim}V${WALL / 2}H${w + WALL / 2}V${-rim}`" :stroke-width="WALL" />
    </svg>
    <dl>
      <div><dt><i class="key now" />as divided</dt><dd><OpenWorking name="depth_divided" @open="emit('working', $event)">{{ withUnit(panned.depth_divided_cm, 'cm', units) }}</OpenWorking></dd></div>
      <div :class="{ over: panned.past_rim }"><dt><i class="key up" />when doubled</dt><dd><OpenWorking name="depth_doubled" @open="emit('working', $event)">{{ withUnit(panned.depth_doubled_cm, 'cm', units) }}</OpenWorking></dd></div>
      <div><dt>rim</dt><dd>{{ withUnit(panned.pan.depth_cm, 'cm', units) }}</dd></div>
    </dl>
  </div>
</template>

<style scoped>
svg { display: block; max-width: 100%; height: auto }
.pan { fill: none; stroke: var(--rim); stroke-linejoin: round; stroke-linecap: round }
.dough { fill: var(--crumb) }
.risen { fill: var(--dough); fill-opacity: .6 }
.line { stroke: var(--crust); stroke-width: 2; stroke-dasharray: 6 4 }
.over.risen { fill: var(--stop-soft) }
dl { display: flex; flex-wrap: wrap; gap: 4px 18px; margin: 6px 0 0; justify-content: center; font-size: .9rem }
dl div { display: flex; gap: 6px; align-items: baseline }
dt { color: var(--ink-2) }
dd { margin: 0; font-weight: 700 }
div.over .opens { color: var(--stop) }
dl div:last-child dd { color: var(--ink) }
.key { display: inline-block; width: 14px; height: 10px; border-radius: 3px; margin-right: 5px; background: var(--crumb) }
.key.up { background: none; border-top: 2px dashed var(--crust); border-radius: 0; height: 4px }
</style>
