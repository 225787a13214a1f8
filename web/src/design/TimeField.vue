<script setup lang="ts">
/** How long something takes, typed as a baker writes it: "8–10 min", "1 h 30", "12–16 h". Ours: no part of Element Plus reads a range of times. */
import { computed, ref, watch } from 'vue'
import { minutesText, readSpan, spanText, type Span } from '@/base/times'

export interface TimeFieldProps {
  value: Span | null
  /** Stands in, in crust, where nothing was typed. */
  usual?: Span | null
  label: string
}
const props = defineProps<TimeFieldProps>()
const emit = defineEmits<{ change: [value: Span | null] }>()

const typing = ref(false)
const text = ref('')
const words = (span: Span | null | undefined) => {
  if (!span || span.high_min === 0) return ''
  const middle = (span.low_min + span.high_min) / 2
  const told = span === props.value && Math.abs(middle - span.usual_min) > 0.01
  return told ? [span.low_min, span.usual_min, span.high_min].map(minutesText).join(' – ') : spanText(span.low_min, span.high_min)
}
const shown = computed(() => words(props.value ?? props.usual))
const read = computed(() => readSpan(text.value))
const wrong = computed(() => typing.value && read.value === 'unread')
watch(shown, (now) => !typing.value && (text.value = now), { immediate: true })

function enter(event: FocusEvent): void {
  typing.value = true
  ;(event.target as HTMLInputElement).select()
}
function type(typed: string): void {
  text.value = typed
  if (read.value !== 'unread' && typed !== shown.value) emit('change', read.value)
}
function leave(): void {
  typing.value = false
  text.value = shown.value
}
</script>

<template>
  <span class="time" :class="{ worked: !value, wrong }" :title="wrong ? `“${text}” is not read as a time, so ${shown || 'nothing'} still stands.` : undefined">
    <input :value="text" type="text" autocomplete="off" :aria-label="label" :aria-invalid="wrong || undefined" placeholder="–" @focus="enter" @blur="leave" @input="type(($event.target as HTMLInputElement).value)" />
  </span>
</template>

<style scoped>
.time { display: inline-flex; border: 1.5px solid transparent; border-radius: 8px; padding: 0 4px; min-width: 0 }
.time:hover { border-color: var(--rim-soft) }
.time:focus-within { border-color: var(--rim); background: var(--tray) }
.time.wrong { border-color: var(--stop); background: var(--stop-soft) }
input { border: 0; background: none; outline: none; width: 100%; min-width: 0; padding: 3px 0; text-align: right; font-weight: 650 }
.worked input { color: var(--crust); font-weight: 400 }
@media (max-width: 760px) { input { min-height: 42px } }
</style>
