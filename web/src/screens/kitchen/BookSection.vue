<script setup lang="ts">
/** What bakes are scored by, and in which language the baker writes of them. */
import { ref } from 'vue'
import type { Settings } from '@/api/client'
import ChoiceRow from '@/design/ChoiceRow.vue'

export interface BookSectionProps {
  scales: readonly string[]
  language: Settings['language']
}
const props = defineProps<BookSectionProps>()
const emit = defineEmits<{ change: [settings: Partial<Settings>] }>()
const LANGUAGES = [{ value: 'en', label: 'English' }, { value: 'de', label: 'German' }] as const
const MOST = 12
const LONGEST = 40
const added = ref('')
function add(): void {
  const name = added.value.trim()
  added.value = ''
  if (name && !props.scales.some((one) => one.toLowerCase() === name.toLowerCase())) emit('change', { scales: [...props.scales, name] })
}
const remove = (name: string) => emit('change', { scales: props.scales.filter((one) => one !== name) })
</script>

<template>
  <div class="fields">
    <div class="label">Bakes are scored by
      <span class="scales"><el-tag v-for="name in scales" :key="name" closable size="large" disable-transitions @close="remove(name)">{{ name }}</el-tag></span>
      <form v-if="scales.length < MOST" class="add" @submit.prevent="add"><el-input v-model="added" :maxlength="LONGEST" aria-label="Another scale" placeholder="another: chew, colour below" /><el-button native-type="submit" :disabled="!added.trim()">Add</el-button></form>
      <small class="quiet">Bakes keep the scores that they have.</small>
    </div>
    <div class="label">Written in<ChoiceRow label="Written in" :options="LANGUAGES" :value="language" @choose="emit('change', { language: $event })" /><small class="quiet">Words in the book are looked for by its rules: scorching finds scorched, Krumen finds Krume.</small></div>
  </div>
</template>

<style scoped>
.scales { display: flex; flex-wrap: wrap; gap: 6px }
.scales :deep(.el-tag) { height: var(--touch); border-radius: 11px; font-size: 1rem; padding-inline: 12px; color: var(--ink); background: var(--tray); border: 2px solid var(--rim-soft) }
.add { display: grid; grid-template-columns: 1fr auto; gap: 8px }
</style>
