<script setup lang="ts">
/** A change before it is taken: what it does line by line, to the dough, and to the allergens. */
import { nextTick, ref, watch } from 'vue'
import DifferenceTable from '@/screens/formula/revisions/DifferenceTable.vue'
import type { Pending } from './useChanges'
import type { Refused } from '@/api/client'
import type { Units } from '@/base/format'

export interface ChangeCardProps {
  pending: Pending | null
  refused: Refused | null
  units: Units
}
const props = defineProps<ChangeCardProps>()
const emit = defineEmits<{ take: []; leave: []; understood: [] }>()

const card = ref<HTMLElement>()
watch(() => [props.pending, props.refused], () => void nextTick(() => card.value?.focus()), { immediate: true })
const SIDES = ['then', 'now'] as const
</script>

<template>
  <section ref="card" class="change" tabindex="-1" role="dialog" aria-labelledby="change-head" @keydown.esc.stop="pending ? emit('leave') : emit('understood')">
    <div class="head">
      <h2 id="change-head">{{ pending?.title ?? 'That cannot be done' }}</h2>
      <span v-if="pending" class="row">
        <button type="button" class="button" @click="emit('leave')">Leave it</button>
        <button type="button" class="button go" @click="emit('take')">Take it</button>
      </span>
    </div>
    <div v-if="refused" class="said stop" role="alert">{{ refused.problem.errors?.[0]?.detail ?? refused.message }}<div class="row"><button type="button" class="button" @click="emit('understood')">Close</button></div></div>
    <template v-if="pending">
      <p v-if="pending.changed.gained.length || pending.changed.lost.length || pending.changed.read_packet.length" class="said" :class="{ now: pending.changed.gained.length || pending.changed.read_packet.length }">
        <template v-if="pending.changed.lost.length"><b>No longer contains</b> {{ pending.changed.lost.join(', ') }}. </template>
        <template v-if="pending.changed.gained.length"><b>Now contains</b> {{ pending.changed.gained.join(', ') }}. </template>
        <template v-if="pending.changed.read_packet.length"><b>Read the packet</b> of {{ pending.changed.read_packet.join(', ') }}: only that tells what it brings.</template>
      </p>
      <ul v-if="pending.changed.says.length" class="said now"><li v-for="says in pending.changed.says" :key="says">{{ says }}</li></ul>
      <DifferenceTable :compared="pending.changed.compared" :units="units" :sides="SIDES" />
    </template>
  </section>
</template>

<style scoped>
.change { position: fixed; z-index: 41; left: 50%; bottom: 76px; transform: translateX(-50%); width: min(620px, calc(100vw - 24px)); max-height: calc(100vh - 150px); overflow: auto; background: var(--tray); border: 2px solid var(--crust); border-radius: var(--radius); padding: 12px 16px; box-shadow: 0 10px 30px rgb(16 22 30 / 25%); display: grid; gap: 8px }
.head { display: flex; flex-wrap: wrap; justify-content: space-between; align-items: center; gap: 8px; position: sticky; top: -12px; background: var(--tray); padding: 6px 0 }
.row { display: flex; gap: 8px }
ul { margin: 0; padding-left: 28px }
p { margin: 0 }
</style>
