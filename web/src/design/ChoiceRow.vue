<script setup lang="ts" generic="T extends string">
/** A few choices side by side, one of them taken: a radio group, with arrow keys to go from one to the next. */
export interface ChoiceRowProps<T> {
  options: readonly { value: T; label: string }[]
  value: T
  label: string
}
const props = defineProps<ChoiceRowProps<T>>()
const emit = defineEmits<{ choose: [value: T] }>()

const STEP: Record<string, number | undefined> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }
function key(event: KeyboardEvent, from: number): void {
  const step = STEP[event.key]
  if (!step) return
  event.preventDefault()
  const to = (from + step + props.options.length) % props.options.length
  const buttons = (event.currentTarget as HTMLElement).parentElement?.children
  ;(buttons?.[to] as HTMLElement | undefined)?.focus()
  const option = props.options[to]
  if (option) emit('choose', option.value)
}
</script>

<template>
  <div class="choice" role="radiogroup" :aria-label="label">
    <button
      v-for="(option, i) in options"
      :key="option.value"
      type="button"
      role="radio"
      :aria-checked="option.value === value"
      :tabindex="option.value === value ? 0 : -1"
      @click="emit('choose', option.value)"
      @keydown="key($event, i)"
    >
      {{ option.label }}
    </button>
  </div>
</template>

<style scoped>
.choice { display: flex; gap: 5px; flex: 1 }
button { flex: 1; min-height: var(--touch); border: 1.5px solid var(--rim-soft); background: none; border-radius: 10px; cursor: pointer; padding: 2px 6px }
button[aria-checked='true'] { background: var(--rim); border-color: var(--rim); color: var(--on-rim); font-weight: 650 }
</style>
