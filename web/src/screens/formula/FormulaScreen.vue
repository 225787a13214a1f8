<script setup lang="ts">
/** A formula beside its count and its pan. This page composes; what it shows is in desk/useView.ts, saving in desk/useSaving.ts. */
import { computed, ref, watch } from 'vue'
import { onBeforeRouteLeave } from 'vue-router'
import BesideTray from './beside/BesideTray.vue'
import ChangeCard from './changes/ChangeCard.vue'
import { useChanges } from './changes/useChanges'
import CountTray from './count/CountTray.vue'
import FormulaHead from './desk/FormulaHead.vue'
import FormulaTellings from './desk/FormulaTellings.vue'
import { KEYS, keysOf } from './desk/keys'
import SaveDialog from './desk/SaveDialog.vue'
import SideChoice from './desk/SideChoice.vue'
import { useDesk, type Desk } from './desk/useDesk'
import { useReckoning } from './desk/useReckoning'
import { useSaving } from './desk/useSaving'
import { useTakeOut } from './desk/useTakeOut'
import { useView } from './desk/useView'
import ContentsTray from './dough/ContentsTray.vue'
import GaugesTray from './dough/GaugesTray.vue'
import NotesTray from './dough/NotesTray.vue'
import FormulaTray from './lines/FormulaTray.vue'
import PanTray from './pan/PanTray.vue'
import CompareTray from './revisions/CompareTray.vue'
import RevisionsDialog from './revisions/RevisionsDialog.vue'
import { useRevision } from './revisions/useRevisions'
import LoadTray from './shape/LoadTray.vue'
import ShapeTray from './shape/ShapeTray.vue'
import FormulaTour from './FormulaTour.vue'
import MethodTray from '@/screens/method/MethodTray.vue'
import { wayNumber } from '@/screens/method/steps'
import { useWorking } from './working/useWorking'
import WorkingCard from './working/WorkingCard.vue'
import { workingOf } from './working/workings'
import type { Change, Formula } from '@/api/client'
import { plainCopy } from '@/base/copy'
import { useKeys } from '@/base/keys'
import { useIngredients, useKnown, useUnits } from '@/base/kitchen'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import KeysDialog from '@/design/KeysDialog.vue'
import LinkButton from '@/design/LinkButton.vue'
import LockedPart from '@/design/LockedPart.vue'
import Said from '@/design/Said.vue'

const { units, error: unitsError } = useUnits()
const pantry = useIngredients()
const known = useKnown()
const view = useView(() => shownDesk.value.count.targets.length)
const { router, side, reading, target, comparing, isPhone } = view

const routeId = computed(() => (view.route.params.id === 'new' ? null : Number(view.route.params.id)))
const desk = useDesk((id) => void router.replace({ params: { id }, query: view.route.query }))
watch(
  routeId,
  (id) => {
    if (!desk.loaded.value || id !== (desk.head.value?.id ?? null)) void desk.open(id)
  },
  { immediate: true },
)
onBeforeRouteLeave(() => desk.flush())

/* Reading a revision shows it in place of the desk, under the desk's count. It is read, not changed. */
const revision = useRevision(routeId, reading)
const locked = computed(() => reading.value !== undefined)
const shown = computed<Desk | null>(() => {
  if (reading.value === undefined) return desk.desk.value
  const formula = revision.data.value?.formula
  return formula ? { formula: plainCopy(formula), count: desk.desk.value.count } : null
})
const shownDesk = computed(() => shown.value ?? desk.desk.value)
const ready = computed(() => desk.loaded.value && shown.value !== null)
const { whole, problem, stale, isBlank } = useReckoning(shownDesk, known, target, ready)
const { working, open: openWorking, close: closeWorking, remember, giveBackFocus } = useWorking(view, (name) =>
  whole.value && units.value ? workingOf(name, whole.value, inWay.value, shownDesk.value.count, units.value) : null,
)
/** The formula as its way has it: where that has stages of its own, they stand here, to be edited in place. */
const way = computed(() => shownDesk.value.formula.ways[wayNumber(shownDesk.value.formula, shownDesk.value.count)])
const inWay = computed(() => (way.value?.stages ? { ...shownDesk.value.formula, stages: way.value.stages } : shownDesk.value.formula))
/** What trays are given of the dough, and those of the count besides. */
const dough = computed(() => ({ formula: inWay.value, whole: whole.value, units: units.value! }))
const counted = computed(() => ({ ...dough.value, count: shownDesk.value.count, target: target.value, locked: locked.value }))

/* Changes that the core makes: at once, or looked at first. */
const changes = useChanges(desk, known)
const { refused, attempt } = useAttempt()
const change = (wanted: Change, says?: string) => void changes.apply(wanted, says)
function look(title: string, wanted: Change): void {
  if (locked.value) return
  remember()
  void changes.look(title, wanted)
}
async function takeChange(): Promise<void> {
  await changes.take()
  giveBackFocus()
}
function leaveChange(): void {
  changes.leave()
  changes.refused.value = null
  giveBackFocus()
}
function lay(formula: Formula, says: string): void {
  desk.step()
  desk.desk.value.formula = formula
  tell(says, () => desk.undo())
}
function layMethod(formula: Formula, way: string): void {
  desk.step()
  desk.desk.value.formula = formula
  desk.desk.value.count.way = way
}
const bench = computed(() => ({ name: 'bench', query: { formula: desk.head.value?.id } }))
const openMethod = (name: string) => desk.head.value && void router.push({ name: 'method', params: { id: desk.head.value.id }, query: { working: name } })
function setBand(gauge: string, band: { low: number; high: number } | null): void {
  desk.step()
  const { [gauge]: _, ...others } = desk.desk.value.formula.bands
  desk.desk.value.formula.bands = band ? { ...others, [gauge]: band } : others
}

const ledger = ref<InstanceType<typeof FormulaTray>>()
async function goToLine(stage: number, line: number): Promise<void> {
  if (isPhone.value) await view.showSide('formula')
  await view.showView('mixed')
  await ledger.value?.goTo(stage, line)
}

const saving = useSaving({ desk, view, shown: () => shown.value?.formula ?? null, problem, attempt })
const { asking, note, saveProblem } = saving
const out = useTakeOut(desk, view, attempt)
const showsRevisions = ref(false)
const showsKeys = ref(false)
const tour = ref<InstanceType<typeof FormulaTour>>()
const goToSheet = () => out.can.value && void router.push(out.sheet.value)
function compareLatest(): void {
  const head = desk.head.value
  if (comparing.value) void view.compare(null)
  else if (head?.latest_number) void view.compare({ id: head.id, revision: head.latest_number })
}
useKeys(keysOf({ view, desk, save: saving.askToSave, sheet: goToSheet, compare: compareLatest, keys: () => (showsKeys.value = true), escape: () => (changes.pending.value ? leaveChange() : closeWorking()) }))
</script>

<template>
  <main class="page formula">
    <Said v-if="desk.error.value || unitsError" tone="stop">
      <strong>{{ desk.error.value?.problem.title ?? 'The kitchen cannot be opened' }}</strong>
      {{ desk.error.value?.message ?? unitsError?.message }}
      <div class="row">
        <el-button @click="desk.open(routeId)">Try again</el-button>
        <LinkButton :to="{ name: 'formulas' }">All formulas</LinkButton>
      </div>
    </Said>
    <el-skeleton v-else-if="!desk.loaded.value || !units" :rows="10" animated aria-label="Fetching the formula" />
    <template v-else>
      <FormulaHead v-model:name="desk.desk.value.formula.name" v-model:styles="desk.desk.value.formula.styles" :keeping-says="desk.says.value" :unsaved="desk.unsaved.value" :locked="locked" :is-phone="isPhone" :can-undo="desk.canUndo.value" :can-save="!locked && desk.unsaved.value" :can-take-out="out.can.value" :why-not="out.whyNot.value" :is-kept="desk.head.value !== null" :wrong-name="problem?.errors?.some((e) => e.pointer === '/name') ?? false" :sheet="out.sheet.value" :bench="bench" @bench="router.push(bench)" @undo="desk.undo()" @revisions="showsRevisions = true" @save="saving.askToSave" @flush="desk.flush()" @take-out="out.takeOut" @sheet="goToSheet" />
      <FormulaTellings :desk="desk" :view="view" :refused="refused" :saving="asking" :revision="revision.data.value" :revision-error="revision.error.value" @close="refused = null" @both="saving.asOwn" @bring-back="saving.bringBack" @branch="saving.branch" />
      <SideChoice v-if="isPhone && !comparing" class="phone-sides" :view="view" />

      <div class="trays" :class="{ stale }">
        <FormulaTray v-if="!isPhone || (side === 'formula' && !comparing)" ref="ledger" v-bind="dough" :problem="problem" :locked="locked" :pantry="pantry" :viewed="view.viewed.value" :apart="known.practice.starter === 'apart'" :way="way" :is-blank="isBlank" @view="view.showView" @working="openWorking" @step="desk.step" @undo="desk.undo()" @apply="change" @look="look" @lay="desk.desk.value.formula = $event" />
        <CompareTray v-if="comparing" class="beside-it" :formula="dough.formula" :units="units" :reading="reading" :other="comparing" :id="desk.head.value?.id ?? null" :known="known" @choose="view.compare" @read="view.read" @apply="change" @bring="lay" @close="view.compare(null)" />
        <template v-else-if="side === 'dough'">
          <GaugesTray v-bind="dough" :locked="locked" @working="openWorking" @look="look"><template v-if="!isPhone" #head><SideChoice :view="view" /></template></GaugesTray>
          <div class="stack">
            <NotesTray :formula="dough.formula" :locked="locked" :remarks="whole?.remarks ?? []" @step="desk.step" @go="goToLine" />
            <ContentsTray :whole="whole" :units="units" :locked="locked" @look="look" />
          </div>
        </template>
        <template v-else-if="side === 'shape'">
          <ShapeTray v-bind="counted" :ruler="out.ruler.value" @working="openWorking" @step="desk.step"><template v-if="!isPhone" #head><SideChoice :view="view" /></template></ShapeTray>
          <LoadTray v-bind="dough" :locked="locked" @working="openWorking" />
        </template>
        <LockedPart v-else-if="side === 'method'" class="through" :locked="locked">
          <MethodTray :desk="shownDesk" :id="desk.head.value?.id ?? null" :known="known" :units="units" :target="target" :locked="locked" @step="desk.step" @undo="desk.undo()" @lay="layMethod" @page="openMethod"><template v-if="!isPhone" #head><SideChoice :view="view" /></template></MethodTray>
        </LockedPart>
        <template v-else-if="side === 'count'">
          <CountTray v-bind="counted" :problem="problem" @working="openWorking" @step="desk.step" @look="view.lookAt"><template v-if="!isPhone" #head><SideChoice :view="view" /></template></CountTray>
          <LockedPart class="through" :locked="locked"><PanTray v-bind="counted" :problem="problem" @working="openWorking" @step="desk.step" /></LockedPart>
        </template>
        <LockedPart v-if="!isPhone || side === 'formula'" class="through" :locked="locked">
          <BesideTray v-bind="dough" @step="desk.step" @undo="desk.undo()" />
        </LockedPart>
      </div>
      <WorkingCard v-if="working" :working="working" :band="working.gauge ? whole?.character.gauges[working.gauge] : undefined" :locked="locked" :units="units" @open="openWorking" @close="closeWorking" @band="setBand" />
      <ChangeCard :pending="changes.pending.value" :refused="changes.refused.value" :units="units" @take="takeChange" @leave="leaveChange" />
      <SaveDialog v-model="asking" v-model:note="note" :problem="saveProblem" :saving="saving.saving.value" :texts="desk.texts.value" @save="saving.save" @on-top="saving.saveOnTop" @theirs="saving.takeTheirs" @both="saving.asOwn" />
      <RevisionsDialog v-model="showsRevisions" :head="desk.head.value" :reading="reading" @compare="view.compare" />
      <KeysDialog v-model="showsKeys" :keys="KEYS"><el-button @click="showsKeys = false, tour?.begin()">Show me round this screen</el-button></KeysDialog>
      <FormulaTour ref="tour" :is-phone="isPhone" :ready="isBlank || whole !== null" />
    </template>
  </main>
</template>

<style scoped>
.through { display: contents }
.trays { display: grid; gap: 14px; grid-template-columns: minmax(440px, 1.32fr) minmax(320px, 1fr) minmax(330px, 1.08fr); align-items: start }
.trays.stale :deep(.worked) { transition: opacity .15s .25s; opacity: .55 }
.stack { display: grid; gap: 14px; align-content: start }
.beside-it { grid-column: span 2 }
@media (max-width: 1180px) {
  .trays { grid-template-columns: repeat(2, minmax(0, 1fr)) }
  .trays > :first-child, .beside-it { grid-column: 1 / -1 }
}
@media (max-width: 760px) {
  .trays { grid-template-columns: minmax(0, 1fr) }
  .beside-it { grid-column: auto }
  .phone-sides { width: 100%; margin-bottom: 8px; position: sticky; top: 4px; z-index: 5; background: var(--tray) }
}
</style>
