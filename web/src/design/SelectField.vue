<script setup lang="ts" generic="T extends string | number">
/**
 * One of a list; a long one can be searched. Blank is a choice like the others: "none", "not said yet". A wrapper also since
 * Element Plus shows what is chosen beside the field, where a screen reader does not look: here the field is described by it.
 */
import { computed, onMounted, ref, watch } from 'vue'

export interface Option<T> {
  value: T
  label: string
  /** The heading that it stands under. */
  group?: string
}
export interface SelectFieldProps<T> {
  value: T | null | undefined
  options: readonly Option<T>[]
  /** What is chosen here, for those who cannot see where it stands. */
  label: string
  /** Stands where nothing is chosen. */
  hint?: string
}
const props = defineProps<SelectFieldProps<T>>()
const emit = defineEmits<{ choose: [value: T] }>()

const LONG = 9
const groups = computed(() => {
  const found: { name: string; options: Option<T>[] }[] = []
  for (const option of props.options) {
    if (found.at(-1)?.name !== (option.group ?? '')) found.push({ name: option.group ?? '', options: [] })
    found.at(-1)?.options.push(option)
  }
  return found
})
const NOTHING = [null, undefined]
const field = ref<{ $el: HTMLElement }>()
const shown = computed(() => props.options.find((option) => option.value === props.value)?.label ?? props.hint ?? '')
onMounted(() => watch(shown, (now) => field.value?.$el.querySelector('input')?.setAttribute('aria-description', now), { immediate: true }))
</script>

<template>
  <el-select
    ref="field"
    :model-value="value ?? undefined"
    :aria-label="label"
    :filterable="options.length > LONG"
    :placeholder="hint ?? ''"
    :empty-values="NOTHING"
    :fit-input-width="false"
    no-match-text="Nothing by that name"
    @change="emit('choose', $event as T)"
  >
    <template v-for="group in groups" :key="group.name">
      <el-option-group v-if="group.name" :label="group.name"><el-option v-for="option in group.options" :key="option.value" :value="option.value" :label="option.label" /></el-option-group>
      <template v-else><el-option v-for="option in group.options" :key="option.value" :value="option.value" :label="option.label" /></template>
    </template>
  </el-select>
</template>
