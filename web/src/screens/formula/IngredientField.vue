<script setup lang="ts">
/** An ingredient's name, completed from the pantry. */
import { suggest } from './lines'
import type { Ingredient } from '@/api/client'

export interface IngredientFieldProps {
  name: string
  pantry: readonly Ingredient[]
  label: string
  wrong?: string
}
const props = defineProps<IngredientFieldProps>()
const emit = defineEmits<{
  /** The name was typed or taken from the pantry. */
  change: [name: string]
  /** Enter was pressed with no completion open. */
  done: []
}>()

const complete = (text: string, give: (found: { value: string; role: string }[]) => void): void =>
  give(suggest(props.pantry, text).map((item) => ({ value: item.name, role: item.role })))
</script>

<template>
  <div class="ingredient" :class="{ wrong }" :title="wrong || undefined">
    <el-autocomplete
      :model-value="name"
      :fetch-suggestions="complete"
      :trigger-on-focus="false"
      :debounce="0"
      :maxlength="300"
      :aria-label="label"
      :validate-event="false"
      highlight-first-item
      select-when-unmatched
      placeholder="Ingredient"
      @update:model-value="emit('change', String($event))"
      @select="emit('done')"
    >
      <template #default="{ item }">
        <span class="found"><span>{{ item.value }}</span><small>{{ item.role }}</small></span>
      </template>
    </el-autocomplete>
  </div>
</template>

<style scoped>
.ingredient { min-width: 0 }
.ingredient :deep(.el-autocomplete) { width: 100%; --el-component-size: 30px }
.ingredient :deep(.el-input) { --el-input-bg-color: transparent; --el-input-inner-height: 28px; font-size: 1rem }
.ingredient :deep(.el-input__wrapper) { padding: 0 5px; box-shadow: 0 0 0 1.5px transparent inset }
.ingredient :deep(.el-input__wrapper:hover) { box-shadow: 0 0 0 1.5px var(--rim-soft) inset }
.ingredient :deep(.el-input__wrapper.is-focus) { box-shadow: 0 0 0 1.5px var(--rim) inset; background: var(--tray) }
.ingredient.wrong :deep(.el-input__wrapper) { box-shadow: 0 0 0 1.5px var(--stop) inset; background: var(--stop-soft) }
.ingredient :deep(input) { text-overflow: ellipsis }
.found { display: flex; justify-content: space-between; gap: 18px; min-width: 220px }
.found small { color: var(--ink-2) }
</style>
