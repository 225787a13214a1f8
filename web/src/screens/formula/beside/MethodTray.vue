<script setup lang="ts">
/** The method as a draft of its steps, with the times and temperatures that each one names. */
import { computed } from 'vue'
import type { Formula } from '@/api/client'
import { plain } from '@/base/format'
import { tell } from '@/base/notice'

export interface MethodTrayProps {
  /** The desk's own formula; it is edited in place. */
  formula: Formula
}
const props = defineProps<MethodTrayProps>()
const emit = defineEmits<{
  /** A step of undo of its own is about to be made. */
  step: []
  undo: []
}>()

type Step = Formula['steps'][number]
const span = ({ low, high }: { low: number; high: number }) => (low === high ? plain(low) : `${plain(low)}–${plain(high)}`)
const chips = (step: Step) => [...step.minutes.map((m) => (m.high ? `${span(m)} min` : 'overnight')), ...step.heat_c.map((h) => `${span(h)} °C`)]
const steps = computed(() => props.formula.steps.map((step) => ({ step, chips: chips(step) })))

function edit(step: Step, text: string): void {
  // What was read from the old words need not hold for the new ones.
  Object.assign(step, { text, minutes: [], heat_c: [] })
}
function add(): void {
  emit('step')
  props.formula.steps.push({ text: '', minutes: [], heat_c: [] })
}
function remove(n: number): void {
  emit('step')
  props.formula.steps.splice(n, 1)
  tell(`Removed step ${n + 1}.`, () => emit('undo'))
}
</script>

<template>
  <section class="tray method" aria-labelledby="method-head">
    <div class="tray-head"><h2 id="method-head">Method</h2><span class="quiet">a draft of the steps</span></div>
    <ol>
      <li v-for="({ step, chips: said }, n) in steps" :key="n">
        <span class="number">{{ n + 1 }}</span>
        <el-input type="textarea" :model-value="step.text" autosize resize="none" maxlength="10000" :aria-label="`Step ${n + 1}`" @input="edit(step, $event)" />
        <el-button text :aria-label="`Remove step ${n + 1}`" @click="remove(n)">×</el-button>
        <span v-if="said.length" class="chips"><span v-for="chip in said" :key="chip" class="chip">{{ chip }}</span></span>
      </li>
    </ol>
    <el-button text size="small" class="add" @click="add">+ Step</el-button>
  </section>
</template>

<style scoped>
.method { grid-column: span 2 }
ol { list-style: none; margin: 0; padding: 0 }
li { display: grid; grid-template-columns: 24px 1fr 30px; align-items: start; border-bottom: 1px solid var(--rim-faint); padding: 4px 0 }
.number { color: var(--rim); font-weight: 700; padding: 4px 0 }
li :deep(textarea:not(:hover):not(:focus)) { box-shadow: none; background: none }
.chips { grid-column: 2; display: flex; flex-wrap: wrap; gap: 5px; padding: 2px 6px }
li .el-button { padding: 0; min-height: 30px }
@media (max-width: 1180px) { .method { grid-column: 1 / -1 } }
</style>
