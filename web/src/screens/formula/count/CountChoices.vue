<script setup lang="ts">
/** Dough that does not come out whole is a decision: the ways, with what each comes to. Below, a little more on purpose. */
import { computed } from 'vue'
import type { Choice, Count, Whole } from '@/api/client'
import { withUnit, type Units } from '@/base/format'

export interface CountChoicesProps {
  whole: Whole
  count: Count
  units: Units
}
const props = defineProps<CountChoicesProps>()
const emit = defineEmits<{ take: [count: Count] }>()

const g = (value: number | undefined) => withUnit(value ?? NaN, 'g', props.units)
const pansOf = (n: number | undefined) => `${n} ${n === 1 ? 'pan' : 'pans'}`

type Values = (name: string) => number | undefined
const pieces = (v: Values) => `${v('pieces')} at ${g(v('piece_g'))}`
const SAYS: Record<Choice['kind'], (v: Values, choice: Choice) => string> = {
  leave_remainder: (v, choice) => `${pieces(v)}, ${g(choice.values.remainder_g)} a baker’s bite`,
  heavier: pieces,
  lighter: pieces,
  less_dough: pieces,
  more_dough: pieces,
  shared: (_, choice) => props.count.targets.map((target, i) => `${choice.values[`pieces.${i}`]} ${target.name || `of target ${i + 1}`}`).join(', ') + `, ${g(choice.values.remainder_g)} over`,
  leave_gaps: () => 'Leave the places empty',
  spread: (v) => `${v('pieces')} spread evenly, up to ${v('pieces_per_pan')} a pan`,
  fill_lighter: (v) => `Fill ${pansOf(v('pans'))}: ${pieces(v)}`,
  fill_more: (v) => `Fill ${pansOf(v('pans'))}: ${pieces(v)}`,
  fewer_heavier: (v) => `${pansOf(v('pans'))} only: ${pieces(v)}`,
  fewer_less: (v) => `${pansOf(v('pans'))} only: ${pieces(v)}`,
  dozen: (v) => `Baker’s dozens: ${v('pieces')}`,
  spare: (v) => `One to test: ${v('pieces')}`,
}
const signed = (value: number) => `${value < 0 ? '−' : '+'}${g(Math.abs(value))}`

const TOO_SMALL_TO_SAY = 0.005
function changes(choice: Choice): string {
  const parts = []
  if (Math.abs(choice.piece_change_g) > TOO_SMALL_TO_SAY) parts.push(`${signed(choice.piece_change_g)} each`)
  if (Math.abs(choice.flour_change_g) > TOO_SMALL_TO_SAY) parts.push(`${signed(choice.flour_change_g)} flour`)
  return parts.join(', ') || 'as it is'
}
const told = (choice: Choice) => ({ choice, says: SAYS[choice.kind]((name) => choice.values[`${name}.${choice.target}`], choice), moves: changes(choice) })
const choices = computed(() => props.whole.count.choices.map(told))
const extras = computed(() => (choices.value.length ? [] : props.whole.count.extras.map(told)))
const question = computed(() => {
  const at = props.whole.looking_at
  const value = (name: string) => props.whole.count.quantities[`${name}.${at}`]?.value ?? 0
  if (props.whole.count.choices.some((choice) => choice.kind === 'leave_gaps')) {
    const [, part] = props.whole.count.loads[at] ?? []
    return part ? `The last pan has ${part.pieces} of ${value('pieces_per_pan')}` : `The pan has ${value('pieces')} of ${value('pieces_per_pan')}`
  }
  return `${value('pieces')} at ${g(value('piece_g'))}, and ${g(props.whole.count.quantities.remainder_g?.value)} over`
})
</script>

<template>
  <div v-if="choices.length" class="choices" role="group" aria-label="What to do with what is over">
    <p><strong>{{ question }}</strong></p>
    <el-button v-for="{ choice, says, moves } in choices" :key="choice.kind" class="choice" @click="emit('take', choice.count)">
      <span>{{ says }}</span><small>{{ moves }}</small>
    </el-button>
  </div>
  <div v-else class="extras" role="group" aria-label="A little more on purpose">
    <el-button v-for="{ choice, says, moves } in extras" text size="small" :key="choice.kind" :title="`${g(choice.values[`piece_g.${choice.target}`])} each: ${moves}`" @click="emit('take', choice.count)">{{ says }}</el-button>
    <slot />
  </div>
</template>

<style scoped>
.choices { display: grid; gap: 4px; margin-top: 6px; background: var(--crust-soft); border-radius: 12px; padding: 9px }
.choices p { padding: 0 3px }
.choice { --el-button-border-color: var(--crust); --el-button-text-color: var(--ink); border-width: 1.5px; padding: 5px 9px; min-height: 36px; font-size: .95rem; font-weight: 400; white-space: normal; text-align: left }
.choice :deep(> span) { flex: 1; display: flex; flex-wrap: wrap; gap: 0 10px; justify-content: space-between; align-items: baseline }
small { color: var(--ink-2) }
.extras { display: flex; flex-wrap: wrap; gap: 0 4px; margin-top: 4px }
</style>
