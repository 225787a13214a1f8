<script setup lang="ts">
/** How the kitchen reckons, where bakers disagree. */
import type { Settings } from '@/api/client'
import ChoiceRow from '@/design/ChoiceRow.vue'

export interface PracticeSectionProps {
  practice: Settings['practice']
}
defineProps<PracticeSectionProps>()
const emit = defineEmits<{ change: [practice: Settings['practice']] }>()
const STARTERS = [{ value: 'joined', label: 'Joins the totals' }, { value: 'apart', label: 'Stands apart' }] as const
const YEASTS = [{ value: '3 : 1.2 : 1', label: '3 : 1.2 : 1' }, { value: '2.5 : 1.25 : 1', label: '2.5 : 1.25 : 1' }] as const
</script>

<template>
  <div class="fields">
    <div class="label">A starter’s flour and water<ChoiceRow label="A starter’s flour and water" :options="STARTERS" :value="practice.starter" @choose="emit('change', { ...practice, starter: $event })" /><small class="quiet">The grams are the same either way; apart, it is one line over the other flour.</small></div>
    <div class="label">Fresh, active dry and instant yeast<ChoiceRow label="Fresh, active dry and instant yeast" :options="YEASTS" :value="practice.yeast" @choose="emit('change', { ...practice, yeast: $event })" /><small class="quiet">By weight, for the same rise.</small></div>
  </div>
</template>
