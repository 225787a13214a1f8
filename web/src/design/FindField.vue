<script setup lang="ts">
/** Find as you type, reached by "/". */
import { ref } from 'vue'

export interface FindFieldProps {
  /** What is found, for those who cannot see where it stands. */
  label: string
  hint: string
}
defineProps<FindFieldProps>()
const text = defineModel<string>({ required: true })
const field = ref<HTMLInputElement>()
defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <label class="find"><span class="visually-hidden">{{ label }}</span>
    <input ref="field" v-model="text" class="field" type="search" :placeholder="hint" /><kbd aria-hidden="true">/</kbd>
  </label>
</template>

<style scoped>
.find { display: flex; align-items: center; gap: 8px; flex: 0 1 340px }
.find .field { width: 100% }
.find kbd { color: var(--ink-2) }
</style>
