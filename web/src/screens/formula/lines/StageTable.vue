<script setup lang="ts">
/** The formula as mixed: its stages and lines, to be typed in grams or percent, all from the keyboard. */
import { computed, ref } from 'vue'
import LineRow from './LineRow.vue'
import { setAmount, stageName } from './lines'
import { newKey } from '@/screens/method/steps'
import NewStageForm from './NewStageForm.vue'
import StageDetails from './StageDetails.vue'
import { useLedger } from './useLedger'
import type { Change, Formula, Ingredient, Line, Problem, Way, Whole } from '@/api/client'
import OpenWorking from '@/design/OpenWorking.vue'
import { shown, type Units } from '@/base/format'

export interface StageTableProps {
  /** The desk's own formula; it is edited in place. */
  formula: Formula
  whole: Whole | null
  problem: Problem | null
  pantry: readonly Ingredient[]
  units: Units
  /** Whether this kitchen counts a starter apart. */
  apart: boolean
  /** The way that is shown, where the formula has any. */
  way: Way | undefined
}
const props = defineProps<StageTableProps>()
const emit = defineEmits<{
  working: [opened: string]
  /** Lines or stages are about to be added, moved or removed: a step of undo of its own. */
  step: []
  undo: []
  /** A change to be made at once, with what to tell of it; nothing is told of typing. */
  apply: [change: Change, says?: string]
  /** A change to be looked at before it is taken. */
  look: [title: string, change: Change]
}>()

const table = ref<HTMLElement>()
let keys = 0
const keyOf = new WeakMap<object, number>()
/** Lines and stages have no name of their own to go by; each object gets a number that moves with it. */
function key(of: object): number {
  if (!keyOf.has(of)) keyOf.set(of, ++keys)
  return keyOf.get(of) as number
}

/** What the server says is wrong, by "stage:line" and field. */
const wrong = computed(() => {
  const found: Record<string, Record<string, string>> = {}
  for (const issue of props.problem?.errors ?? []) {
    const at = /\/stages\/(\d+)\/lines\/(\d+)(?:\/(\w+))?/.exec(issue.pointer)
    if (at) (found[`${at[1]}:${at[2]}`] ??= {})[at[3] ?? 'name'] = issue.detail
  }
  return found
})
const NOTHING = {}

const most = computed(() => Math.max(1, ...(props.whole?.formula.stages.flatMap((s) => s.lines.map((l) => l.percent)) ?? [])))
const share = (s: number, n: number) => Math.min(1, (props.whole?.formula.stages[s]?.lines[n]?.percent ?? 0) / most.value)

/** Which stage's details are open, and whether flour is being moved into a new one. */
const detailed = ref<number | null>(null)
const moving = ref(false)
const { focusCell, add, remove, move, addStage, removeStage, onKey } = useLedger(() => props.formula, table, { step: () => emit('step'), undo: () => emit('undo'), gone: () => (detailed.value = null) })
const canMove = computed(() => props.whole !== null)
const isStraight = computed(() => props.whole?.formula.stages.every((stage) => stage.fed.length === 0) ?? true)
const stageCalled = (s: number) => stageName(props.formula, s, props.units)
const kindOf = (s: number) => {
  const label = props.units.reference.stages[props.formula.stages[s]?.kind ?? 'dough']?.label ?? ''
  return stageCalled(s).toLowerCase().includes(label) ? '' : label
}
/** What comes into a stage from others, and what of it does not go on: steam, and seed for next time. */
const SAYS = { made_up: 'Water, for what boiled off', boiled_off: 'boils off', kept_back: 'kept back for next time' } as const
const passing = (s: number) =>
  (props.whole?.passing[s] ?? []).map((one, i) => {
    const share = one.share > 0.9999 ? 'all of it' : `${shown(one.share, 'share', props.units, 3)} % of it`
    const sign = one.source == null ? '−' : ''
    return {
      key: i,
      says: one.what === 'fed' ? `${stageCalled(one.source ?? 0)}, ${share}` : SAYS[one.what],
      written: sign + shown(one.weight_g, 'g', props.units),
      counted: sign + shown(one.count_g, 'g', props.units),
    }
  })
/** What the way has of a line otherwise than the formula. */
const otherOf = (line: Line) => (line.key ? props.way?.changed.find((one) => one.key === line.key) : undefined)
function otherwise(s: number, n: number, on: boolean): void {
  const line = props.formula.stages[s]?.lines[n]
  if (!line || !props.way) return
  emit('step')
  if (on) props.way.changed.push({ key: (line.key ||= newKey()), percent: props.whole?.formula.stages[s]?.lines[n]?.percent ?? line.percent ?? 0 })
  else props.way.changed = props.way.changed.filter((one) => one.key !== line.key)
}
function setLine(s: number, n: number, field: 'weight_g' | 'percent', value: number | null): void {
  const line = props.formula.stages[s]?.lines[n]
  if (!line) return
  const other = otherOf(line)
  if (other) {
    if (field === 'percent' && value !== null) other.percent = value
    return
  }
  if (props.apart && field === 'percent' && value !== null && props.whole) emit('apply', { change: 'set_shown', stage: s, line: n, percent: value })
  else setAmount(line, field, value)
}
const straighten = () => emit('apply', { change: 'move_out', stage: null }, 'Put back into one straight dough. The whole formula is the same.')
const stageWeight = (s: number) => {
  const weight = props.whole?.stage_count_g[s]
  return weight === undefined ? '' : shown(weight, 'g', props.units)
}
const enterStage = (s: number) => (props.formula.stages[s]?.lines.length ? focusCell({ stage: s, line: 0 }, 'name') : add({ stage: s, line: -1 }))
</script>

<template>
  <div ref="table" @keydown="onKey">
    <div class="columns quiet" aria-hidden="true"><span>% of flour</span><span>as written</span><span class="worked">this count</span></div>
    <section v-for="(stage, s) in formula.stages" :key="key(stage)" :aria-label="stage.name || 'Stage without a name'">
      <div class="stage">
        <input v-model="stage.name" :data-stage="s" class="stage-name" maxlength="300" placeholder="Name of the stage" aria-label="Name of the stage" @keydown.enter.exact.prevent="enterStage(s)" />
        <small class="kind quiet">{{ kindOf(s) }}</small>
        <OpenWorking class="stage-weight" :name="`stage:${s}`" :label="`${stage.name || 'Stage'} in this count: ${stageWeight(s)}.`" @open="emit('working', $event)">{{ stageWeight(s) }}</OpenWorking>
        <button type="button" class="drop plus" :aria-label="`Add a line to ${stageCalled(s)}`" title="Add a line" @click="add({ stage: s, line: stage.lines.length - 1 })">+</button>
        <button type="button" class="drop" :aria-label="`More for the stage ${stageCalled(s)}`" :aria-expanded="detailed === s" title="What it is, and where it goes" @click="detailed = detailed === s ? null : s">
          <svg viewBox="0 0 20 20" width="16" aria-hidden="true"><path d="M5 8l5 5 5-5" fill="none" stroke="currentColor" stroke-width="2.4" stroke-linecap="round" /></svg>
        </button>
      </div>
      <StageDetails v-if="detailed === s" :formula="formula" :stage="s" :whole="whole" :units="units" @apply="(change, says) => emit('apply', change, says)" @step="emit('step')" @remove="removeStage(s)" />
      <ul>
        <LineRow
          v-for="(line, n) in stage.lines"
          :key="key(line)"
          :line="line"
          :figures="whole?.formula.stages[s]?.lines[n]"
          :count-g="whole?.count_g[s]?.[n]"
          :pantry="pantry"
          :units="units"
          :spot="`${s}:${n}`"
          :wrong="wrong[`${s}:${n}`] ?? NOTHING"
          :share="share(s, n)"
          :apart="apart"
          :other-percent="otherOf(line)?.percent"
          :in-ways="formula.ways.length > 1"
          @otherwise="otherwise(s, n, $event)"
          @amount="(field, value) => setLine(s, n, field, value)"
          @swap="emit('look', `${line.name} swapped for ${$event}`, { change: 'swap', stage: s, line: n, to: $event })"
          @working="emit('working', $event)"
          @done="focusCell({ stage: s, line: n }, 'percent')"
          @move="move({ stage: s, line: n }, $event)"
          @remove="remove({ stage: s, line: n })"
        />
        <li v-for="row in passing(s)" :key="`passing-${row.key}`" class="passing"><span>{{ row.says }}</span><span>{{ row.written }}</span><b class="worked">{{ row.counted }}</b></li>
      </ul>
      <div v-if="s === formula.stages.length - 1" class="adding">
        <el-button text class="add" @click="add({ stage: s, line: stage.lines.length - 1 })">+ Line</el-button>
        <el-button text class="add" @click="addStage">+ Stage</el-button>
        <el-button text class="add" :aria-expanded="moving" title="Ferment, cook or soak part of the flour as a stage of its own" :disabled="!canMove" @click="moving = !moving">Move flour</el-button>
        <el-button text v-if="!isStraight" class="add" @click="straighten">One straight dough</el-button>
      </div>
    </section>
    <NewStageForm v-if="moving && whole" :formula="formula" :units="units" :main="whole.formula.main" @apply="(change, says) => emit('apply', change, says)" @close="moving = false" />
  </div>
</template>

<style scoped>
.columns { display: grid; grid-template-columns: 1fr 70px 76px 76px 26px; text-align: right; font-size: .78rem }
.columns span:first-child { grid-column: 2 }
.columns span { padding-right: 5px; white-space: nowrap }
.passing { display: grid; grid-template-columns: minmax(90px, 1fr) 74px 76px 26px; align-items: center; min-height: 25px; border-bottom: 1px solid var(--rim-faint); color: var(--ink-2); font-size: .9rem; padding-left: 23px }
.passing > :not(:first-child) { text-align: right; padding-right: 5px }
.kind { white-space: nowrap; padding-right: 6px }
.plus { font-size: 1.25rem; line-height: 1; font-weight: 700; color: var(--rim) }
.adding { display: flex; flex-wrap: wrap }
.stage { display: grid; grid-template-columns: 1fr auto auto 26px 26px; align-items: center; margin-top: 4px; border-bottom: 2px solid var(--rim-soft) }
.stage-name { border: 0; background: none; font-weight: 700; color: var(--rim); padding: 3px 4px; border-radius: 8px; min-width: 0; text-overflow: ellipsis }
.stage-name:hover { background: var(--rim-faint) }
.stage-weight { font-weight: 700; padding: 2px 4px }
.drop { border: 0; background: none; padding: 0; width: 26px; height: 28px; color: var(--ink-2); cursor: pointer; border-radius: 8px; display: grid; place-items: center }
.drop:hover { background: var(--rim-faint) }
.drop[aria-expanded='true'] svg { transform: rotate(180deg) }
ul { list-style: none; margin: 0; padding: 0 }
.add { font-size: .88rem; min-height: 30px; padding: 2px 7px }
@media (max-width: 760px) {
  .columns { grid-template-columns: 1fr 48px 58px 60px 30px }
  .columns span { padding-right: 2px; font-size: .72rem }
  .stage-name { min-height: 44px }
  .stage { grid-template-columns: 1fr auto auto 38px 30px }
  .drop { width: 36px; height: 44px }
  .passing { grid-template-columns: minmax(90px, 1fr) 62px 62px 30px; padding-left: 18px }
}
</style>
