<script setup lang="ts">
/** Nothing is left to do, or it is over: what was changed, what comes of it, and how it ends. */
import { computed, ref } from 'vue'
import { gramsUnit } from './words'
import type { BakeState, BakeNow, Deed } from '@/api/client'
import type { Units } from '@/base/format'
import LinkButton from '@/design/LinkButton.vue'
import LayPart from '@/screens/book/LayPart.vue'

export interface EndPanelProps {
  bake: BakeNow
  head: BakeState['head']
  units: Units
}
const props = defineProps<EndPanelProps>()
const emit = defineEmits<{ act: [...deeds: Deed[]] }>()
const ENDS: Record<string, string> = { done: 'Done. It is in the book.', stopped: 'Stopped.', thrown_away: 'Thrown away.', paused: 'Put away until later.' }
const over = computed(() => props.bake.status in ENDS)
const note = ref('')
function end(how: 'done' | 'stopped' | 'thrown_away'): void {
  const text = note.value.trim()
  emit('act', ...(text ? [{ deed: 'noted', text } as const] : []), { deed: 'ended', how })
  note.value = ''
}
const pieces = computed(() => props.bake.strips.reduce((sum, one) => sum + one.pieces.length, 0))
</script>

<template>
  <div class="end">
    <h2 class="what">{{ over ? ENDS[bake.status] : 'All of it is done' }}</h2>
    <ul class="facts">
      <li>{{ gramsUnit(bake.dough.mixed_g, bake.step_g, units) }} of dough mixed, {{ gramsUnit(bake.dough.planned_g, bake.step_g, units) }} planned.</li>
      <li v-if="bake.dough.says">{{ bake.dough.says }}</li>
      <li v-if="pieces">{{ pieces }} pieces weighed off.</li>
      <li v-for="one in bake.measured.filter((own) => !own.says.startsWith('Dough'))" :key="one.id">{{ one.says }}</li>
    </ul>
    <section v-if="bake.changes.says.length" class="changed">
      <h3>Otherwise than the formula</h3>
      <ul><li v-for="(line, n) in bake.changes.says" :key="n">{{ line }}</li></ul>
      <LayPart v-if="bake.changes.formula && head.formula_id" :formula-id="head.formula_id" :formula="bake.changes.formula" says="What was changed at the bench lies on the desk. Save it as a revision when you like it." />
    </section>
    <template v-if="!over">
      <label class="note">A note for the book<textarea v-model="note" rows="3" maxlength="300" /></label>
      <div class="acts"><el-button type="primary" class="big first" @click="end('done')">It goes to the book<kbd>Space</kbd></el-button></div>
    </template>
    <div v-else class="acts">
      <el-button v-if="bake.status !== 'thrown_away'" class="big" :type="bake.status === 'paused' ? 'primary' : undefined" @click="emit('act', { deed: 'resumed' })">Go on with it</el-button>
      <LinkButton v-if="bake.status !== 'paused'" class="big" type="primary" :to="{ name: 'book-bake', params: { id: head.id } }">Its page in the book</LinkButton>
      <LinkButton v-if="head.formula_id && bake.status !== 'paused'" class="big" :to="{ name: 'bench', query: { again: head.id } }">Bake it again</LinkButton>
    </div>
  </div>
</template>

<style scoped>
.end { display: grid; gap: 14px; align-content: start }
.what { font-size: 2rem; color: var(--ink) }
ul { margin: 0; padding-left: 20px; font-size: 1.15rem; display: grid; gap: 4px }
h3 { font-size: 1.2rem; color: var(--rim); margin-bottom: 4px }
.changed { display: grid; gap: 8px; justify-items: start }
.note { display: grid; gap: 4px; color: var(--ink-2) }
textarea { border: 2px solid var(--rim-soft); border-radius: 12px; padding: 8px 10px; font-size: 1.1rem; background: var(--tray); max-width: 640px }
.acts { display: flex; flex-wrap: wrap; gap: 10px; align-items: center }
.first { flex: 0 1 320px }
</style>
