<script setup lang="ts">
/** What the kitchen weighs in, and on which scales. */
import { computed } from 'vue'
import type { Settings } from '@/api/client'
import ChoiceRow from '@/design/ChoiceRow.vue'
import SelectField from '@/design/SelectField.vue'

export interface ScaleSectionProps {
  scale: Settings['scale']
}
const props = defineProps<ScaleSectionProps>()
const emit = defineEmits<{ change: [scale: Settings['scale']] }>()

const WEIGHTS = [{ value: 'g', label: 'Grams' }, { value: 'oz', label: 'Ounces' }] as const
const STEPS = { g: ['0.1', '0.5', '1', '2', '5'], oz: ['0.01', '0.05', '0.1', '0.125', '0.25'] }
const FINE = { g: ['0.01', '0.05', '0.1'], oz: ['0.001', '0.005', '0.01'] }
const UNDER = { g: '25', oz: '1' }
const bare = (step: string) => String(Number(step))

/** One of our usual steps, or the one that it is. */
const steps = computed(() => {
  const { unit, step } = props.scale
  const known = STEPS[unit].includes(bare(step)) ? STEPS[unit] : [bare(step), ...STEPS[unit]]
  return known.map((value) => ({ value, label: `${value} ${unit}` }))
})
const fineSteps = computed(() => {
  const { unit, fine_under } = props.scale
  return [{ value: '', label: 'none' }, ...FINE[unit].map((value) => ({ value, label: `${value} ${unit}, for under ${Number(fine_under)} ${unit}` }))]
})
/** Steps belong to a unit: changing the unit takes that unit's usual ones. */
function weighIn(unit: 'g' | 'oz'): void {
  const fine = props.scale.fine_step != null
  emit('change', { unit, step: unit === 'g' ? '1' : '0.1', fine_step: fine ? FINE[unit][0] : null, fine_under: UNDER[unit] })
}
</script>

<template>
  <div class="fields">
    <div class="label">Weights in<ChoiceRow label="Weights in" :options="WEIGHTS" :value="scale.unit" @choose="weighIn" /></div>
    <label class="label">The scale’s step<SelectField :value="bare(scale.step)" :options="steps" label="The scale’s step" @choose="emit('change', { ...scale, step: $event })" /></label>
    <label class="label">A finer scale for small amounts<SelectField :value="scale.fine_step == null ? '' : bare(scale.fine_step)" :options="fineSteps" label="A finer scale for small amounts" @choose="emit('change', { ...scale, fine_step: $event || null })" /></label>
  </div>
</template>
