<script setup lang="ts">
/** What the server refused: its title, and each place that is wrong, or what it says of the whole. */
import type { Refused } from '@/api/client'
import Said from '@/design/Said.vue'

export interface RefusedNoteProps {
  refused: Refused
}
defineProps<RefusedNoteProps>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <Said tone="stop">
    <strong>{{ refused.problem.title }}</strong>
    <ul v-if="refused.problem.errors?.length">
      <li v-for="issue in refused.problem.errors" :key="issue.pointer + issue.detail">{{ issue.detail }} <code v-if="issue.pointer">{{ issue.pointer }}</code></li>
    </ul>
    <template v-else>{{ refused.message }}</template>
    <div class="row"><el-button @click="emit('close')">Close</el-button></div>
  </Said>
</template>

<style scoped>
code { background: none; opacity: .8 }
</style>
