<script setup lang="ts">
/** The revisions of a formula: to read one, and to bring one back. */
import { useRevisions } from './useRevisions'
import type { Other } from '@/screens/formula/desk/useView'
import { when } from '@/base/format'
import Said from '@/design/Said.vue'

export interface RevisionListProps {
  id: number
  latest: number
  /** The revision being read; undefined while the desk is shown. */
  reading: number | undefined
}
const props = defineProps<RevisionListProps>()
const emit = defineEmits<{
  /** Lay the desk beside this one. */
  compare: [other: Other]
  /** One was opened to be read. */
  read: []
}>()

const revisions = useRevisions(() => props.id, () => props.latest)
</script>

<template>
  <p v-if="revisions.isPending.value" class="quiet">Fetching the revisions …</p>
  <Said tone="stop" v-else-if="revisions.error.value">{{ revisions.error.value.message }}</Said>
  <p v-else-if="!revisions.data.value?.length" class="quiet">Nothing saved yet. What you type is kept as a draft until then.</p>
  <ul v-else>
    <li v-for="revision in revisions.data.value" :key="revision.number">
      <RouterLink :to="{ query: { revision: revision.number } }" :aria-current="revision.number === reading || undefined" @click="emit('read')">
        <b>Revision {{ revision.number }}</b><span>{{ revision.note || 'no note' }}</span><small class="quiet">{{ when(revision.saved_at) }}</small>
      </RouterLink>
      <el-button text :aria-label="`Revision ${revision.number} side by side with the desk`" @click="emit('compare', { id, revision: revision.number })">Side by side</el-button>
    </li>
  </ul>
</template>

<style scoped>
ul { list-style: none; margin: 0; padding: 0 }
li { display: flex; align-items: center; border-bottom: 1px solid var(--rim-faint) }
a { flex: 1; display: grid; grid-template-columns: auto 1fr; gap: 2px 12px; padding: 10px 6px; color: inherit; text-decoration: none }
a:hover, a[aria-current] { background: var(--rim-faint) }
small { grid-column: 2 }
</style>
