<script setup lang="ts">
/** What can be done with a formula of the list. */
import type { FormulaHead } from '@/api/client'
import LinkButton from '@/design/LinkButton.vue'

export interface FormulaActsProps {
  head: FormulaHead
  called: string
  archived: boolean
}
defineProps<FormulaActsProps>()
const emit = defineEmits<{ copy: []; away: [] }>()
</script>

<template>
  <span class="acts" @click.stop>
    <template v-if="!archived">
      <LinkButton text :to="{ name: 'sheet', params: { id: head.id } }" :aria-label="`Weigh sheet of ${called}`">Sheet</LinkButton>
      <el-button text :aria-label="`Copy ${called}`" @click="emit('copy')">Copy</el-button>
    </template>
    <el-button text :aria-label="`${archived ? 'Bring back' : 'Archive'} ${called}`" @click="emit('away')">{{ archived ? 'Bring back' : 'Archive' }}</el-button>
  </span>
</template>

<style scoped>
.acts { white-space: nowrap }
@media (max-width: 760px) { .acts { display: block; margin-left: -9px } }
</style>
