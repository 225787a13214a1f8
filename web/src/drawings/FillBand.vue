<script setup lang="ts">
/** Where the fill lies against its usual band. */
import { computed } from 'vue'
import type { Panned } from '@/api/client'
import OpenWorking from '@/design/OpenWorking.vue'
import type { Units } from '@/base/format'
import { fillShown } from '@/screens/formula/working/words'

export interface FillBandProps {
  panned: Panned
  units: Units
}
const props = defineProps<FillBandProps>()
const emit = defineEmits<{ working: [opened: string] }>()

/** The band takes the middle of the bar; half its width lies on either side. */
const width = computed(() => props.panned.fill_high - props.panned.fill_low)
const place = (fill: number) => Math.min(100, Math.max(0, (100 * (fill - props.panned.fill_low + width.value / 2)) / (2 * width.value)))
const fill = (value: number) => fillShown(value, props.panned.fill_per, props.units)
const says = computed(() => {
  const band = `${fill(props.panned.fill_low).split(' ')[0]} to ${fill(props.panned.fill_high)}`
  if (props.panned.fill_is === 'in') return `in the usual band for ${props.panned.fill_label}, ${band}`
  return `${props.panned.fill_is === 'under' ? 'shallower' : 'fuller'} than usual for ${props.panned.fill_label}, ${band}`
})
</script>

<template>
  <div class="fill" :class="panned.fill_is">
    <svg viewBox="0 0 100 9" preserveAspectRatio="none" aria-hidden="true">
      <rect class="bar" y="2.5" width="100" height="4" rx="2" />
      <rect class="band" x="25" y="2.5" width="50" height="4" />
      <rect class="mark" :x="place(panned.fill) - 1" width="2" height="9" rx="1" />
    </svg>
    <p><OpenWorking name="pan_fill" @open="emit('working', $event)">{{ fill(panned.fill) }}</OpenWorking> {{ says }}</p>
  </div>
</template>

<style scoped>
svg { width: 100%; height: 16px; display: block }
.bar { fill: var(--rim-faint) }
.band { fill: var(--ok); fill-opacity: .35 }
.mark { fill: var(--crust) }
.in .mark { fill: var(--ok) }
p { font-size: .9rem; color: var(--ink-2); text-align: center }
.opens { font-weight: 700 }
.in .opens { color: var(--ok) }
</style>
