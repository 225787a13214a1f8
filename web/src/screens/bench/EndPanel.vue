<script setup lang="ts">
/** Nothing is left to do, or it is over: what was changed, what comes of it, and how it ends. */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { gramsUnit } from './words'
import { api, ask, Refused, type BakeState, type BakeNow, type Deed } from '@/api/client'
import { tell } from '@/base/notice'
import type { Units } from '@/base/format'
import LinkButton from '@/design/LinkButton.vue'
import Said from '@/design/Said.vue'

export interface EndPanelProps {
  bake: BakeNow
  head: BakeState['head']
  units: Units
}
const props = defineProps<EndPanelProps>()
const emit = defineEmits<{ act: [...deeds: Deed[]] }>()
const router = useRouter()
const ENDS: Record<string, string> = { done: 'Done. It is in the book.', stopped: 'Stopped.', thrown_away: 'Thrown away.', paused: 'Put away until later.' }
const over = computed(() => props.bake.status in ENDS)
const note = ref('')
const asked = ref(false)
const why = ref('')
function end(how: 'done' | 'stopped' | 'thrown_away'): void {
  const text = note.value.trim()
  emit('act', ...(text ? [{ deed: 'noted', text } as const] : []), { deed: 'ended', how })
  note.value = ''
}
/** What was changed goes on the desk, from where it can be saved as the next revision; what lies there unsaved is asked about first. */
async function lay(sure = false): Promise<void> {
  const formula_id = props.head.formula_id
  const formula = props.bake.changes.formula
  if (!formula_id || !formula) return
  const path = { params: { path: { formula_id } } }
  try {
    const state = await ask(api.GET('/api/formulas/{formula_id}', path))
    if (state.head.unsaved && state.head.latest_number > 0 && !sure) return void (asked.value = true)
    await ask(api.PUT('/api/formulas/{formula_id}/desk', { ...path, body: { formula, count: state.count, version: state.version } }))
    tell('What was changed at the bench lies on the desk. Save it as a revision when you like it.')
    await router.push({ name: 'formula', params: { id: formula_id } })
  } catch (caught) {
    if (!(caught instanceof Refused)) throw caught
    why.value = caught.message
  }
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
      <el-button v-if="bake.changes.formula && head.formula_id" class="big" @click="lay()">Lay it on the desk</el-button>
      <Said v-if="asked" tone="now"><strong>The desk has something that is not saved</strong>It would be gone, but for what its last revision has.<div class="row"><el-button @click="lay(true)">Lay it on top</el-button><LinkButton :to="{ name: 'formula', params: { id: head.formula_id ?? 0 } }">See the desk first</LinkButton></div></Said>
      <Said v-if="why" tone="stop">{{ why }}</Said>
    </section>
    <template v-if="!over">
      <label class="note">A note for the book<textarea v-model="note" rows="3" maxlength="300" /></label>
      <div class="acts"><el-button type="primary" class="big first" @click="end('done')">It goes to the book<kbd>Space</kbd></el-button></div>
    </template>
    <div v-else class="acts">
      <el-button v-if="bake.status !== 'thrown_away'" class="big" :type="bake.status === 'paused' ? 'primary' : undefined" @click="emit('act', { deed: 'resumed' })">Go on with it</el-button>
      <LinkButton v-if="head.formula_id && bake.status !== 'paused'" class="big" type="primary" :to="{ name: 'bench', query: { again: head.id } }">Bake it again</LinkButton>
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
