<script setup lang="ts">
/** What a bake came to, as it is told: scores, words, what was measured when it was out. */
import { computed } from 'vue'
import ScoreField from './ScoreField.vue'
import type { Outcome } from '@/api/client'
import type { Units } from '@/base/format'
import NumberBox from '@/design/NumberBox.vue'

export interface OutcomeFieldsProps {
  scales: readonly string[]
  pieces: number
  /** It was of several things from one dough, so that what they weigh together says nothing of one of them. */
  several?: boolean
  units: Units
}
const props = defineProps<OutcomeFieldsProps>()
const outcome = defineModel<Outcome>({ required: true })
/** The kitchen's scales now, and those that this bake was scored by before. */
const names = computed(() => [...new Set([...props.scales, ...Object.keys(outcome.value.scores)])])
function score(name: string, value: number | null): void {
  const others = Object.fromEntries(Object.entries(outcome.value.scores).filter(([key]) => key !== name))
  outcome.value = { ...outcome.value, scores: value === null ? others : { ...outcome.value.scores, [name]: value } }
}
const set = (change: Partial<Outcome>) => (outcome.value = { ...outcome.value, ...change })
</script>

<template>
  <div class="fields">
    <div class="scores"><ScoreField v-for="name in names" :key="name" :label="name" :value="outcome.scores[name] ?? null" @choose="score(name, $event)" /></div>
    <label class="label">In words<el-input type="textarea" :model-value="outcome.words" :autosize="{ minRows: 2, maxRows: 8 }" maxlength="10000" aria-label="In words" @input="set({ words: String($event) })" /></label>
    <label class="label">What went wrong<el-input type="textarea" :model-value="outcome.wrong" :autosize="{ minRows: 1, maxRows: 6 }" maxlength="10000" aria-label="What went wrong" @input="set({ wrong: String($event) })" /></label>
    <label class="label">Next time<el-input type="textarea" :model-value="outcome.next_time" :autosize="{ minRows: 1, maxRows: 6 }" maxlength="10000" aria-label="Next time" @input="set({ next_time: String($event) })" /></label>
    <div class="measured">
      <label class="label">Baked, weighs<NumberBox :value="outcome.baked_g ?? null" kind="g" :units="units" label="Baked, weighs" with-unit @change="set({ baked_g: $event })" /></label>
      <label class="label">of so many<NumberBox :value="outcome.baked_pieces ?? null" kind="count" :units="units" label="Of so many pieces" @change="set({ baked_pieces: $event === null ? null : Math.max(1, Math.round($event)) })" /></label>
      <label class="label">Height<NumberBox :value="outcome.height_cm ?? null" kind="cm" :units="units" label="Height" with-unit @change="set({ height_cm: $event })" /></label>
      <label class="label">Across<NumberBox :value="outcome.across_cm ?? null" kind="cm" :units="units" label="Across" with-unit @change="set({ across_cm: $event })" /></label>
    </div>
    <p v-if="outcome.baked_g && several" class="quiet">Of several things from one dough, no baking loss is worked out.</p>
    <p v-else-if="outcome.baked_g && !outcome.baked_pieces" class="quiet">Taken as all {{ pieces }} pieces.</p>
  </div>
</template>

<style scoped>
.fields { display: grid; gap: 10px }
.scores { display: grid }
.measured { display: grid; grid-template-columns: repeat(4, minmax(0, 1fr)); gap: 8px }
@media (max-width: 600px) { .measured { grid-template-columns: repeat(2, minmax(0, 1fr)) } }
</style>
