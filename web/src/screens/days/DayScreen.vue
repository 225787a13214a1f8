<script setup lang="ts">
/** A baking day: what is to be ready, the timetable as a drawing, what it weighs; pins in time, reliefs, the running day. */
import { useLocalStorage, useNow } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router'
import DayList from './DayList.vue'
import FigureStrip from './FigureStrip.vue'
import OfferList from './OfferList.vue'
import PeopleTray from './PeopleTray.vue'
import ProductTray from './ProductTray.vue'
import RunningBar from './RunningBar.vue'
import { useDay } from './useDay'
import { usePins } from './usePins'
import { usePlan } from './usePlan'
import WhyCard from './WhyCard.vue'
import type { Offer, Timetable } from '@/api/client'
import { dateText, nowOf } from '@/base/dayTimes'
import { useKeys } from '@/base/keys'
import { useKnown, useUnits } from '@/base/kitchen'
import { tell } from '@/base/notice'
import { usePhone } from '@/base/phone'
import ChoiceRow from '@/design/ChoiceRow.vue'
import KeptHere from '@/design/KeptHere.vue'
import KeysDialog from '@/design/KeysDialog.vue'
import LinkButton from '@/design/LinkButton.vue'
import OtherWindow from '@/design/OtherWindow.vue'
import Said from '@/design/Said.vue'
import DayChart from '@/drawings/DayChart.vue'

const KEYS = [
  ['Tab', 'go from thing to thing in the drawing'],
  ['← →', 'pin it 5 min earlier, later'],
  ['Enter', 'open it: why it is then'],
  ['L', 'by product, by lane, or as a list'],
  ['W', 'wall sheet'],
  ['Ctrl Z', 'undo; with Shift: do again'],
  ['Esc', 'close what is open'],
  ['?', 'these keys'],
] as const
const MODES = [{ value: 'product', label: 'By product' }, { value: 'lane', label: 'By lane' }, { value: 'list', label: 'As a list' }] as const
type Mode = (typeof MODES)[number]['value']

const route = useRoute()
const router = useRouter()
const { units, error: unitsError } = useUnits()
const known = useKnown()
const id = computed(() => (route.params.id === 'new' ? null : Number(route.params.id)))
const kept = useDay((own) => void router.replace({ params: { id: own }, query: route.query }))
const day = kept.day
watch(id, (now) => (!kept.loaded.value || now !== (kept.state.value?.head.id ?? null)) && void kept.open(now), { immediate: true })
onBeforeRouteLeave(() => kept.flush())

const canPlan = computed(() => kept.loaded.value && day.value.products.length > 0)
const plan = usePlan(day, canPlan)
const timetable = computed(() => (canPlan.value ? plan.timetable.value : null))
const troubles = computed(() => Object.fromEntries((plan.progress.value?.troubles ?? []).map((one) => [one.product, one.says])))
const runs = computed(() => day.value.now_min != null)
/** The timetable that was last taken in this window. */
const taken = shallowRef<Timetable | null>(null)
function take(): void {
  if (!timetable.value) return
  taken.value = timetable.value
  const { starts } = timetable.value
  if (JSON.stringify(day.value.told) !== JSON.stringify(starts)) void kept.quietly('told', starts)
}
/** Until the day runs, the best that was found is what is gone by. */
watch([timetable, plan.looking], () => timetable.value && !plan.looking.value && !plan.stale.value && !runs.value && take())

const step = () => kept.step()
const pins = usePins(day, timetable, step)
const open = ref(-1)
const pick = (block: number) => (open.value = open.value === block ? -1 : block)
watch(timetable, (now) => now && open.value >= 0 && !now.doings.some((one) => one.block === open.value) && (open.value = -1))
const phone = usePhone()
const chosen = useLocalStorage<Mode>('pancount.day.mode', 'product')
const mode = computed<Mode>(() => (phone.value ? 'list' : chosen.value))
const clock = useNow({ interval: 30_000 })
const now = computed(() => (clock.value, day.value.now_min ?? nowOf(day.value.date)))
const mayRun = computed(() => nowOf(day.value.date))

function takeOffer(offer: Offer): void {
  step()
  Object.assign(day.value, offer.day, { name: day.value.name, told: day.value.told })
  tell(`${offer.wish}: taken.`, () => kept.undo())
}
function run(at: number | null): void {
  step()
  if (day.value.now_min == null) take()
  day.value.now_min = at === null ? null : Math.round(at)
}
function stopRunning(): void {
  step()
  day.value.now_min = null
  for (const product of day.value.products) {
    product.marks = []
    product.not_yet = []
  }
}
const needsRelief = computed(() => Boolean(timetable.value?.products.some((one) => one.late_min >= 1 || !one.cleared)))
const offers = computed(() => plan.progress.value ?? null)
const says = computed(() => ({ kept: 'kept', keeping: 'keeping …', away: 'in this browser only', behind: 'changed elsewhere' })[kept.keeping.value])
const wall = computed(() => ({ name: 'wall', params: { id: id.value ?? 0 } }))
const shows = ref(false)
const setup = ref(false)
useKeys({
  'mod+z': () => void kept.undo(),
  'mod+shift+z': () => void kept.redo(),
  'mod+y': () => void kept.redo(),
  l: () => (chosen.value = MODES[(MODES.findIndex((one) => one.value === chosen.value) + 1) % MODES.length]?.value ?? 'product'),
  w: () => id.value !== null && void router.push(wall.value),
  '?': () => (shows.value = true),
  Escape: () => (open.value = -1),
})
</script>

<template>
  <main class="page day-page">
    <Said v-if="kept.error.value || unitsError" tone="stop"><strong>The day cannot be shown</strong>{{ kept.error.value?.message ?? unitsError?.message }}<div class="row"><el-button @click="kept.open(id)">Try again</el-button><LinkButton :to="{ name: 'days' }">All days</LinkButton></div></Said>
    <el-skeleton v-else-if="!kept.loaded.value || !units" :rows="10" animated aria-label="Fetching the day" />
    <template v-else>
      <div class="page-head">
        <h1 class="visually-hidden">{{ day.name || dateText(day.date) }}</h1>
        <input v-model="day.name" class="title" aria-label="Name of the day" :placeholder="dateText(day.date)" maxlength="120" @focus="step" />
        <el-date-picker :model-value="day.date" class="date" type="date" value-format="YYYY-MM-DD" format="ddd D MMM YYYY" :clearable="false" aria-label="Date" @update:model-value="(step(), (day.date = String($event)))" />
        <span class="chip state" :class="{ draft: kept.keeping.value !== 'kept' }" role="status">{{ says }}</span>
        <span class="spacer" />
        <el-button text :disabled="!kept.canUndo.value" title="Undo (Ctrl Z)" @click="kept.undo()">Undo</el-button>
        <el-button v-if="!runs && mayRun !== null && timetable" @click="run(mayRun)">It runs now</el-button>
        <el-button v-if="id !== null" tag="a" text :href="`/api/days/${id}/day.ics`">Calendar file</el-button>
        <LinkButton v-if="id !== null" type="primary" :to="wall">Wall sheet</LinkButton>
      </div>
      <div class="tellings">
        <KeptHere v-if="kept.keeping.value === 'away'" :why="kept.why.value" />
        <OtherWindow v-if="kept.keeping.value === 'behind'" what="day" v-bind="kept.texts.value" @mine="kept.keepMine()" @theirs="kept.takeTheirs()" @both="kept.keepBoth()" />
        <Said v-if="plan.problem.value" tone="stop"><strong>{{ plan.problem.value.title }}</strong>{{ plan.problem.value.errors?.[0]?.detail ?? plan.problem.value.detail }}<div class="row"><el-button @click="plan.look()">Try again</el-button></div></Said>
        <RunningBar v-if="runs" :day="day" :timetable="timetable" :before="taken" :looking="plan.looking.value" :stale="plan.stale.value" @now="run" @take="take" @stop="stopRunning" />
        <OfferList v-if="needsRelief" kind="reliefs" :offers="offers?.reliefs ?? []" :stale="plan.stale.value" :looking="plan.looking.value || plan.helping.value" @take="takeOffer" />
      </div>
      <div class="halves">
        <div class="side">
          <ProductTray :day="day" :day-id="id" :timetable="plan.stale.value && timetable && timetable.products.length !== day.products.length ? null : timetable" :troubles="troubles" :units="units" @step="step" />
          <el-button class="setup" :aria-expanded="setup" @click="setup = !setup">Hands, hours and the kitchen</el-button>
        </div>
        <div class="main">
          <section class="tray" aria-labelledby="table-head" :class="{ stale: plan.stale.value }">
            <div class="tray-head"><h2 id="table-head">Timetable</h2><ChoiceRow v-if="!phone" class="modes" :options="MODES" :value="chosen" label="How it is drawn" @choose="chosen = $event" /></div>
            <FigureStrip :timetable="timetable" :looking="plan.looking.value" :stale="plan.stale.value" :could-be="plan.couldBe.value" @stop="plan.stop()" @again="plan.look()" />
            <p v-if="!day.products.length" class="quiet empty">Put in what is to be baked, and it is laid out here: who does what when, and what is in the oven.</p>
            <template v-else-if="timetable">
              <DayChart v-if="mode !== 'list'" :timetable="timetable" :date="day.date" :bakers="day.bakers" :mode="mode" :open="open" :now="now" @pick="pick" @move="(block, by) => pins.move(block, by)" />
              <DayList v-else :timetable="timetable" :date="day.date" :open="open" :now="now" @pick="pick" />
              <Said v-for="line in timetable.says" :key="line" tone="now">{{ line }}</Said>
            </template>
            <p v-else-if="plan.looking.value" class="quiet empty" role="status">Laying it out …</p>
          </section>
          <PeopleTray v-if="setup" :day="day" :kit="known.kit" :climate="known.climate" :units="units" @step="step" />
          <WhyCard v-if="open >= 0 && timetable" :key="open" :day="day" :timetable="timetable" :block="open" @close="open = -1" @pin="pins.pin" @free="pins.free" @mark="pins.mark" @unmark="pins.unmark" @hold="pins.hold" />
          <OfferList v-if="!needsRelief && offers?.others?.length" kind="others" :offers="offers.others" :stale="plan.stale.value" :looking="plan.looking.value || plan.helping.value" @take="takeOffer" />
        </div>
      </div>
      <KeysDialog v-model="shows" :keys="KEYS" />
    </template>
  </main>
</template>

<style scoped>
.title { font: 700 1.6rem var(--head); border: 0; background: none; padding: 0 4px; min-width: 120px; width: 300px; border-bottom: 1px dashed var(--rim-soft); color: var(--ink) }
.page-head :deep(.date) { width: 180px; flex: none }
.halves { display: grid; gap: 14px; grid-template-columns: 300px minmax(0, 1fr); align-items: start }
.side, .main { display: grid; gap: 12px }
.main { min-width: 0 }
.modes { flex: 0 1 360px }
.stale :deep(svg) { opacity: .6 }
.tellings > :deep(*) { margin-bottom: 10px }
.empty { padding: 30px 0; text-align: center }
@media (max-width: 1000px) { .halves { grid-template-columns: minmax(0, 1fr) } .main { order: -1 } }
@media (max-width: 760px) { .title { width: 100% } }
</style>
