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
const field = ref<{ focus: () => void }>()
defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <el-input ref="field" v-model="text" class="find" type="search" :aria-label="label" :placeholder="hint"><template #suffix><kbd aria-hidden="true">/</kbd></template></el-input>
</template>

<style scoped>
.find { flex: 0 1 340px; width: auto }
</style>
