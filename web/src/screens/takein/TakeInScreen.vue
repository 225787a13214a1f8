<script setup lang="ts">
/** A recipe as written beside what it was taken to be; what the dough may be; and what is worth asking. */
import { useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router'
import DoughFigures from '@/screens/takein/asked/DoughFigures.vue'
import EarlierTakings from './EarlierTakings.vue'
import QuestionCard from '@/screens/takein/asked/QuestionCard.vue'
import RecipeText from '@/screens/takein/recipe/RecipeText.vue'
import TableColumns from '@/screens/takein/recipe/TableColumns.vue'
import TakenThing from '@/screens/takein/things/TakenThing.vue'
import { rowsOf, settle, unsettle, useTaking, type Row, type Taking } from '@/screens/takein/recipe/useTaking'
import { WHERE } from '@/screens/takein/things/where'
import WeighCup from '@/screens/takein/things/WeighCup.vue'
import { api, ask, Refused, type Asked, type FormulaState, type Habits, type Settled, type Table, type TakenLine } from '@/api/client'
import ChoiceRow from '@/design/ChoiceRow.vue'
import KeptHere from '@/design/KeptHere.vue'
import KeysDialog from '@/design/KeysDialog.vue'
import OtherWindow from '@/design/OtherWindow.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import { withUnit } from '@/base/format'
import { useKeys } from '@/base/keys'
import { useIngredients, useUnits } from '@/base/kitchen'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'

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
const groups = computed(() => {
  const heads = (taken.value?.lines ?? []).map((line, number) => ({ line, number })).filter(({ line }) => line.kind === 'heading' && line.where)
  const found: { name: string; rows: Row[]; head: { line: TakenLine; number: number } | undefined }[] = []
  for (const row of rows.value) {
    if (found.at(-1)?.name !== row.line.group) found.push({ name: row.line.group, rows: [], head: heads.find(({ line }) => line.group === row.line.group) })
    found.at(-1)?.rows.push(row)
  }
  return found
})
const percents = computed(() => new Map((taken.value?.percents ?? []).map((p) => [`${p.line}:${p.part}`, p])))
const KINDS = computed(() => [
  { value: 'g' as const, label: units.value?.weight ?? 'g' },
  { value: 'percent' as const, label: '% of flour' },
])
const kind = ref<'g' | 'percent'>('g')
const steps = computed(() => (taken.value?.lines ?? []).map((line, number) => ({ line, number })).filter(({ line }) => line.kind === 'step' && line.text.trim()))
/** Pairs that are not the same, on whatever line. */
const disagreements = computed(() => (taken.value?.lines ?? []).flatMap((line, number) => line.disagrees.map((said) => ({ said, number }))))
const understood = computed(() => rows.value.some((row) => row.thing.known))
const title = computed(() => taken.value?.title || (isEmpty.value ? 'Take in a recipe' : 'Recipe without a title'))
const makes = computed(() => {
  const made = taken.value?.makes
  return [made?.words, made?.people && !made.pieces ? `${made.people} people: no number of pieces, so none is pinned` : ''].filter(Boolean).join(' · ')
})

/* The line looked at, in the text or among what it was taken to be. */
const at = ref(-1)
const openKey = ref('')
const recipe = ref<InstanceType<typeof RecipeText>>()
const lookedLine = computed(() => taken.value?.lines[at.value])
const KIND_WORDS = { blank: '', title: 'the title', yield: 'what it makes', heading: 'a heading', ingredient: 'an ingredient', step: 'a step', note: 'a note' } as const
function look(line: number): void {
  at.value = line
  void nextTick(() => document.querySelector('.lines .looked')?.scrollIntoView({ block: 'nearest' }))
}
function show(line: number): void {
  look(line)
  recipe.value?.show(line)
}
function toggle(row: Row): void {
  openKey.value = openKey.value === row.key ? '' : row.key
  at.value = row.number
  recipe.value?.show(row.number)
}
function settleRow(row: Row, what: Partial<Settled>): void {
  taking.step()
  settle(taking.taking.value, { line: row.line, part: row.thing.part }, what)
}
/** Where everything under a heading goes. */
function settleGroup(line: TakenLine, where: string): void {
  taking.step()
  settle(taking.taking.value, { line, part: 0 }, { where: where as Settled['where'] })
}
function unsettleRow(row: Row): void {
  taking.step()
  unsettle(taking.taking.value, { line: row.line, part: row.thing.part })
}
function settleKind(kind: string): void {
  if (!lookedLine.value) return
  taking.step()
  settle(taking.taking.value, { line: lookedLine.value, part: 0 }, { kind: kind as Settled['kind'] })
}

/* Questions keep their places while they are answered, so that nothing moves away under a finger. */
const places = ref<string[]>([])
const questions = computed(() => {
  const asked = taken.value?.questions ?? []
  return [...asked].sort((a, b) => places.value.indexOf(a.key) - places.value.indexOf(b.key))
})
watch(
  () => taken.value?.questions.map((q) => q.key) ?? [],
  (keys) => {
    places.value = [...places.value.filter((key) => keys.includes(key)), ...keys.filter((key) => !places.value.includes(key))]
  },
  { immediate: true },
)
const openQuestions = computed(() => questions.value.filter((q) => !q.answer).length)
const stillOpen = computed(() => {
  const lines = (taken.value?.lines ?? []).filter((line) => line.things.some((thing) => thing.asks)).length
  const heads = (taken.value?.lines ?? []).filter((line) => line.kind === 'heading' && line.asks).length
  const said = [heads ? `${heads} ${heads === 1 ? 'heading' : 'headings'} to place` : '', lines ? `${lines} ${lines === 1 ? 'line' : 'lines'} to settle` : '', openQuestions.value ? `${openQuestions.value} ${openQuestions.value === 1 ? 'question' : 'questions'} open: until answered, the range holds every answer` : '']
  if (disagreements.value.length) said.push(`${disagreements.value.length} given twice and not the same`)
  return said.filter(Boolean).join(', ')
})
/** The list keeps the questions in sight below it; it grows where a line is open, where nothing is left to ask, and for a caution. */
const isTall = computed(() => Boolean(openKey.value) || !stillOpen.value || rows.value.some((row) => row.thing.caution))
async function answer(asked: Asked, option: string | null): Promise<void> {
  const before = kitchen.value?.settings.habits
  if (!before) return
  const remember = async (habits: Habits) => {
    cache.setQueryData(['kitchen'], await ask(api.PUT('/api/kitchen/habits', { body: habits })))
    await taking.reading.again()
  }
  await attempt(async () => {
    await remember({ ...before, [asked.key]: option })
    tell(option ? 'Remembered for this kitchen.' : 'Left open again.', () => remember(before))
  })
}

/* Whose cups this one recipe uses: as the baker says, as its own words do, or the kitchen's. */
const systems = computed<Record<string, string>>(() => units.value?.reference.questions.system?.options ?? {})
const systemSays = computed(() => {
  const own = kitchen.value?.settings.habits.system
  if (taken.value?.hint) return `${systems.value[taken.value.hint]}, as its own words say`
  return own ? `${systems.value[own]}, as this kitchen’s` : 'not said'
})
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

/* Files. */
const file = ref<HTMLInputElement>()
const { refused, attempt } = useAttempt()
const table = shallowRef<{ table: Table; text: string; title: string } | null>(null)
const mapping = ref(false)
const undoFormula = (state: FormulaState) => async () => {
  await ask(api.DELETE('/api/formulas/{formula_id}', { params: { path: { formula_id: state.head.id }, query: { version: state.version } } }))
  await refresh()
}
/** What the server takes; it would break off in the middle of a larger one. */
const LARGEST_FILE = 4_000_000
async function takeIn(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  if (!chosen) return
  await attempt(async () => {
    if (chosen.size > LARGEST_FILE) throw new Refused({ type: '', title: 'Too large', status: 413, detail: `${chosen.name} holds ${Math.round(chosen.size / 1e6)} MB, more than a recipe. Is it the right file?`, errors: [] })
    const read = await ask(api.POST('/api/take-in/file', { params: { query: { name: chosen.name.slice(0, 300) } }, body: (await chosen.arrayBuffer()) as never, bodySerializer: (body: unknown) => body as ArrayBuffer }))
    if (read.formula_id != null) {
      const state = await ask(api.GET('/api/formulas/{formula_id}', { params: { path: { formula_id: read.formula_id } } }))
      tell(`Took in ${state.head.name}.`, undoFormula(state))
      await refresh()
      await router.push({ name: 'formula', params: { id: read.formula_id } })
    } else if (read.table) {
      table.value = { table: read.table, text: read.text, title: chosen.name.replace(/\.\w+$/, '') }
      mapping.value = true
    } else {
      await begin(read.text)
    }
  })
}
/** A recipe of its own from a text; what lies here stays where it is. */
async function begin(fromText: string): Promise<void> {
  await taking.flush()
  const made = await ask(api.POST('/api/takings', { body: { text: fromText, settled: [] } }))
  await refresh()
  await router.push({ name: 'take-in', params: { id: made.head.id } })
}
const refresh = () => Promise.all([['takings'], ['formulas']].map((queryKey) => cache.invalidateQueries({ queryKey })))

/* The formula. */
const making = ref(false)
async function make(): Promise<void> {
  if (isEmpty.value || making.value) return
  making.value = true
  await attempt(async () => {
    await taking.keepNow()
    const head = taking.state.value?.head
    if (!head || taking.keeping.value !== 'kept') return // what keeps it from the records is told already
    const { id, version } = head
    const state = await ask(api.POST('/api/takings/{taking_id}/formula', { params: { path: { taking_id: id }, query: { version } } }))
    tell(`Made the formula ${state.head.name || 'without a name'}.`, async () => {
      await undoFormula(state)()
      await router.push({ name: 'take-in', params: { id } })
    })
    await refresh()
    await router.push({ name: 'formula', params: { id: state.head.id } })
  })
  making.value = false
}

const keepingSays = computed(() => (isEmpty.value ? '' : taking.keeping.value === 'keeping' ? 'keeping …' : taking.keeping.value !== 'kept' ? 'in this browser only' : taking.state.value ? 'kept' : 'not kept yet'))
const another = () => void taking.flush().then(() => router.push({ name: 'take-in', params: { id: '' } }))
const showsKeys = ref(false)
useKeys({
  'mod+Enter': () => void make(),
  'mod+z': () => (document.activeElement instanceof HTMLTextAreaElement ? document.execCommand('undo') : taking.undo()),
  n: another,
  '?': () => (showsKeys.value = true),
  Escape: () => (openKey.value = ''),
})
</script>

<template>
  <main class="page take-in">
    <div v-if="taking.error.value || unitsError" class="said stop" role="alert">
      <strong>{{ taking.error.value?.problem.title ?? 'The kitchen cannot be opened' }}</strong>{{ taking.error.value?.message ?? unitsError?.message }}
      <div class="row">
        <button type="button" class="button" @click="taking.open(routeId)">Try again</button>
        <RouterLink class="button" :to="{ name: 'take-in', params: { id: '' } }">Another recipe</RouterLink>
      </div>
    </div>
    <p v-else-if="!taking.loaded.value || !units" class="quiet">Fetching the recipe …</p>
    <template v-else>
      <div class="page-head">
        <h1>{{ title }}</h1>
        <span v-if="makes" class="quiet">{{ makes }}</span>
        <span v-if="keepingSays" class="chip" role="status">{{ keepingSays }}</span>
        <span class="spacer" />
        <button v-if="!isEmpty" type="button" class="button bare" :disabled="!taking.canUndo.value" @click="taking.undo()">Undo</button>
        <button v-if="!isEmpty" type="button" class="button bare" @click="another">Another recipe</button>
        <button type="button" class="button" @click="file?.click()">From a file</button>
        <input ref="file" type="file" accept=".json,.jsonld,.html,.htm,.csv,.tsv,.txt,.md" class="visually-hidden" tabindex="-1" aria-label="Recipe file to take in" @change="takeIn" />
        <RouterLink v-if="taking.state.value?.head.formula_id" class="button" :to="{ name: 'formula', params: { id: taking.state.value.head.formula_id } }">Its formula</RouterLink>
        <button type="button" class="button go" :disabled="isEmpty || !understood || making" @click="make">{{ taking.state.value?.head.formula_id ? 'Make it again' : 'Make the formula' }}</button>
      </div>

      <div class="tellings">
        <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
        <KeptHere v-if="taking.keeping.value === 'away'" :why="taking.why.value" />
        <OtherWindow v-if="taking.keeping.value === 'behind'" what="recipe" v-bind="taking.texts.value" @mine="taking.keepMine()" @theirs="taking.takeTheirs()" @both="attempt(taking.keepBoth)" />
        <p v-if="taking.broughtBack.value && taking.keeping.value !== 'behind'" class="said">Text that had not reached the records was brought back from this browser.</p>
        <p v-if="taking.reading.problem.value && taking.keeping.value !== 'away' && !isEmpty" class="said stop" role="alert">It cannot be read just now. {{ taking.reading.problem.value.errors?.[0]?.detail ?? taking.reading.problem.value.detail }}</p>
      </div>

      <div class="trays" :class="{ empty: isEmpty }">
        <section class="tray written" aria-labelledby="written-head">
          <div class="tray-head"><h2 id="written-head">As written</h2><span class="quiet">kept just as it is</span></div>
          <RecipeText ref="recipe" v-model="text" :lines="taken?.lines ?? []" :at="at" @look="look" />
          <label v-if="lookedLine && lookedLine.kind !== 'blank'" class="line-kind quiet">Line {{ at + 1 }} is taken as
            <select class="field" :value="lookedLine.kind" @change="settleKind(($event.target as HTMLSelectElement).value)">
              <option v-if="['title', 'yield'].includes(lookedLine.kind)" :value="lookedLine.kind">{{ KIND_WORDS[lookedLine.kind] }}</option>
              <option v-for="kind in ['ingredient', 'step', 'heading', 'note'] as const" :key="kind" :value="kind">{{ KIND_WORDS[kind] }}</option>
            </select>
          </label>
        </section>

        <EarlierTakings v-if="isEmpty" />
        <section v-else class="tray taken" aria-labelledby="taken-head" :class="{ stale: taking.reading.stale.value, tall: isTall }">
          <div class="tray-head">
            <h2 id="taken-head">Taken to be</h2>
            <span v-if="taken?.flour" class="quiet">{{ withUnit(taken.flour.usual_g, 'g', units, 3) }} flour · low · usual · high in</span>
            <ChoiceRow v-if="rows.length" class="kinds" label="Shown in" :options="KINDS" :value="kind" @choose="kind = $event" />
          </div>
          <p v-if="!taken" class="quiet">Reading …</p>
          <p v-else-if="!rows.length" class="said now"><strong>Nothing was understood as an ingredient.</strong>Write one a line, the amount first: “4 cups bread flour”, “320 g water”, “2 tsp salt”. Or put the caret on a line and say below the text what it is.</p>
          <div v-else class="lines">
            <template v-for="(group, g) in groups" :key="g">
              <h3 v-if="group.name">{{ group.name }}</h3>
              <div v-if="group.head" class="group-ask" :class="{ open: group.head.line.asks, looked: group.head.number === at }">
                <p v-if="group.head.line.asks">{{ group.head.line.asks }}</p>
                <label class="quiet">All of it goes
                  <select class="field" :value="group.head.line.where" :aria-label="`Where all under ${group.name} goes`" @change="settleGroup(group.head.line, ($event.target as HTMLSelectElement).value)">
                    <option v-for="where in WHERE" :key="where.value" :value="where.value">{{ where.label }}</option>
                  </select>
                </label>
                <button v-if="group.head.line.asks" type="button" class="button right" @click="settleGroup(group.head.line, group.head.line.where ?? 'dough')">That is right</button>
              </div>
              <ul>
                <TakenThing
                  v-for="row in group.rows"
                  :key="row.key"
                  :row="row"
                  :open="openKey === row.key"
                  :looked="row.number === at"
                  :percent="percents.get(row.key)"
                  :kind="kind"
                  :pantry="pantry"
                  :units="units"
                  @toggle="toggle(row)"
                  @settle="settleRow(row, $event)"
                  @unsettle="unsettleRow(row)"
                  @weigh="weigh(row)"
                />
              </ul>
            </template>
            <details v-if="steps.length" class="method">
              <summary>Method: {{ steps.length }} {{ steps.length === 1 ? 'step' : 'steps' }}, kept as the draft of its steps</summary>
              <ol><li v-for="{ line, number } in steps" :key="number">{{ line.text.trim() }} <span v-for="fact in line.facts" :key="fact.text" class="chip">{{ fact.text }}</span></li></ol>
            </details>
          </div>
        </section>
      </div>

      <div v-if="!isEmpty && rows.length" class="below">
        <DoughFigures :figures="taken?.figures ?? []" />
        <div class="asking">
          <p class="said" :class="stillOpen ? 'now' : 'ok'" role="status"><span>{{ stillOpen ? `${stillOpen}.` : 'All is settled. What range is left is in the measuring itself.' }}</span>
            <button v-if="taken?.open_lines.length" type="button" class="button" @click="show(taken.open_lines[0] ?? 0)">Go to what moves it most</button>
            <button v-if="flourRow" type="button" class="button" @click="weigh(flourRow)">Weigh my cup</button></p>
          <p v-for="doubt in taken?.doubts ?? []" :key="doubt" class="said now">{{ doubt }}</p>
          <p v-for="{ said, number } in disagreements" :key="said + number" class="said now">{{ said }} <button type="button" class="button bare" @click="show(number)">line {{ number + 1 }}</button></p>
          <div class="cards"><QuestionCard v-for="asked in questions" :key="asked.key" :asked="asked" @answer="answer(asked, $event)" /></div>
          <label v-if="taken?.measured" class="line-kind quiet">Cups and spoons of this recipe are
            <select class="field" :value="taking.taking.value.system ?? ''" @change="setSystem(($event.target as HTMLSelectElement).value)">
              <option value="">{{ systemSays }}</option>
              <option v-for="(label, system) in systems" :key="system" :value="system">{{ label }}</option>
            </select>
          </label>
        </div>
      </div>

      <WeighCup v-model="weighing" :start="toWeigh" :pantry="pantry" :units="units" @weighed="taking.reading.again()" />
      <TableColumns v-if="table" v-model="mapping" :table="table.table" :text="table.text" :title="table.title" @read="begin" />
      <KeysDialog v-model="showsKeys" :keys="KEYS" />
    </template>
  </main>
</template>

<style scoped>
.page-head h1 { overflow-wrap: anywhere }
.tellings { display: grid; gap: 8px }
.tellings > * { margin-bottom: 10px }
.trays { display: grid; gap: 14px; grid-template-columns: minmax(280px, 372px) minmax(0, 1fr) }
.trays.empty { grid-template-columns: minmax(0, 1.2fr) minmax(320px, 1fr) }
.written { display: flex; flex-direction: column; height: 396px }
.empty .written { height: 560px }
.taken { height: 396px; display: flex; flex-direction: column }
.taken.tall { height: auto; max-height: 680px; min-height: 396px }
.tray-head .quiet { margin-left: auto }
.kinds { flex: 0 0 auto }
.kinds :deep(button) { flex: 0 0 auto; min-height: 34px; padding: 0 12px }
.lines { overflow: auto; min-height: 0; margin: 0 -14px; padding: 0 14px }
.stale .lines { transition: opacity .15s .4s; opacity: .6 }
.group-ask { display: flex; flex-wrap: wrap; align-items: center; gap: 8px; padding: 4px 0; font-size: .92rem }
.group-ask.looked { background: var(--crust-soft) }
.group-ask.open { color: var(--crust) }
.group-ask p { flex: 1 1 240px; margin: 0 }
.group-ask .field { min-height: 34px }
.right { min-height: 34px; padding: 0 12px }
h3 { font: 700 .95rem var(--body); color: var(--rim); border-bottom: 2px solid var(--rim-soft); padding: 7px 0 3px }
ul { list-style: none; margin: 0; padding: 0 }
.method { margin-top: 8px; font-size: .92rem }
.method summary { cursor: pointer; min-height: 34px; color: var(--ink-2) }
.method li { margin-bottom: 6px }
.line-kind { display: flex; flex-wrap: wrap; align-items: center; gap: 8px; padding-top: 6px }
.line-kind .field { min-height: 34px }
.below { display: grid; gap: 14px; grid-template-columns: minmax(280px, 372px) minmax(0, 1fr); margin-top: 14px; align-items: start }
.asking { display: grid; gap: 10px }
.asking .said { display: flex; flex-wrap: wrap; align-items: center; gap: 12px; justify-content: space-between; min-height: 48px; padding-block: 4px }
.asking .said > span { flex: 1 1 240px }
.cards { display: grid; gap: 14px; grid-template-columns: repeat(auto-fill, minmax(min(272px, 100%), 1fr)) }
@media (max-width: 860px) {
  .trays, .trays.empty, .below { grid-template-columns: minmax(0, 1fr) }
  .written, .empty .written { height: 300px }
  .taken { height: auto }
}
</style>
