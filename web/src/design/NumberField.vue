<script setup lang="ts">
/**
 * A number in a row of the ledger or the count, typed as a baker writes it. Ours: it reads fractions and units, opens its
 * working on "=", and stands a hundred times on one screen. On its own, in a form, it is a NumberBox.
 */
import { useNumberText, type NumberProps } from './numberText'
import { unitOf } from '@/base/format'

const props = defineProps<NumberProps>()
const emit = defineEmits<{ change: [value: number | null]; working: [] }>()
const { text, why, enter, leave, type, key } = useNumberText(props, (value) => emit('change', value), () => emit('working'))
</script>

<template>
  <span class="number" :class="{ worked, wrong: why }" :title="why || undefined">
    <input
      :value="text"
      type="text"
      inputmode="decimal"
      autocomplete="off"
      :aria-label="label"
      :aria-invalid="why ? true : undefined"
      @focus="enter"
      @blur="leave"
      @input="type(($event.target as HTMLInputElement).value)"
      @keydown="key"
    />
    <span v-if="withUnit" class="unit">{{ unitOf(kind, units) }}</span>
  </span>
</template>

<style scoped>
.number { display: inline-flex; align-items: baseline; gap: 4px; min-width: 0; border: 1.5px solid transparent; border-radius: 8px; padding: 0 5px }
.number:hover { border-color: var(--rim-soft) }
.number:focus-within { border-color: var(--rim); background: var(--tray) }
.number.wrong { border-color: var(--stop); background: var(--stop-soft) }
input { border: 0; background: none; text-align: right; width: 100%; min-width: 0; padding: 3px 0; outline: none; font-weight: inherit }
.worked input { color: var(--crust) }
.unit { color: var(--ink-2); font-size: .78rem; font-weight: 400 }
</style>
