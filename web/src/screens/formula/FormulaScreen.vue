<script setup lang="ts">
/** A formula beside its count and its pan. */
import { useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router'
import BesideTray from '@/screens/formula/beside/BesideTray.vue'
import ChangeCard from '@/screens/formula/changes/ChangeCard.vue'
import CompareTray from '@/screens/formula/revisions/CompareTray.vue'
import ContentsTray from '@/screens/formula/dough/ContentsTray.vue'
import CountTray from '@/screens/formula/count/CountTray.vue'
import FormulaTotals from '@/screens/formula/lines/FormulaTotals.vue'
import GaugesTray from '@/screens/formula/dough/GaugesTray.vue'
import LoadTray from '@/screens/formula/shape/LoadTray.vue'
import MethodTray from '@/screens/formula/beside/MethodTray.vue'
import NotesTray from '@/screens/formula/dough/NotesTray.vue'
import PanTray from '@/screens/formula/pan/PanTray.vue'
import RevisionList from '@/screens/formula/revisions/RevisionList.vue'
import ShapeTray from '@/screens/formula/shape/ShapeTray.vue'
import StageTable from '@/screens/formula/lines/StageTable.vue'
import { useChanges } from '@/screens/formula/changes/useChanges'
import { useDesk, type Desk } from '@/screens/formula/desk/useDesk'
import { useReckoning } from '@/screens/formula/desk/useReckoning'
import { useRevision } from '@/screens/formula/revisions/useRevisions'
import WholeTable from '@/screens/formula/lines/WholeTable.vue'
import WorkingCard from '@/screens/formula/working/WorkingCard.vue'
import { workingOf } from '@/screens/formula/working/workings'
import { api, ask, Refused, type Change, type Formula } from '@/api/client'
import { takeOut as saveFile } from '@/api/file'
import { plainCopy } from '@/base/copy'
import ChoiceRow from '@/design/ChoiceRow.vue'
import KeptHere from '@/design/KeptHere.vue'
import KeysDialog from '@/design/KeysDialog.vue'
import OtherWindow from '@/design/OtherWindow.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import { when } from '@/base/format'
import { useKeys } from '@/base/keys'
import { useIngredients, useKnown, useUnits } from '@/base/kitchen'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'

const KEYS = [
  ['Enter', 'next line, or a new one below the last'],
  ['↑ ↓', 'the same column, one line up or down'],
  ['Alt ↑ ↓', 'move the line, over the edge into the next stage'],
  ['Alt Backspace', 'remove the line'],
  ['Alt Enter', 'new stage'],
  ['=', 'how was this number worked out?'],
  ['F', 'the whole formula, or as it is mixed'],
  ['D', 'the dough, or the count'],
  ['S', 'shape and oven, or the count'],
  ['C', 'side by side with a revision'],
  ['Ctrl S', 'save a revision'],
  ['Ctrl Z', 'undo; with Shift: do again'],
  ['W', 'weigh sheet'],
  ['?', 'these keys'],
] as const

const route = useRoute()
const router = useRouter()
const cache = useQueryClient()
const { units, error: unitsError } = useUnits()
const pantry = useIngredients()
const known = useKnown()

const routeId = computed(() => (route.params.id === 'new' ? null : Number(route.params.id)))
const desk = useDesk((id) => void router.replace({ params: { id }, query: route.query }))
watch(
  routeId,
  (id) => {
    if (!desk.loaded.value || id !== (desk.head.value?.id ?? null)) void desk.open(id)
  },
  { immediate: true },
)

onBeforeRouteLeave(() => desk.flush())

/* Reading a revision shows it in place of the desk, under the desk's count. */
const reading = computed(() => (route.query.revision ? Number(route.query.revision) : undefined))
const revision = useRevision(routeId, reading)
/** A revision is read, not changed. */
const locked = computed(() => reading.value !== undefined)
const view = computed<Desk | null>(() => {
  if (reading.value === undefined) return desk.desk.value
  const formula = revision.data.value?.formula
  return formula ? { formula: plainCopy(formula), count: desk.desk.value.count } : null
})
const shownDesk = computed(() => view.value ?? desk.desk.value)
const ready = computed(() => desk.loaded.value && view.value !== null)
/** Which target is looked at: its pan, its shape and its choices. */
const target = computed(() => {
  const asked = Number(route.query.target ?? 1) - 1
  return Number.isInteger(asked) && asked >= 0 && asked < shownDesk.value.count.targets.length ? asked : 0
})
const { whole, problem, stale } = useReckoning(shownDesk, known, target, ready)

let cameFrom: HTMLElement | null = null
const giveBackFocus = () => void nextTick(() => cameFrom?.focus())

/* What the screen shows of it is in the address: the formula as mixed or whole; beside it the count, the dough, or another revision. */
const VIEWS = [
  { value: 'mixed', label: 'As mixed' },
  { value: 'whole', label: 'Whole formula' },
] as const
const SIDES = [
  { value: 'count', label: 'Count' },
  { value: 'shape', label: 'Shape and oven' },
  { value: 'dough', label: 'Dough' },
] as const
const viewed = computed(() => (route.query.view === 'whole' ? 'whole' : 'mixed'))
const side = computed(() => SIDES.find((one) => one.value === route.query.side)?.value ?? 'count')
const lookAt = (wanted: number) => show({ target: wanted ? String(wanted + 1) : undefined })
const comparing = computed(() => {
  const found = /^(\d+)\.(\d+)$/.exec(String(route.query.compare ?? ''))
  return found ? { id: Number(found[1]), revision: Number(found[2]) } : null
})
const show = (query: Record<string, string | undefined>) => router.replace({ query: { ...route.query, ...query } })
const showView = (view: string) => show({ view: view === 'mixed' ? undefined : view })
const showSide = (wanted: string) => show({ side: wanted === 'count' ? undefined : wanted, compare: undefined })
function compare(other: { id: number; revision: number }): void {
  showsRevisions.value = false
  void show({ compare: `${other.id}.${other.revision}` })
}
const read = (revision: number | undefined) => show({ revision: revision === undefined ? undefined : String(revision) })
function compareLatest(): void {
  const head = desk.head.value
  if (comparing.value) void show({ compare: undefined })
  else if (head?.latest_number) compare({ id: head.id, revision: head.latest_number })
}

/* Changes that the core makes: at once, or looked at first. */
const changes = useChanges(desk, known)
const { refused, attempt } = useAttempt()
const apart = computed(() => known.value.practice.starter === 'apart')
const change = (wanted: Change, says?: string) => void changes.apply(wanted, says)
const look = (title: string, wanted: Change) => {
  if (locked.value) return
  cameFrom = document.activeElement as HTMLElement | null
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
async function goToLine(stage: number, line: number): Promise<void> {
  await showView('mixed')
  await nextTick()
  document.querySelector<HTMLElement>(`[data-cell="${stage}:${line}:percent"] input`)?.focus()
}
function setBand(gauge: string, band: { low: number; high: number } | null): void {
  desk.step()
  const { [gauge]: _, ...others } = desk.desk.value.formula.bands
  desk.desk.value.formula.bands = band ? { ...others, [gauge]: band } : others
}

const opened = computed(() => (route.query.working ? String(route.query.working) : null))
const working = computed(() =>
  opened.value && whole.value && units.value ? workingOf(opened.value, whole.value, shownDesk.value.formula, shownDesk.value.count, units.value) : null,
)
function openWorking(name: string): void {
  if (!opened.value) cameFrom = document.activeElement as HTMLElement | null
  void show({ working: name })
}
function closeWorking(): void {
  if (!opened.value) return
  void show({ working: undefined })
  giveBackFocus()
}

const styles = computed({
  get: () => desk.desk.value.formula.styles.join(', '),
  set: (text: string) => {
    const words = text.split(',').map((word) => word.trim().slice(0, 40)).filter(Boolean)
    desk.desk.value.formula.styles = [...new Set(words)].slice(0, 12)
  },
})

const keepingSays = computed(() => {
  const number = desk.head.value?.latest_number ?? 0
  if (desk.keeping.value === 'keeping') return 'keeping …'
  if (desk.keeping.value !== 'kept') return 'in this browser only'
  if (!desk.unsaved.value) return number ? `revision ${number}` : ''
  if (!desk.head.value) return 'not kept yet'
  return number ? `draft on revision ${number}, kept` : 'draft, kept'
})

/* Saving: a word or two on what was tried, then the revision. */
const asking = ref(false)
const note = ref('')
const saving = ref(false)
const saveProblem = shallowRef<Refused | null>(null)
const noteField = ref<HTMLInputElement>()

function askToSave(): void {
  if (locked.value) return
  saveProblem.value = null
  asking.value = true
}
async function saved(): Promise<void> {
  asking.value = false
  note.value = ''
  tell(`Saved as revision ${desk.head.value?.latest_number}.`)
  for (const queryKey of [['formulas'], ['pantry'], ['revisions']]) await cache.invalidateQueries({ queryKey })
}
async function save(): Promise<void> {
  saving.value = true
  saveProblem.value = null
  try {
    await desk.save(note.value.trim())
    await saved()
  } catch (caught) {
    if (!(caught instanceof Refused)) throw caught
    if (caught.isBehind || caught.isAway) {
      saveProblem.value = caught
    } else {
      asking.value = false
      problem.value = caught.problem
    }
  } finally {
    saving.value = false
  }
}
async function saveOnTop(): Promise<void> {
  await desk.keepMine()
  await save()
}
async function takeTheirs(): Promise<void> {
  asking.value = false
  await desk.takeTheirs()
}
async function asOwn(): Promise<void> {
  asking.value = false
  await attempt(async () => {
    await desk.keepBoth()
    await cache.invalidateQueries({ queryKey: ['formulas'] })
    tell(`${desk.head.value?.name} is a formula of its own now; the other window’s stays as it is.`)
  })
}
async function branch(): Promise<void> {
  if (!desk.head.value) return
  const state = await ask(api.POST('/api/formulas/{formula_id}/copy', { params: { path: { formula_id: desk.head.value.id }, query: { revision: reading.value } } }))
  await cache.invalidateQueries({ queryKey: ['formulas'] })
  await router.push({ name: 'formula', params: { id: state.head.id }, query: {} })
  tell(`${state.head.name} is a formula of its own now.`)
}
async function bringBack(): Promise<void> {
  if (!view.value || !desk.head.value) return
  const number = reading.value
  const formula = plainCopy(view.value.formula)
  await attempt(async () => {
    await desk.save(`Brought back revision ${number}`, formula)
    await router.replace({ query: {} })
    await saved()
  })
}

const showsRevisions = ref(false)
const showsKeys = ref(false)
const sheet = computed(() => ({ name: 'sheet', params: { id: desk.head.value?.id ?? 'new' }, query: reading.value ? { revision: reading.value } : {} }))
const ruler = computed(() => (canTakeOut.value && desk.head.value ? `/api/formulas/${desk.head.value.id}/ruler.pdf?target=${target.value}${reading.value ? `&revision=${reading.value}` : ''}` : null))
/** A link inside the menu could not be taken by key. */
const takeOut = (file: 'formula.json' | 'formula.csv' | 'recipe.jsonld' | 'count.ods') =>
  attempt(() => saveFile(`/api/formulas/${desk.head.value?.id}/${file}${reading.value ? `?revision=${reading.value}` : ''}`))
/** What goes out is made of what the records hold, which is not this text while it has not reached them. A revision is there for good. */
const canTakeOut = computed(() => desk.head.value !== null && (reading.value !== undefined || !['behind', 'away'].includes(desk.keeping.value)))
const whyNot = computed(() => (canTakeOut.value || !desk.head.value ? undefined : 'First this text must be in the records'))

useKeys({
  'mod+s': askToSave,
  'mod+z': () => desk.undo(),
  'mod+shift+z': () => desk.redo(),
  'mod+y': () => desk.redo(),
  w: () => canTakeOut.value && void router.push(sheet.value),
  '?': () => (showsKeys.value = true),
  f: () => showView(viewed.value === 'whole' ? 'mixed' : 'whole'),
  d: () => showSide(side.value === 'dough' ? 'count' : 'dough'),
  s: () => showSide(side.value === 'shape' ? 'count' : 'shape'),
  c: compareLatest,
  Escape: () => (changes.pending.value ? leaveChange() : closeWorking()),
})

/* What is wrong with the formula stands under it; what is wrong with the pins, under them. */
const issue = computed(() => problem.value?.errors?.[0])
const problemAtFormula = computed(() => (issue.value?.pointer.startsWith('/count') ? '' : (issue.value?.detail ?? problem.value?.detail)))
const isBlank = computed(() =>
  shownDesk.value.formula.stages.every((stage) => stage.lines.every((line) => !line.name && line.weight_g == null && line.percent == null)),
)
const canMakeUp = computed(() => issue.value?.code === 'flour_not_hundred' && !locked.value)
async function makeUpFlour(): Promise<void> {
  desk.step()
  desk.desk.value.formula = await ask(api.POST('/api/reckon/flour-made-up', { body: desk.desk.value.formula }))
}
</script>

<template>
  <main class="page formula">
    <div v-if="desk.error.value || unitsError" class="said stop" role="alert">
      <strong>{{ desk.error.value?.problem.title ?? 'The kitchen cannot be opened' }}</strong>
      {{ desk.error.value?.message ?? unitsError?.message }}
      <div class="row">
        <button type="button" class="button" @click="desk.open(routeId)">Try again</button>
        <RouterLink class="button" :to="{ name: 'formulas' }">All formulas</RouterLink>
      </div>
    </div>
    <p v-else-if="!desk.loaded.value || !units" class="quiet">Fetching the formula …</p>
    <template v-else>
      <div class="page-head">
        <h1 class="name">
          <input v-model="desk.desk.value.formula.name" maxlength="300" placeholder="Name of the formula" aria-label="Name of the formula" :disabled="locked" :class="{ wrong: problem?.errors?.some((e) => e.pointer === '/name') }" />
        </h1>
        <input v-model.lazy="styles" class="styles chip" placeholder="style words" aria-label="Style words, comma between" :disabled="locked" />
        <span class="chip" :class="{ draft: desk.unsaved.value }" role="status">{{ keepingSays }}</span>
        <span class="spacer" />
        <button type="button" class="button bare" :disabled="!desk.canUndo.value" title="Undo (Ctrl Z)" @click="desk.undo()">Undo</button>
        <button type="button" class="button bare" @click="showsRevisions = true">Revisions</button>
        <el-dropdown class="take-out" trigger="click" @visible-change="desk.flush()" :disabled="!canTakeOut">
          <button type="button" class="button bare" :disabled="!canTakeOut" :title="whyNot">Take out</button>
          <template #dropdown>
            <el-dropdown-menu>
              <el-dropdown-item @click="takeOut('formula.json')">Formula file (JSON)</el-dropdown-item>
              <el-dropdown-item @click="takeOut('recipe.jsonld')">Recipe for others (schema.org)</el-dropdown-item>
              <el-dropdown-item @click="takeOut('count.ods')">Spreadsheet that reckons (ODS)</el-dropdown-item>
              <el-dropdown-item @click="takeOut('formula.csv')">Formula as a table (CSV)</el-dropdown-item>
            </el-dropdown-menu>
          </template>
        </el-dropdown>
        <RouterLink v-if="canTakeOut" class="button" :to="sheet">Weigh sheet</RouterLink>
        <button v-else-if="desk.head.value" type="button" class="button" disabled :title="whyNot">Weigh sheet</button>
        <button type="button" class="button go" :disabled="reading !== undefined || !desk.unsaved.value" @click="askToSave">Save revision</button>
      </div>

      <div class="tellings">
        <KeptHere v-if="desk.keeping.value === 'away'" :why="desk.why.value" />
        <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
        <OtherWindow v-if="desk.keeping.value === 'behind' && !asking" what="formula" v-bind="desk.texts.value" @mine="desk.keepMine()" @theirs="desk.takeTheirs()" @both="asOwn" />
        <p v-if="desk.broughtBack.value && desk.keeping.value !== 'behind'" class="said">Text that had not reached the records was brought back from this browser.</p>
        <div v-if="reading !== undefined" class="said now">
          <strong>Reading revision {{ reading }}<template v-if="revision.data.value">: {{ revision.data.value.head.note || 'no note' }}, {{ when(revision.data.value.head.saved_at) }}</template></strong>
          <span v-if="revision.error.value">{{ revision.error.value.message }}</span>
          <div class="row">
            <button v-if="view" type="button" class="button" @click="bringBack">Bring it back as a new revision</button>
            <button v-if="view" type="button" class="button" @click="branch">Branch a formula from it</button>
            <button v-if="view && desk.head.value && !comparing" type="button" class="button" @click="compare({ id: desk.head.value.id, revision: Math.max(1, reading - 1) })">Side by side with another</button>
            <RouterLink class="button" :to="{ query: {} }">Back to what you are working on</RouterLink>
          </div>
        </div>
      </div>

      <div class="trays" :class="{ stale }">
        <section class="tray" aria-labelledby="formula-head">
          <div class="tray-head">
            <h2 id="formula-head">Formula</h2>
            <ChoiceRow class="views" label="How the formula is shown" :options="VIEWS" :value="viewed" @choose="showView" />
          </div>
          <fieldset class="plain" :disabled="locked">
          <WholeTable v-if="viewed === 'whole' && whole" :formula="shownDesk.formula" :whole="whole" :units="units" @apply="change" />
          <StageTable v-else :formula="shownDesk.formula" :whole="whole" :problem="problem" :pantry="pantry" :units="units" :apart="apart" @working="openWorking" @step="desk.step" @undo="desk.undo()" @apply="change" @look="look" />
          </fieldset>
          <FormulaTotals v-if="whole" :whole="whole" :units="units" @working="openWorking" />
          <p v-if="isBlank" class="said">Start with the flour: a name, and its weight or 100 %.</p>
          <div v-else-if="problemAtFormula" class="said stop" role="alert">
            {{ problemAtFormula }}
            <div v-if="canMakeUp" class="row"><button type="button" class="button" @click="makeUpFlour">Let the largest take the rest</button></div>
          </div>
          <p v-for="(n, i) in whole?.formula.notes" :key="i" class="said now">{{ n.text }}</p>
        </section>
        <CompareTray v-if="comparing" class="beside-it" :formula="shownDesk.formula" :reading="reading" :other="comparing" :id="desk.head.value?.id ?? null" :known="known" :units="units" @choose="compare" @read="read" @apply="change" @bring="lay" @close="show({ compare: undefined })" />
        <template v-else-if="side === 'dough'">
          <GaugesTray :formula="shownDesk.formula" :whole="whole" :units="units" :locked="locked" @working="openWorking" @look="look">
            <template #head><ChoiceRow class="sides" label="What stands beside the formula" :options="SIDES" :value="side" @choose="showSide" /></template>
          </GaugesTray>
          <div class="stack">
            <NotesTray :formula="shownDesk.formula" :remarks="whole?.remarks ?? []" :locked="locked" @step="desk.step" @go="goToLine" />
            <ContentsTray :whole="whole" :units="units" :locked="locked" @look="look" />
          </div>
        </template>
        <template v-else-if="side === 'shape'">
          <ShapeTray :formula="shownDesk.formula" :count="shownDesk.count" :whole="whole" :units="units" :target="target" :locked="locked" :ruler="ruler" @working="openWorking" @step="desk.step">
            <template #head><ChoiceRow class="sides" label="What stands beside the formula" :options="SIDES" :value="side" @choose="showSide" /></template>
          </ShapeTray>
          <LoadTray :formula="shownDesk.formula" :whole="whole" :units="units" :locked="locked" @working="openWorking" />
        </template>
        <template v-else>
          <CountTray :formula="shownDesk.formula" :count="shownDesk.count" :whole="whole" :problem="problem" :units="units" :target="target" :locked="locked" @working="openWorking" @step="desk.step" @look="lookAt">
            <template #head><ChoiceRow class="sides" label="What stands beside the formula" :options="SIDES" :value="side" @choose="showSide" /></template>
          </CountTray>
          <fieldset class="plain through" :disabled="locked"><PanTray :formula="shownDesk.formula" :count="shownDesk.count" :whole="whole" :problem="problem" :units="units" :target="target" :locked="locked" @working="openWorking" @step="desk.step" /></fieldset>
        </template>
        <fieldset class="plain through" :disabled="locked">
        <BesideTray :formula="shownDesk.formula" :whole="whole" :units="units" @step="desk.step" @undo="desk.undo()" />
        <MethodTray :formula="shownDesk.formula" @step="desk.step" @undo="desk.undo()" />
        </fieldset>
      </div>
      <WorkingCard v-if="working" :working="working" :band="working.gauge ? whole?.character.gauges[working.gauge] : undefined" :locked="locked" :units="units" @open="openWorking" @close="closeWorking" @band="setBand" />
      <ChangeCard v-if="changes.pending.value || changes.refused.value" :pending="changes.pending.value" :refused="changes.refused.value" :units="units" @take="takeChange" @leave="leaveChange" @understood="changes.refused.value = null" />

      <el-dialog v-model="asking" :title="saveProblem?.isBehind ? 'Not saved yet' : 'Save a revision'" :width="saveProblem?.isBehind ? 'min(820px, 94vw)' : 'min(520px, 94vw)'" @opened="noteField?.focus()">
        <form @submit.prevent="save()">
          <label class="label">What did you try? A word or two, if you like.
            <input ref="noteField" v-model="note" class="field" maxlength="300" />
          </label>
          <OtherWindow v-if="saveProblem?.isBehind" what="formula" v-bind="desk.texts.value" mine="Save mine on top" @mine="saveOnTop" @theirs="takeTheirs" @both="asOwn" />
          <div v-else-if="saveProblem" class="said stop" role="alert"><strong>{{ saveProblem.problem.title }}</strong>{{ saveProblem.message }}</div>
          <div class="dialog-foot">
            <button type="button" class="button" @click="asking = false">Not now</button>
            <button v-if="!saveProblem?.isBehind" type="submit" class="button go" :disabled="saving">Save</button>
          </div>
        </form>
      </el-dialog>
      <el-dialog v-model="showsRevisions" title="Revisions" width="min(560px, 94vw)">
        <RevisionList v-if="desk.head.value" :id="desk.head.value.id" :latest="desk.head.value.latest_number" :reading="reading" @click="showsRevisions = false" @compare="compare" />
        <p v-else class="quiet">Nothing saved yet.</p>
      </el-dialog>
      <KeysDialog v-model="showsKeys" :keys="KEYS" />
    </template>
  </main>
</template>

<style scoped>
.name { flex: 0 1 auto; min-width: 0; max-width: 100% }
.name input { field-sizing: content; min-width: 130px; max-width: min(460px, 88vw); border: 1.5px solid transparent; background: none; border-radius: 10px; padding: 2px 6px; margin-left: -8px; text-overflow: ellipsis; font-weight: 700 }
.name input:hover, .name input:focus { border-color: var(--rim-soft) }
.name input.wrong { border-color: var(--stop); background: var(--stop-soft) }
.styles { background: none; field-sizing: content; min-width: 90px; max-width: 250px; min-height: 30px; text-overflow: ellipsis }
.tellings { display: grid; gap: 8px }
.tellings > * { margin-bottom: 10px }
.through { display: contents }
.trays { display: grid; gap: 14px; grid-template-columns: minmax(440px, 1.32fr) minmax(320px, 1fr) minmax(330px, 1.08fr); align-items: start }
.trays.stale :deep(.worked) { transition: opacity .15s .25s; opacity: .55 }
.trays .said { margin-top: 8px }
.page-head .button { padding-inline: 12px }
.page-head .bare { padding-inline: 7px }
.views { flex: 0 1 260px }
.sides { flex: 1 }
.sides :deep(button) { white-space: nowrap; font-size: .94rem }
.views :deep(button), .sides :deep(button) { min-height: 34px }
.stack { display: grid; gap: 14px; align-content: start }
.beside-it { grid-column: span 2 }
.take-out { font-size: 1rem }
.dialog-foot { display: flex; justify-content: end; gap: 10px; margin-top: 16px }
.said { margin-top: 10px }
@media (max-width: 1180px) {
  .trays { grid-template-columns: repeat(2, minmax(0, 1fr)) }
  .trays > :first-child, .beside-it { grid-column: 1 / -1 }
}
@media (max-width: 760px) { .trays { grid-template-columns: minmax(0, 1fr) } .beside-it { grid-column: auto } .views :deep(button), .sides :deep(button) { min-height: 44px } .page-head { gap: 4px 8px; margin-bottom: 8px } .spacer { display: none } .page-head .bare:first-of-type { margin-left: -7px } }
</style>
