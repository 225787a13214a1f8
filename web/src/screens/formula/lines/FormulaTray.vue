<script setup lang="ts">
/** The ledger: the formula as mixed or in one column, its totals, and what is wrong with it. */
import { computed, nextTick } from 'vue'
import FormulaTotals from './FormulaTotals.vue'
import StageTable from './StageTable.vue'
import WholeTable from './WholeTable.vue'
import { api, ask, type Change, type Formula, type Ingredient, type Problem, type Way, type Whole } from '@/api/client'
import type { Units } from '@/base/format'
import ChoiceRow from '@/design/ChoiceRow.vue'
import LockedPart from '@/design/LockedPart.vue'
import Said from '@/design/Said.vue'
import { VIEWS } from '@/screens/formula/desk/useView'

export interface FormulaTrayProps {
  /** The desk's own formula; it is edited in place. */
  formula: Formula
  whole: Whole | null
  problem: Problem | null
  /** No line has an amount yet. */
  isBlank: boolean
  pantry: readonly Ingredient[]
  units: Units
  viewed: 'mixed' | 'whole'
  /** Whether this kitchen counts a starter apart. */
  apart: boolean
  /** The way that is shown, where the formula has any. */
  way: Way | undefined
  locked: boolean
}
const props = defineProps<FormulaTrayProps>()
const emit = defineEmits<{
  view: [view: string]
  working: [opened: string]
  step: []
  undo: []
  apply: [change: Change, says?: string]
  look: [title: string, change: Change]
  /** Another formula is to lie on the desk. */
  lay: [formula: Formula]
}>()

/** The keyboard goes to a line's percentage. */
async function goTo(stage: number, line: number): Promise<void> {
  await nextTick()
  document.querySelector<HTMLElement>(`[data-cell="${stage}:${line}:percent"] input`)?.focus()
}
defineExpose({ goTo })

/* What is wrong with the formula stands under it; what is wrong with the pins, under them. */
const issue = computed(() => props.problem?.errors?.[0])
const said = computed(() => (issue.value?.pointer.startsWith('/count') ? '' : (issue.value?.detail ?? props.problem?.detail)))
const canMakeUp = computed(() => issue.value?.code === 'flour_not_hundred' && !props.locked)
async function makeUpFlour(): Promise<void> {
  emit('step')
  emit('lay', await ask(api.POST('/api/reckon/flour-made-up', { body: props.formula })))
}
</script>

<template>
  <section class="tray" aria-labelledby="formula-head">
    <div class="tray-head">
      <h2 id="formula-head">Formula</h2>
      <ChoiceRow class="views" label="How the formula is shown" :options="VIEWS" :value="viewed" @choose="emit('view', $event)" />
    </div>
    <LockedPart :locked="locked">
      <WholeTable v-if="viewed === 'whole' && whole" :formula="formula" :whole="whole" :units="units" @apply="emit('apply', $event)" />
      <StageTable v-else :formula="formula" :whole="whole" :problem="problem" :pantry="pantry" :units="units" :apart="apart" :way="way" @working="emit('working', $event)" @step="emit('step')" @undo="emit('undo')" @apply="(change, says) => emit('apply', change, says)" @look="(title, change) => emit('look', title, change)" />
    </LockedPart>
    <FormulaTotals v-if="whole" :whole="whole" :units="units" @working="emit('working', $event)" />
    <Said v-if="isBlank">Start with the flour: a name, and its weight or 100 %.</Said>
    <Said v-else-if="said" tone="stop">
      {{ said }}
      <div v-if="canMakeUp" class="row"><el-button @click="makeUpFlour">Let the largest take the rest</el-button></div>
    </Said>
    <Said v-for="(n, i) in whole?.formula.notes" :key="i" tone="now">{{ n.text }}</Said>
  </section>
</template>

<style scoped>
.views { flex: 0 1 270px }
.said { margin-top: 8px }
</style>
