<script setup lang="ts">
/** How this kitchen measures: the answers that a recipe in cups asks for, open or told. */
import { computed } from 'vue'
import type { Habits } from '@/api/client'
import { useReference } from '@/base/kitchen'
import SelectField from '@/design/SelectField.vue'

export interface HabitsSectionProps {
  habits: Habits
  /** Only these questions. */
  only?: readonly (keyof Habits)[]
}
const props = defineProps<HabitsSectionProps>()
const emit = defineEmits<{
  /** An answer was changed; null leaves it open. */
  change: [habits: Habits]
}>()

const reference = useReference()
const questions = computed(() =>
  Object.values(reference.data.value?.questions ?? {})
    .filter((question) => !props.only || props.only.includes(question.key as keyof Habits))
    .map((question) => ({ ...question, options: [{ value: '', label: 'not said yet' }, ...Object.entries(question.options).map(([value, label]) => ({ value, label }))] })),
)
const answer = (key: string) => props.habits[key as keyof Habits] ?? ''
</script>

<template>
  <div class="fields">
    <label v-for="question in questions" :key="question.key" class="label">{{ question.asks }}
      <SelectField :value="answer(question.key)" :options="question.options" :label="question.asks" @choose="emit('change', { ...habits, [question.key]: $event || null })" />
    </label>
  </div>
</template>
