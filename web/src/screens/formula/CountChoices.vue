<script setup lang="ts">
/** Dough that does not come out whole is a decision: the ways, with what each comes to. */
import { computed } from 'vue'
import type { Choice, Count, Whole } from '@/api/client'
import { withUnit, type Units } from '@/format'

export interface CountChoicesProps {
  whole: Whole
  units: Units
}
const props = defineProps<CountChoicesProps>()
const emit = defineEmits<{ take: [count: Count] }>()

const g = (value: number | undefined) => withUnit(value ?? NaN, 'g', props.units)
const pansOf = (n: number | undefined) => `${n} ${n === 1 ? 'pan' : 'pans'}`

const SAYS: Record<Choice['kind'], (v: Record<string, number>) => string> = {
  leave_remainder: (v) => `${v.pieces} at ${g(v.piece_g)}, ${g(v.remainder_g)} a baker’s bite`,
  heavier: (v) => `${v.pieces} at ${g(v.piece_g)}`,
  lighter: (v) => `${v.pieces} at ${g(v.piece_g)}`,
  less_dough: (v) => `${v.pieces} at ${g(v.piece_g)}`,
  more_dough: (v) => `${v.pieces} at ${g(v.piece_g)}`,
  leave_gaps: () => 'Leave the places empty',
  spread: (v) => `${v.pieces} spread evenly, up to ${v.pieces_per_pan} a pan`,
  fill_lighter: (v) => `Fill ${pansOf(v.pans)}: ${v.pieces} at ${g(v.piece_g)}`,
  fill_more: (v) => `Fill ${pansOf(v.pans)}: ${v.pieces} at ${g(v.piece_g)}`,
  fewer_heavier: (v) => `${pansOf(v.pans)} only: ${v.pieces} at ${g(v.piece_g)}`,
  fewer_less: (v) => `${pansOf(v.pans)} only: ${v.pieces} at ${g(v.piece_g)}`,
}
const signed = (value: number) => `${value < 0 ? '−' : '+'}${g(Math.abs(value))}`

const TOO_SMALL_TO_SAY = 0.005
function changes(choice: Choice): string {
  const parts = []
  if (Math.abs(choice.piece_change_g) > TOO_SMALL_TO_SAY) parts.push(`${signed(choice.piece_change_g)} each`)
  if (Math.abs(choice.flour_change_g) > TOO_SMALL_TO_SAY) parts.push(`${signed(choice.flour_change_g)} flour`)
  return parts.join(', ') || 'as it is'
}
const choices = computed(() => props.whole.count.choices.map((choice) => ({ choice, says: SAYS[choice.kind](choice.values), moves: changes(choice) })))
const question = computed(() => {
  const value = (name: string) => props.whole.count.quantities[name]?.value ?? 0
  if (props.whole.count.choices.some((choice) => choice.kind === 'leave_gaps')) {
    const [, part] = props.whole.count.loads
    return part ? `The last pan has ${part.pieces} of ${value('pieces_per_pan')}` : `The pan has ${value('pieces')} of ${value('pieces_per_pan')}`
  }
  return `${value('pieces')} at ${g(value('piece_g'))}, and ${g(value('remainder_g'))} over`
})
</script>

<template>
  <div class="choices" role="group" aria-label="What to do with what is over">
    <p><strong>{{ question }}</strong></p>
    <button v-for="{ choice, says, moves } in choices" :key="choice.kind" type="button" @click="emit('take', choice.count)">
      <span>{{ says }}</span><small>{{ moves }}</small>
    </button>
  </div>
</template>

<style scoped>
.choices { display: grid; gap: 4px; margin-top: 6px; background: var(--crust-soft); border-radius: 12px; padding: 9px }
.choices p { padding: 0 3px }
button { display: flex; flex-wrap: wrap; gap: 0 10px; justify-content: space-between; align-items: baseline; text-align: left; border: 1.5px solid var(--crust); background: var(--tray); border-radius: 9px; padding: 5px 9px; cursor: pointer; min-height: 36px; font-size: .95rem }
button:hover { border-color: var(--rim); background: var(--rim-faint) }
small { color: var(--ink-2) }
</style>
