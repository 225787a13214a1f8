<script setup lang="ts">
/** A recipe as written beside what it was taken to be; what the dough may be; and what is worth asking. */
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router'
import AskingPart from './asked/AskingPart.vue'
import DoughFigures from './asked/DoughFigures.vue'
import { useQuestions } from './asked/useQuestions'
import EarlierTakings from './EarlierTakings.vue'
import TableColumns from './recipe/TableColumns.vue'
import { FILES, useFileIn } from './recipe/useFileIn'
import { useMake } from './recipe/useMake'
import { rowsOf, useTaking, type Row, type Taking } from './recipe/useTaking'
import WrittenTray from './recipe/WrittenTray.vue'
import TakenTray from './things/TakenTray.vue'
import { useSettling } from './things/useSettling'
import WeighCup from './things/WeighCup.vue'
import { api, ask, type FormulaState } from '@/api/client'
import { useKeys } from '@/base/keys'
import { useIngredients, useUnits } from '@/base/kitchen'
import { useAttempt } from '@/base/useAttempt'
import FilePick from '@/design/FilePick.vue'
import KeptHere from '@/design/KeptHere.vue'
import KeysDialog from '@/design/KeysDialog.vue'
import LinkButton from '@/design/LinkButton.vue'
import OtherWindow from '@/design/OtherWindow.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import Said from '@/design/Said.vue'

const KEYS = [
  ['Tab, Enter', 'go to a line, open it to settle it'],
  ['Escape', 'close the line'],
  ['Ctrl Enter', 'make the formula'],
  ['Ctrl Z', 'undo (in the text: the last typing)'],
  ['N', 'another recipe'],
  ['?', 'these keys'],
] as const

const route = useRoute()
const router = useRouter()
const cache = useQueryClient()
const { units, kitchen, error: unitsError } = useUnits()
const pantry = useIngredients()

const routeId = computed(() => (route.params.id ? Number(route.params.id) : null))
const taking = useTaking((id) => void router.replace({ params: { id } }))
watch(
  routeId,
  (id) => {
    if (!taking.loaded.value || id !== (taking.state.value?.head.id ?? null)) void taking.open(id)
  },
  { immediate: true },
)
onBeforeRouteLeave(() => taking.flush())

const text = computed({
  get: () => taking.taking.value.text,
  set: (now: string) => (taking.taking.value.text = now),
})
const isEmpty = computed(() => !text.value.trim())
const taken = computed(() => (isEmpty.value ? null : taking.reading.answer.value))
const rows = computed(() => (taken.value ? rowsOf(taken.value) : []))
const understood = computed(() => rows.value.some((row) => row.thing.known))
const title = computed(() => taken.value?.title || (isEmpty.value ? 'Take in a recipe' : 'Recipe without a title'))
const makes = computed(() => {
  const made = taken.value?.makes
  return [made?.words, made?.people && !made.pieces ? `${made.people} people: no number of pieces, so none is pinned` : ''].filter(Boolean).join(' · ')
})

const written = ref<InstanceType<typeof WrittenTray>>()
const { at, openKey, look, show, toggle, settleRow, settleGroup, settleKind, unsettleRow } = useSettling(taking, taken, (line) => written.value?.show(line))
const { refused, attempt } = useAttempt()
const { questions, disagreements, stillOpen, answer } = useQuestions(taken, taking.reading.again, attempt)
/** The list keeps the questions in sight below it; it grows where a line is open, where nothing is left to ask, and for a caution. */
const isTall = computed(() => Boolean(openKey.value) || !stillOpen.value || rows.value.some((row) => row.thing.caution))
function setSystem(system: string): void {
  taking.step()
  taking.taking.value.system = (system || null) as Taking['system']
}

/* The cup on the scale. */
const weighing = ref(false)
const toWeigh = ref({ ingredient: '', measure: 'cup', way: '', count: 1 })
function weigh(row: Row): void {
  const way = row.thing.way || (row.thing.ways.includes('scooped') ? (kitchen.value?.settings.habits.cup_way ?? 'scooped') : '')
  toWeigh.value = { ingredient: row.thing.name, measure: row.thing.measure, way, count: row.thing.count }
  weighing.value = true
}
const flourRow = computed(() => rows.value.find((row) => row.thing.role === 'flour' && row.thing.measure === 'cup' && row.thing.where === 'dough'))

const refresh = () => Promise.all([['takings'], ['formulas']].map((queryKey) => cache.invalidateQueries({ queryKey })))
const undoFormula = (state: FormulaState) => async () => {
  await ask(api.DELETE('/api/formulas/{formula_id}', { params: { path: { formula_id: state.head.id }, query: { version: state.version } } }))
  await refresh()
}
/** A recipe of its own from a text; what lies here stays where it is. */
async function begin(fromText: string): Promise<void> {
  await taking.flush()
  const made = await ask(api.POST('/api/takings', { body: { text: fromText, settled: [] } }))
  await refresh()
  await router.push({ name: 'take-in', params: { id: made.head.id } })
}
const { table, mapping, takeIn } = useFileIn({ attempt, begin, refresh, undo: undoFormula })

const { making, make } = useMake(taking, { attempt, refresh, undo: undoFormula })
const keepingSays = computed(() => (isEmpty.value ? '' : taking.keeping.value === 'keeping' ? 'keeping …' : taking.keeping.value !== 'kept' ? 'in this browser only' : taking.state.value ? 'kept' : 'not kept yet'))
const another = () => void taking.flush().then(() => router.push({ name: 'take-in', params: { id: '' } }))
const showsKeys = ref(false)
useKeys({
  'mod+Enter': () => !isEmpty.value && void make(),
  'mod+z': () => (document.activeElement instanceof HTMLTextAreaElement ? document.execCommand('undo') : taking.undo()),
  n: another,
  '?': () => (showsKeys.value = true),
  Escape: () => (openKey.value = ''),
})
</script>

<template>
  <main class="page take-in">
    <Said v-if="taking.error.value || unitsError" tone="stop">
      <strong>{{ taking.error.value?.problem.title ?? 'The kitchen cannot be opened' }}</strong>{{ taking.error.value?.message ?? unitsError?.message }}
      <div class="row">
        <el-button @click="taking.open(routeId)">Try again</el-button>
        <LinkButton :to="{ name: 'take-in', params: { id: '' } }">Another recipe</LinkButton>
      </div>
    </Said>
    <el-skeleton v-else-if="!taking.loaded.value || !units" :rows="8" animated aria-label="Fetching the recipe" />
    <template v-else>
      <div class="page-head">
        <h1>{{ title }}</h1>
        <span v-if="makes" class="quiet">{{ makes }}</span>
        <span v-if="keepingSays" class="chip" role="status">{{ keepingSays }}</span>
        <span class="spacer" />
        <el-button v-if="!isEmpty" text :disabled="!taking.canUndo.value" @click="taking.undo()">Undo</el-button>
        <el-button v-if="!isEmpty" text @click="another">Another recipe</el-button>
        <FilePick v-if="!isEmpty" :accept="FILES" @pick="takeIn">From a file</FilePick>
        <LinkButton v-if="taking.state.value?.head.formula_id" :to="{ name: 'formula', params: { id: taking.state.value.head.formula_id } }">Its formula</LinkButton>
        <el-button type="primary" :disabled="isEmpty || !understood || making" @click="make">{{ taking.state.value?.head.formula_id ? 'Make it again' : 'Make the formula' }}</el-button>
      </div>

      <div class="tellings">
        <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
        <KeptHere v-if="taking.keeping.value === 'away'" :why="taking.why.value" />
        <OtherWindow v-if="taking.keeping.value === 'behind'" what="recipe" v-bind="taking.texts.value" @mine="taking.keepMine()" @theirs="taking.takeTheirs()" @both="attempt(taking.keepBoth)" />
        <Said v-if="taking.broughtBack.value && taking.keeping.value !== 'behind'">Text that had not reached the records was brought back from this browser.</Said>
        <Said v-if="taking.reading.problem.value && taking.keeping.value !== 'away' && !isEmpty" tone="stop">It cannot be read just now. {{ taking.reading.problem.value.errors?.[0]?.detail ?? taking.reading.problem.value.detail }}</Said>
      </div>

      <div class="trays" :class="{ empty: isEmpty }">
        <WrittenTray ref="written" v-model="text" :lines="taken?.lines ?? []" :at="at" @look="look" @kind="settleKind" />
        <EarlierTakings v-if="isEmpty" @file="takeIn" />
        <TakenTray v-else :class="{ stale: taking.reading.stale.value, tall: isTall }" :taken="taken" :rows="rows" :pantry="pantry" :units="units" :at="at" :open-key="openKey" @toggle="toggle" @settle="settleRow" @unsettle="unsettleRow" @group="settleGroup" @weigh="weigh" />
      </div>

      <div v-if="taken && rows.length" class="below">
        <DoughFigures :figures="taken.figures" />
        <AskingPart :taken="taken" :questions="questions" :disagreements="disagreements" :still-open="stillOpen" :has-cup="flourRow !== undefined" :system="taking.taking.value.system" :own-system="kitchen?.settings.habits.system" :units="units" @show="show" @weigh-cup="flourRow && weigh(flourRow)" @answer="answer" @system="setSystem" />
      </div>

      <WeighCup v-model="weighing" :start="toWeigh" :pantry="pantry" :units="units" @weighed="taking.reading.again()" />
      <TableColumns v-if="table" v-model="mapping" :table="table.table" :text="table.text" :title="table.title" @read="begin" />
      <KeysDialog v-model="showsKeys" :keys="KEYS" />
    </template>
  </main>
</template>

<style scoped>
.page-head h1 { overflow-wrap: anywhere }
.trays { display: grid; gap: 14px; grid-template-columns: minmax(280px, 372px) minmax(0, 1fr) }
.trays.empty { grid-template-columns: minmax(0, 1.2fr) minmax(320px, 1fr) }
.trays > * { height: 396px }
.empty > * { height: 560px }
.empty > :last-child { height: auto; min-height: 560px }
.trays > .tall { height: auto; max-height: 680px; min-height: 396px }
.stale :deep(.lines) { transition: opacity .15s .4s; opacity: .6 }
.below { display: grid; gap: 14px; grid-template-columns: minmax(280px, 372px) minmax(0, 1fr); margin-top: 14px; align-items: start }
@media (max-width: 760px) { .page-head { gap: 4px 10px; margin-bottom: 6px } .page-head h1 { font-size: 1.2rem } .file-pick { display: none } }
@media (max-width: 860px) {
  .trays, .trays.empty, .below { grid-template-columns: minmax(0, 1fr) }
  .trays > :first-child { height: 300px }
  .trays > :last-child { height: auto; max-height: none; min-height: 0 }
}
</style>
