<script setup lang="ts">
/**
 * An ingredient's name, completed from the pantry: a combobox after the ARIA pattern, light enough for two hundred
 * lines. (Element Plus's own points at options that are not there, which a screen reader stumbles over.)
 */
import { computed, ref, useId } from 'vue'
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
  /** Enter: a completion was taken, or the name is done. */
  done: []
}>()

const id = useId()
const open = ref(false)
const chosen = ref(0)
const found = computed(() => (open.value ? suggest(props.pantry, props.name) : []))
const isOpen = computed(() => found.value.length > 0)
const option = (i: number) => `${id}-${i}`

function type(event: Event): void {
  emit('change', (event.target as HTMLInputElement).value)
  open.value = true
  chosen.value = 0
}
function take(item: Ingredient | undefined): void {
  if (item) emit('change', item.name)
  open.value = false
  emit('done')
}
function key(event: KeyboardEvent): void {
  if (event.altKey) return
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (step && isOpen.value) {
    chosen.value = (chosen.value + step + found.value.length) % found.value.length
    event.preventDefault()
    event.stopPropagation()
  } else if (event.key === 'Enter') {
    take(found.value[chosen.value])
    event.preventDefault()
    event.stopPropagation()
  } else if (event.key === 'Escape' && isOpen.value) {
    open.value = false
    event.stopPropagation()
  }
}
</script>

<template>
  <div class="ingredient" :class="{ wrong }" :title="wrong || undefined">
    <input
      :value="name"
      role="combobox"
      aria-autocomplete="list"
      :aria-expanded="isOpen"
      :aria-controls="isOpen ? id : undefined"
      :aria-activedescendant="isOpen ? option(chosen) : undefined"
      :aria-label="label"
      :aria-invalid="wrong ? true : undefined"
      autocomplete="off"
      maxlength="300"
      placeholder="Ingredient"
      @input="type"
      @keydown="key"
      @blur="open = false"
    />
    <ul v-if="isOpen" :id="id" role="listbox" aria-label="From the pantry">
      <li v-for="(item, i) in found" :id="option(i)" :key="item.name" role="option" :aria-selected="i === chosen" @mousedown.prevent="take(item)" @mousemove="chosen = i">
        <span>{{ item.name }}</span><small>{{ item.role }}</small>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.ingredient { min-width: 0; position: relative }
input { width: 100%; border: 1.5px solid transparent; border-radius: 8px; background: none; padding: 3px 5px; text-overflow: ellipsis }
input:hover { border-color: var(--rim-soft) }
input:focus { border-color: var(--rim); background: var(--tray) }
input::placeholder { color: var(--ink-2); opacity: .75 }
.wrong input { border-color: var(--stop); background: var(--stop-soft) }
ul { position: absolute; z-index: 30; top: calc(100% + 3px); left: 0; min-width: max(100%, 240px); margin: 0; padding: 5px; list-style: none; background: var(--tray); border: 2px solid var(--rim); border-radius: 12px; box-shadow: 0 10px 24px rgb(16 22 30 / 20%) }
li { display: flex; justify-content: space-between; gap: 18px; padding: 8px 10px; border-radius: 8px; cursor: pointer }
li[aria-selected='true'] { background: var(--rim-faint) }
small { color: var(--ink-2) }
@media (max-width: 760px) { input { min-height: 44px } }
</style>
