<script setup lang="ts">
/** A number that can be typed as a baker writes it, with a unit or without; shown in crust where it was worked out. */
import { computed, nextTick, ref, watch } from 'vue'
import { DIGITS, plain, read, ungrouped, unitOf, worth, type Kind, type Units } from '@/base/format'

export interface NumberFieldProps {
  /** In the core's unit; null for none. */
  value: number | null | undefined
  kind: Kind
  units: Units
  /** What the number is, for those who cannot see where it stands. */
  label: string
  worked?: boolean
  /** Why it is not right, where the server says so. */
  wrong?: string
  /** Shows the unit behind the number. */
  withUnit?: boolean
}
const props = defineProps<NumberFieldProps>()
const emit = defineEmits<{
  /** A number was typed, or null where it was cleared. */
  change: [value: number | null]
  /** "=" was pressed: how was it worked out? */
  working: []
}>()

const typing = ref(false)
const text = ref('')
const asShown = computed(() => (props.value == null ? '' : plain(props.value / worth(props.kind, props.units), props.worked ? DIGITS.worked : DIGITS.typed)))
const unread = computed(() => Number.isNaN(read(text.value, props.kind, props.units)))
const notRead = computed(() => (unread.value ? `“${text.value}” is not read as a number, so ${asShown.value || 'nothing'} still stands.` : ''))
const why = computed(() => props.wrong || notRead.value)

// What is being typed stands as typed; a number that came from elsewhere (an undo, a new reckoning) takes its place.
watch(
  asShown,
  (now) => {
    if (!typing.value) text.value = now
    else if (read(text.value, props.kind, props.units) !== (props.value ?? null)) text.value = ungrouped(now)
  },
  { immediate: true },
)

/** Thousands are not spaced while typing, or a digit more would leave the spaces in the wrong places. */
async function enter(event: FocusEvent): Promise<void> {
  typing.value = true
  if (!unread.value) text.value = ungrouped(text.value)
  await nextTick()
  ;(event.target as HTMLInputElement).select()
}
function leave(): void {
  typing.value = false
  if (!unread.value) text.value = asShown.value
}
function type(event: Event): void {
  text.value = (event.target as HTMLInputElement).value
  const value = read(text.value, props.kind, props.units)
  if (value === null || !Number.isNaN(value)) emit('change', value)
}
function key(event: KeyboardEvent): void {
  if (event.key === '=') {
    event.preventDefault()
    emit('working')
  } else if (event.key === 'Escape' && unread.value) {
    text.value = asShown.value
  }
}
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
      @input="type"
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
