<script setup lang="ts">
/** A time of the day or of those around it, typed as "7:30" or "fri 19:40"; worked out where nothing is typed. */
import { computed, ref, watch } from 'vue'
import { atText, fullText, readAt } from '@/base/dayTimes'

export interface AtFieldProps {
  /** Minutes from the midnight the day begins at; null for none. */
  value: number | null | undefined
  worked?: number | null
  date: string
  label: string
  /** A time without a day is the one nearest to this. */
  near?: number
  hint?: string
  /** Always with its day. */
  full?: boolean
}
const props = defineProps<AtFieldProps>()
const emit = defineEmits<{ change: [value: number | null] }>()

const USUAL_NEAR = 450
const typing = ref(false)
const text = ref('')
const at = computed(() => props.value ?? props.worked ?? null)
const shown = computed(() => (at.value === null ? '' : (props.full ? fullText : atText)(props.date, at.value)))
const read = (typed: string) => readAt(typed, props.date, props.near ?? at.value ?? USUAL_NEAR)
const wrong = computed(() => typing.value && Number.isNaN(read(text.value)))
watch(shown, (now) => !typing.value && (text.value = now), { immediate: true })
function enter(event: Event): void {
  typing.value = true
  ;(event.target as HTMLInputElement).select()
}
/** Taken when it is left or entered: half a time would move the whole day. */
function leave(): void {
  if (!typing.value) return
  typing.value = false
  const minutes = read(text.value)
  if (text.value !== shown.value && (minutes === null || !Number.isNaN(minutes))) emit('change', minutes)
  text.value = shown.value
}
</script>

<template>
  <el-input class="at" :class="{ worked: value == null, 'is-error': wrong }" :model-value="text" :aria-label="label" :aria-invalid="wrong || undefined" :placeholder="hint ?? '--:--'" autocomplete="off" @focus="enter" @blur="leave" @keydown.enter="leave" @input="(typed: string) => (text = typed)" />
</template>

<style scoped>
.at { width: 100%; min-width: 0 }
.at.worked :deep(input) { color: var(--crust) }
</style>
