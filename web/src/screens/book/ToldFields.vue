<script setup lang="ts">
/** What is known of a bake: all of it may be left blank. */
import { computed } from 'vue'
import { weightsIn, type Told } from './told'
import { grams } from './words'
import { withUnit, type Units } from '@/base/format'
import { minutesText } from '@/base/times'
import NumberBox from '@/design/NumberBox.vue'

export interface ToldFieldsProps {
  lines: readonly { key: string; of: string; name: string; meant_g?: number | null }[]
  steps: readonly { key: string; label: string; planned_min: number }[]
  units: Units
}
const props = defineProps<ToldFieldsProps>()
const told = defineModel<Told>({ required: true })
const pieces = computed(() => weightsIn(told.value.pieces))
const WARM = [['dough_c', 'Dough'], ['room_c', 'Room'], ['oven_c', 'Oven, measured'], ['middle_c', 'Middle, baked']] as const
</script>

<template>
  <div class="told">
    <div class="row">
      <label v-for="[name, label] in WARM" :key="name" class="label">{{ label }}<NumberBox :value="told[name]" kind="celsius" :units="units" :label="label" with-unit @change="told[name] = $event" /></label>
      <label class="label">Dough before dividing<NumberBox :value="told.dough_g" kind="g" :units="units" label="Dough before dividing" with-unit @change="told.dough_g = $event" /></label>
      <label class="label">Water added<NumberBox :value="told.water_g" kind="g" :units="units" label="Water added" with-unit @change="told.water_g = $event" /></label>
    </div>
    <label class="label">Pieces, each weighed, in the order of the count<el-input v-model="told.pieces" placeholder="77 79 75 78" inputmode="decimal" aria-label="Pieces, each weighed" /></label>
    <p v-if="told.pieces" class="quiet" role="status">{{ pieces.length }} pieces, {{ withUnit(pieces.reduce((a, b) => a + b, 0), 'g', props.units) }} in all.</p>
    <details v-if="steps.length"><summary>How long steps took</summary>
      <ul class="grid"><li v-for="step in steps" :key="step.key"><label class="label"><span>{{ step.label }}<small class="quiet">planned {{ minutesText(step.planned_min) }}</small></span><NumberBox :value="told.steps[step.key] ?? null" kind="min" :units="units" :label="`${step.label}, took`" with-unit @change="told.steps[step.key] = $event" /></label></li></ul>
    </details>
    <details v-if="lines.length"><summary>What went in otherwise</summary>
      <ul class="grid"><li v-for="line in lines" :key="line.key"><label class="label"><span>{{ line.name }}<small class="quiet">{{ line.of }}{{ line.meant_g == null ? '' : `, meant ${grams(line.meant_g, units)}` }}</small></span><NumberBox :value="told.lines[line.key] ?? null" kind="g" :units="units" :label="`${line.name}, went in`" with-unit @change="told.lines[line.key] = $event" /></label></li></ul>
    </details>
    <label class="label">A note<el-input v-model="told.note" maxlength="300" aria-label="A note" /></label>
  </div>
</template>

<style scoped>
.told { display: grid; gap: 10px }
.row { display: grid; grid-template-columns: repeat(auto-fill, minmax(130px, 1fr)); gap: 8px }
.grid small { display: block }
summary { cursor: pointer; font-weight: 650; color: var(--rim); min-height: 40px; line-height: 40px }
.grid { list-style: none; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(auto-fill, minmax(200px, 1fr)); gap: 8px 14px }
</style>
