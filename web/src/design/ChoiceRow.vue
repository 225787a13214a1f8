<script setup lang="ts" generic="T extends string">
/** A few choices side by side, one of them taken. */
export interface ChoiceRowProps<T> {
  options: readonly { value: T; label: string }[]
  value: T
  label: string
}
const props = defineProps<ChoiceRowProps<T>>()
const emit = defineEmits<{ choose: [value: T] }>()
</script>

<template>
  <el-segmented class="choice" block :model-value="value" :options="[...props.options]" :aria-label="label" @change="emit('choose', $event as T)" />
</template>

<style scoped>
.choice { flex: 1; min-width: 0 }
</style>
