<script setup lang="ts">
/** What lengths are told in, and what is printed on. */
import type { Settings } from '@/api/client'
import ChoiceRow from '@/design/ChoiceRow.vue'

export interface PaperSectionProps {
  length: Settings['length_unit']
  paper: Settings['paper']
}
defineProps<PaperSectionProps>()
const emit = defineEmits<{ change: [change: Partial<Settings>] }>()
const LENGTHS = [{ value: 'cm', label: 'Centimetres' }, { value: 'in', label: 'Inches' }] as const
const PAPERS = [{ value: 'A4', label: 'A4' }, { value: 'Letter', label: 'Letter' }, { value: 'roll', label: '80 mm roll' }] as const
</script>

<template>
  <div class="fields">
    <div class="label">Lengths in<ChoiceRow label="Lengths in" :options="LENGTHS" :value="length" @choose="emit('change', { length_unit: $event })" /></div>
    <div class="label">Paper<ChoiceRow label="Paper" :options="PAPERS" :value="paper" @choose="emit('change', { paper: $event })" /></div>
  </div>
</template>
