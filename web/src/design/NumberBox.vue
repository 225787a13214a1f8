<script setup lang="ts">
/** A number in a form, typed as a baker writes it: "12,5", "½", "1.5 kg". Element Plus's own reads none of these, so this is its text input. */
import { useNumberText, type NumberProps } from './numberText'
import { unitOf } from '@/base/format'

const props = defineProps<NumberProps>()
const emit = defineEmits<{ change: [value: number | null]; working: [] }>()
const { text, why, enter, leave, type, key } = useNumberText(props, (value) => emit('change', value), () => emit('working'))
</script>

<template>
  <el-input
    class="box"
    :class="{ worked, 'is-error': why }"
    :model-value="text"
    inputmode="decimal"
    autocomplete="off"
    :aria-label="label"
    :aria-invalid="why ? true : undefined"
    :title="why || undefined"
    @focus="enter"
    @blur="leave"
    @input="type"
    @keydown="key($event as KeyboardEvent)"
  >
    <template v-if="withUnit" #suffix>{{ unitOf(kind, units) }}</template>
  </el-input>
</template>

<style scoped>
.box { width: 100%; min-width: 0 }
.box :deep(input) { text-align: right; font-weight: inherit }
.worked :deep(input) { color: var(--crust) }
.box :deep(.el-input__suffix) { font-size: .85rem; color: var(--ink-2); padding-left: 5px }
</style>
