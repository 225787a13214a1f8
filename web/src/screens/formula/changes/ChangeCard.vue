<script setup lang="ts">
/** A change before it is taken: what it does line by line, to the dough, and to the allergens; or why it cannot be. */
import { computed } from 'vue'
import type { Pending } from './useChanges'
import type { Refused } from '@/api/client'
import type { Units } from '@/base/format'
import Said from '@/design/Said.vue'
import DifferenceTable from '@/screens/formula/revisions/DifferenceTable.vue'

export interface ChangeCardProps {
  pending: Pending | null
  refused: Refused | null
  units: Units
}
const props = defineProps<ChangeCardProps>()
const emit = defineEmits<{ take: []; leave: [] }>()
const open = computed({ get: () => props.pending !== null || props.refused !== null, set: (now) => !now && emit('leave') })
const SIDES = ['then', 'now'] as const
</script>

<template>
  <el-drawer v-model="open" class="change" :title="pending?.title ?? 'That cannot be done'" size="min(640px, 100vw)" append-to-body>
    <div class="parts">
      <Said v-if="refused" tone="stop">{{ refused.problem.errors?.[0]?.detail ?? refused.message }}</Said>
      <template v-if="pending">
        <Said v-if="pending.changed.gained.length || pending.changed.lost.length || pending.changed.read_packet.length" :tone="pending.changed.gained.length || pending.changed.read_packet.length ? 'now' : 'plain'">
          <template v-if="pending.changed.lost.length"><b>No longer contains</b> {{ pending.changed.lost.join(', ') }}. </template>
          <template v-if="pending.changed.gained.length"><b>Now contains</b> {{ pending.changed.gained.join(', ') }}. </template>
          <template v-if="pending.changed.read_packet.length"><b>Read the packet</b> of {{ pending.changed.read_packet.join(', ') }}: only that tells what it brings.</template>
        </Said>
        <Said v-if="pending.changed.says.length" tone="now"><ul><li v-for="says in pending.changed.says" :key="says">{{ says }}</li></ul></Said>
        <DifferenceTable :compared="pending.changed.compared" :units="units" :sides="SIDES" />
      </template>
    </div>
    <template #footer>
      <el-button @click="emit('leave')">{{ pending ? 'Leave it' : 'Close' }}</el-button>
      <el-button v-if="pending" type="primary" @click="emit('take')">Take it</el-button>
    </template>
  </el-drawer>
</template>

<style scoped>
.parts { display: grid; gap: 10px; align-content: start }
</style>
