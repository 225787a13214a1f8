<script setup lang="ts">
/** The method of a formula on a page of its own: its ways, today, the strip of time, the steps; water, rises and the heat beside them. */
import { computed, ref, watch } from 'vue'
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router'
import HeatPanel from './HeatPanel.vue'
import ReadMethod from './ReadMethod.vue'
import RisePanel from './RisePanel.vue'
import StepList from './StepList.vue'
import TodayBar from './TodayBar.vue'
import { useMethod } from './useMethod'
import WaterPanel from './WaterPanel.vue'
import WaysBeside from './WaysBeside.vue'
import WayTabs from './WayTabs.vue'
import type { Change, Formula } from '@/api/client'
import { useKeys } from '@/base/keys'
import { useKnown, useUnits } from '@/base/kitchen'
import KeptHere from '@/design/KeptHere.vue'
import KeysDialog from '@/design/KeysDialog.vue'
import LinkButton from '@/design/LinkButton.vue'
import OtherWindow from '@/design/OtherWindow.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import Said from '@/design/Said.vue'
import TimeStrip from '@/drawings/TimeStrip.vue'
import { useChanges } from '@/screens/formula/changes/useChanges'
import { useDesk } from '@/screens/formula/desk/useDesk'
import { ofMethod } from '@/screens/formula/working/workings'
import WorkingCard from '@/screens/formula/working/WorkingCard.vue'

const KEYS = [
  ['Alt ↑ ↓', 'move the step'],
  ['Alt Backspace', 'remove the step'],
  ['Ctrl Z', 'undo; with Shift: do again'],
  ['B', 'ways side by side'],
  ['M', 'method sheet'],
  ['Esc', 'close what is open'],
  ['?', 'these keys'],
] as const

const route = useRoute()
const router = useRouter()
const { units, error: unitsError } = useUnits()
const known = useKnown()
const id = computed(() => Number(route.params.id))
const desk = useDesk(() => undefined)
watch(id, (now) => void desk.open(now), { immediate: true })
onBeforeRouteLeave(() => desk.flush())
const ready = computed(() => desk.loaded.value)
const { method, problem, stale, hasSteps, isBlank } = useMethod(desk.desk, known, ref(0), ready)
const changes = useChanges(desk, known)

const show = (query: Record<string, string | undefined>) => router.replace({ query: { ...route.query, ...query } })
const open = ref(-1)
const reading = ref(false)
const showsKeys = ref(false)
const other = computed(() => (route.query.beside === undefined ? null : String(route.query.beside)))
const canBeside = computed(() => desk.desk.value.formula.ways.length > 1)
function beside(): void {
  const { formula, count } = desk.desk.value
  const first = formula.ways.find((way) => way.key !== count.way && !(count.way === '' && way === formula.ways[0]))
  void show({ beside: other.value === null && first ? first.key : undefined })
}
const working = computed(() => (route.query.working && method.value && units.value ? ofMethod(String(route.query.working), method.value, units.value) : null))
const openWorking = (name: string) => void show({ working: name })
const closeWorking = () => void show({ working: undefined })
function lay(formula: Formula, way: string): void {
  desk.step()
  desk.desk.value.formula = formula
  desk.desk.value.count.way = way
}
const take = (change: Change, says: string) => void changes.apply(change, says)
const sheet = computed(() => ({ name: 'method-sheet', params: { id: id.value } }))
useKeys({
  'mod+z': () => void desk.undo(),
  'mod+shift+z': () => void desk.redo(),
  'mod+y': () => void desk.redo(),
  b: () => canBeside.value && beside(),
  m: () => void router.push(sheet.value),
  '?': () => (showsKeys.value = true),
  Escape: () => (working.value ? closeWorking() : (open.value = -1)),
})
</script>

<template>
  <main class="page method-page" :class="{ stale }">
    <Said v-if="desk.error.value || unitsError" tone="stop"><strong>The method cannot be shown</strong>{{ desk.error.value?.message ?? unitsError?.message }}<div class="row"><el-button @click="desk.open(id)">Try again</el-button><LinkButton :to="{ name: 'formulas' }">All formulas</LinkButton></div></Said>
    <el-skeleton v-else-if="!desk.loaded.value || !units" :rows="10" animated aria-label="Fetching the method" />
    <template v-else>
      <div class="page-head">
        <h1>{{ desk.desk.value.formula.name || 'Formula without a name' }}</h1>
        <span class="chip state" :class="{ draft: desk.unsaved.value }" role="status">{{ desk.says.value }}</span>
        <span class="spacer" />
        <el-button text :disabled="!desk.canUndo.value" title="Undo (Ctrl Z)" @click="desk.undo()">Undo</el-button>
        <LinkButton text :to="{ name: 'formula', params: { id }, query: { side: 'method' } }">Formula and count</LinkButton>
        <el-button v-if="canBeside" :aria-pressed="other !== null" @click="beside">Ways side by side</el-button>
        <LinkButton v-if="id !== null" :to="{ name: 'bench', query: { formula: id } }">Bake</LinkButton>
        <LinkButton type="primary" :to="sheet">Method sheet</LinkButton>
      </div>
      <div class="tellings">
        <KeptHere v-if="desk.keeping.value === 'away'" :why="desk.why.value" />
        <RefusedNote v-if="changes.refused.value" :refused="changes.refused.value" @close="changes.refused.value = null" />
        <OtherWindow v-if="desk.keeping.value === 'behind'" what="formula" v-bind="desk.texts.value" @mine="desk.keepMine()" @theirs="desk.takeTheirs()" @both="desk.keepBoth()" />
      </div>
      <section class="tray whole" aria-labelledby="method-head">
        <h2 id="method-head" class="visually-hidden">Method</h2>
        <WayTabs :formula="desk.desk.value.formula" :count="desk.desk.value.count" :locked="false" @step="desk.step" @undo="desk.undo()" />
        <TodayBar :count="desk.desk.value.count" :method="method" :climate="known.climate" :units="units" @working="openWorking" />
        <TimeStrip v-if="method" :method="method" :open="open" @pick="open = $event" />
        <Said v-if="isBlank && hasSteps" tone="now">No line of the formula has an amount yet, so nothing can be reckoned.</Said>
        <Said v-if="problem" tone="stop">{{ problem.errors?.[0]?.detail ?? problem.detail }}</Said>
      </section>
      <div class="halves">
        <section class="tray" aria-labelledby="steps-head">
          <div class="tray-head"><h2 id="steps-head">Steps</h2><span class="quiet">{{ method?.begins_min == null ? 'times from the beginning' : 'times by the clock' }}</span></div>
          <StepList v-model:open="open" :formula="desk.desk.value.formula" :count="desk.desk.value.count" :method="method" :units="units" :locked="false" @working="openWorking" @step="desk.step" @undo="desk.undo()" @read="reading = true" />
        </section>
        <div class="stack">
          <WaysBeside v-if="other !== null && canBeside" :formula="desk.desk.value.formula" :count="desk.desk.value.count" :known="known" :units="units" :other="other" @choose="show({ beside: $event })" @close="show({ beside: undefined })" />
          <template v-if="method">
            <WaterPanel :formula="desk.desk.value.formula" :count="desk.desk.value.count" :method="method" :units="units" @working="openWorking" />
            <RisePanel :formula="desk.desk.value.formula" :count="desk.desk.value.count" :method="method" :units="units" :locked="false" @working="openWorking" @step="desk.step" @take="take" />
            <HeatPanel :method="method" :units="units" @working="openWorking" />
          </template>
        </div>
      </div>
      <WorkingCard v-if="working" :working="working" :band="undefined" :locked="false" :units="units" @open="openWorking" @close="closeWorking" />
      <ReadMethod v-model="reading" :formula="desk.desk.value.formula" :count="desk.desk.value.count" :known="known" @read="lay" @undo="desk.undo()" />
      <KeysDialog v-model="showsKeys" :keys="KEYS" />
    </template>
  </main>
</template>

<style scoped>
.whole { display: grid; gap: 10px; margin-bottom: 14px }
.halves { display: grid; gap: 14px; grid-template-columns: minmax(0, 1.45fr) minmax(340px, 1fr); align-items: start }
.stack { display: grid; gap: 14px; position: sticky; top: 10px; max-height: calc(100vh - 20px); overflow-y: auto; align-content: start }
@media (max-width: 1000px) { .halves { grid-template-columns: minmax(0, 1fr) } .stack { position: static; max-height: none } }
</style>
