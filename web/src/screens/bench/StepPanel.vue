<script setup lang="ts">
/** Something to do: what goes in, how long, what to look for, what to take care of; begun, looked at, done. */
import { computed } from 'vue'
import DividePart from './DividePart.vue'
import LoadPart from './LoadPart.vue'
import MeasureField from './MeasureField.vue'
import MixerPart from './MixerPart.vue'
import { clockOf, gramsUnit, spanText, taskName, untilText } from './words'
import type { BakeNow, Deed, OnScale, TaskNow } from '@/api/client'
import type { Units } from '@/base/format'
import { minutesText, spanText as rangeText } from '@/base/times'
import Said from '@/design/Said.vue'
import RiseCurve from '@/drawings/RiseCurve.vue'

export interface StepPanelProps {
  task: TaskNow
  bake: BakeNow
  units: Units
  now: number
  celsius: number | null
  scale: OnScale | null
}
const props = defineProps<StepPanelProps>()
const emit = defineEmits<{ act: [...deeds: Deed[]]; undo: []; skip: [] }>()

const key = computed(() => props.task.key)
const running = computed(() => props.task.status === 'running')
const isTest = computed(() => props.task.kind === 'test')
const byLook = computed(() => props.task.by === 'look' && Boolean(props.task.look))
const folds = computed(() => Boolean(props.task.during) && props.task.touches > 0)
/** What has no beginning of its own: it is only done. */
const short = computed(() => props.task.usual_min < 0.3 || props.task.kind === 'divide')
const rise = computed(() => props.bake.rises.find((one) => one.step === props.task.step) ?? null)
/** The next load of the same, to go in as this one comes out. */
const nextLoad = computed(() => (props.task.load < 0 ? null : (props.bake.tasks.find((one) => one.step === props.task.step && one.load > props.task.load && one.status === 'open') ?? null)))
const left = computed(() => (props.task.rings_s == null ? null : props.task.rings_s - props.now))
const since = computed(() => (props.task.began_s == null ? null : props.now - props.task.began_s))
const lasts = computed(() => {
  const { low_min, usual_min, high_min } = props.task
  if (usual_min < 0.05) return ''
  return low_min < high_min ? rangeText(low_min, high_min) : minutesText(usual_min)
})
const again = computed(() => minutesText(Math.max(props.task.again_min, 0.3)))
const stepOf = (keys: readonly string[]): number => props.bake.lines.find((one) => one.key === keys[0])?.step_g ?? props.bake.step_g
const primaryText = computed(() => {
  if (props.task.status === 'done') return 'Go on'
  if (folds.value) return `Fold ${props.task.touched + 1} of ${props.task.touches} is done`
  if (isTest.value) return 'It stretches: go on'
  if (props.task.load >= 0) return running.value ? (nextLoad.value ? `Out, load ${nextLoad.value.load + 1} in` : 'Out') : 'In'
  if (!running.value) return short.value ? 'Done' : 'Begin'
  return byLook.value ? 'It is ready' : 'Done'
})
function primary(): void {
  const task = key.value
  if (folds.value) return void emit('act', { deed: 'turned', task }, ...(props.task.touched + 1 >= props.task.touches ? [{ deed: 'done', task } as const] : []))
  if (isTest.value) return void emit('act', { deed: 'tested', task, passed: true }, { deed: 'done', task })
  if (!running.value && !short.value) return void emit('act', { deed: 'began', task })
  const next = nextLoad.value
  emit('act', ...(byLook.value && running.value ? [{ deed: 'tested', task, passed: true } as const] : []), { deed: 'done', task }, ...(props.task.load >= 0 && next ? [{ deed: 'began', task: next.key } as const] : []))
}
const notYet = (): void => emit('act', ...(running.value || folds.value ? [] : [{ deed: 'began', task: key.value } as const]), { deed: 'tested', task: key.value, passed: false })
const canFail = computed(() => (isTest.value || (running.value && byLook.value)) && !folds.value)
const dough = computed(() => ['dough', 'rise'].includes(props.task.group) && !props.task.on)
const heat = computed(() => props.task.does === 'loads')
const cooled = computed(() => props.task.group === 'after')
const last = (what: string): number | null => {
  const found = props.bake.measured.filter((one) => one.says.startsWith({ dough_c: 'Dough:', middle_c: 'Middle:', baked_g: 'Baked:' }[what] ?? '-')).at(-1)
  return found ? Number(/[\d.]+/.exec(found.says)?.[0] ?? NaN) : null
}
const netG = computed(() => (props.scale && props.scale.phase !== 'none' && props.scale.phase !== 'empty' ? props.scale.net_g ?? null : null))
const piecesNow = computed(() => props.bake.making?.targets.reduce((sum, one) => sum + one.pieces, 0) ?? 1)
defineExpose({ primary, notYet })
</script>

<template>
  <div class="step">
    <h2 class="what">{{ taskName(task) }}</h2>
    <p class="more"><span v-if="bake.mixes > 1 && task.group === 'dough'">Mix {{ task.mix + 1 }} of {{ bake.mixes }}. </span><span v-if="task.load >= 0">{{ task.pieces }} {{ task.pieces === 1 ? 'piece' : 'pieces' }}. </span><b v-if="task.heat">{{ task.heat }}. </b><span v-if="lasts">{{ lasts }}. </span><span v-if="task.during">While it rises. </span></p>
    <p v-if="task.text" class="words">{{ task.text }}</p>
    <ul v-if="task.goes_in.length" class="goes-in">
      <li v-for="one in task.goes_in" :key="one.name + one.held_back"><span>{{ one.name }}<em v-if="one.held_back">, held back until now</em><em v-if="one.parts > 1">, in {{ one.parts }} parts</em></span><b v-if="one.g != null">{{ gramsUnit(one.g, stepOf(one.keys), units) }}</b></li>
    </ul>
    <div v-if="running && (left !== null || since !== null)" class="clock" :class="{ late: left !== null && left <= 0 }">
      <span class="number">{{ left === null ? untilText(since ?? 0) : untilText(left) }}</span>
      <span class="beside">{{ left === null ? `since ${clockOf(task.began_s ?? 0)}` : left > 0 ? `to go, at ${clockOf(task.rings_s ?? 0)}` : `over, since ${clockOf(task.rings_s ?? 0)}` }}</span>
    </div>
    <div v-else-if="task.during && task.rings_s != null" class="clock" :class="{ late: task.rings_s <= now }"><span class="number">{{ untilText(task.rings_s - now) }}</span><span class="beside">{{ task.rings_s > now ? 'to the next' : 'late' }}</span></div>
    <p v-if="task.waits_until_s != null && task.status === 'open'" class="waits" :class="{ late: task.waits_until_s < now }"><template v-if="task.waits_until_s > now">It may wait {{ spanText(task.waits_until_s - now) }} more.</template><template v-else>It has waited {{ spanText(now - task.waits_until_s) }} too long: {{ task.waits_cost }}.</template></p>
    <div v-if="rise && rise.look_min != null" class="rise">
      <RiseCurve :rise="rise" />
      <p v-if="task.look_s != null" class="marks"><b class="worked">Look from {{ clockOf(task.look_s) }}</b><template v-if="task.ready_by_s != null">, ready by {{ clockOf(task.ready_by_s) }}</template><template v-if="task.too_far_s != null">, <b>too far by {{ clockOf(task.too_far_s) }}</b></template>.</p>
      <p v-else class="marks">Begun now: look after <b class="worked">{{ minutesText(rise.look_min) }}</b><template v-if="rise.too_far_min != null">, too far by {{ minutesText(rise.too_far_min) }}</template>.</p>
      <p v-if="bake.dough.measured_c != null && bake.dough.says && !task.on" class="quiet says">{{ bake.dough.says }}</p>
    </div>
    <DividePart v-if="task.kind === 'divide'" :bake="bake" :units="units" :net="netG" :steady="scale?.steady ?? false" @act="(...deeds) => emit('act', ...deeds)" />
    <LoadPart v-if="heat" :task="task" :bake="bake" :now="now" @act="(...deeds) => emit('act', ...deeds)" />
    <p v-if="task.look" class="look"><b>Look for:</b> {{ task.look }}.<template v-if="task.if_not"> <span class="quiet">If not: {{ task.if_not }}</span></template></p>
    <Said v-if="task.tries_say" tone="now"><strong>{{ task.tries }} times now</strong>{{ task.tries_say }}</Said>
    <Said v-if="task.caution" tone="stop">{{ task.caution }}</Said>
    <div class="acts">
      <el-button type="primary" class="big first" @click="primary">{{ primaryText }}<kbd>Space</kbd></el-button>
      <el-button v-if="canFail" class="big second" @click="notYet">{{ isTest ? 'It tears' : 'Not yet' }}: {{ again }} more<kbd>O</kbd></el-button>
      <el-button v-if="running && task.touches > 0 && !folds" class="big" @click="emit('act', { deed: 'turned', task: key })">Turned<template v-if="task.touched"> ({{ task.touched }})</template></el-button>
      <el-button class="big" @click="emit('undo')">Undo<kbd>U</kbd></el-button>
      <el-button class="big" @click="emit('skip')">Leave out<kbd>N</kbd></el-button>
    </div>
    <div class="measures">
      <MeasureField v-if="dough" label="Dough, how warm" kind="celsius" :units="units" :live="celsius" :last="last('dough_c')" @measured="emit('act', { deed: 'measured', what: 'dough_c', value: $event, task: key, pieces: 1 })" />
      <MeasureField v-if="task.kind === 'bake'" label="Middle, how warm" kind="celsius" :units="units" :live="celsius" :last="last('middle_c')" @measured="emit('act', { deed: 'measured', what: 'middle_c', value: $event, task: key, pieces: 1 })" />
      <MeasureField v-if="cooled" :label="`All ${piecesNow} baked, weight`" kind="g" :units="units" :live="netG" :last="last('baked_g')" @measured="emit('act', { deed: 'measured', what: 'baked_g', value: $event, task: key, pieces: piecesNow })" />
    </div>
    <MixerPart v-if="task.group === 'dough' && !task.on" :bake="bake" :mix="task.mix" :units="units" @act="(...deeds) => emit('act', ...deeds)" />
  </div>
</template>

<style scoped>
.step { display: grid; gap: 10px; align-content: start }
.what { font-size: 2rem; color: var(--ink) }
.more { color: var(--ink-2); font-size: 1.12rem }
.words { font-size: 1.25rem; max-width: 60ch; white-space: pre-line }
.goes-in { list-style: none; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(auto-fill, minmax(230px, 1fr)); gap: 0 26px }
.goes-in li { display: flex; justify-content: space-between; gap: 10px; font-size: 1.15rem; border-bottom: 1px solid var(--rim-faint); padding: 5px 0 }
.goes-in em { color: var(--ink-2); font-style: normal }
.clock { display: flex; align-items: baseline; gap: 16px; flex-wrap: wrap }
.number { font: 750 clamp(4rem, 13vw, 6.8rem)/1.05 var(--body) }
.beside { font-size: 1.4rem; color: var(--ink-2) }
.late .number, .waits.late { color: var(--stop) }
.waits { font-size: 1.15rem; font-weight: 600; color: var(--crust) }
.rise { max-width: 520px }
.marks { font-size: 1.2rem }
.says { font-size: 1rem }
.look { font-size: 1.2rem }
.look .quiet { font-size: 1.02rem; display: block }
.acts { display: flex; flex-wrap: wrap; gap: 10px; margin-top: 4px }
.acts :deep(.el-button + .el-button) { margin-left: 0 }
.first, .second { flex: 1 1 220px }
.measures { display: flex; flex-wrap: wrap; gap: 14px }
@media (max-width: 760px) { .what { font-size: 1.6rem } .acts > * { flex: 1 1 40% } .first, .second, .typed { flex: 1 1 100% } }
</style>
