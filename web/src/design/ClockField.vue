<script setup lang="ts">
/** A time of day, typed as "7", "7:30" or "19.30"; worked out where nothing is typed. */
import { computed, ref, watch } from 'vue'
import { clockText, DAY, readClock } from '@/base/times'

export interface ClockFieldProps {
  /** Minutes after midnight; null for none. */
  value: number | null | undefined
  /** Worked out, in minutes from the midnight before it begins. */
  worked?: number | null
  firstDay?: number
  label: string
}
const props = defineProps<ClockFieldProps>()
const emit = defineEmits<{ change: [value: number | null] }>()

const typing = ref(false)
const text = ref('')
const isWorked = computed(() => props.value == null)
const shown = computed(() => {
  const minutes = props.value == null ? props.worked : props.value
  return minutes == null ? '' : isWorked.value ? clockText(minutes, props.firstDay ?? 0) : clockText(minutes % DAY)
})
const wrong = computed(() => typing.value && Number.isNaN(readClock(text.value)))
watch(shown, (now) => !typing.value && (text.value = now), { immediate: true })
function enter(event: Event): void {
  typing.value = true
  ;(event.target as HTMLInputElement).select()
}
function type(typed: string): void {
  text.value = typed
  const minutes = readClock(typed)
  if (minutes === null || !Number.isNaN(minutes)) emit('change', minutes)
}
function leave(): void {
  typing.value = false
  text.value = shown.value
}
</script>

<template>
  <el-input class="clock" :class="{ worked: isWorked, 'is-error': wrong }" :model-value="text" :aria-label="label" :aria-invalid="wrong || undefined" placeholder="--:--" autocomplete="off" @focus="enter" @blur="leave" @input="type" />
</template>

<style scoped>
.clock { width: 100% }
.clock.worked :deep(input) { color: var(--crust) }
</style>
