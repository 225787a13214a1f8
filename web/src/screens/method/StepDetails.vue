<script setup lang="ts">
/** All of a step: what it works on, what goes in, hands, place, warmth, what to look for and what if not, how long it may wait, and cautions. */
import { computed } from 'vue'
import { choices, goesOf, HANDS, PLACES, stagesOf, takesOf } from './steps'
import type { Formula, Step, StepFigures, StepKind, Takes, Way } from '@/api/client'
import { shown, withUnit, type Units } from '@/base/format'
import NumberBox from '@/design/NumberBox.vue'
import SelectField from '@/design/SelectField.vue'
import { stageName } from '@/screens/formula/lines/lines'

export interface StepDetailsProps {
  /** The desk's own; they are edited in place. */
  step: Step
  way: Way
  formula: Formula
  called: string
  kind: StepKind
  figures: StepFigures | undefined
  units: Units
}
const props = defineProps<StepDetailsProps>()
const emit = defineEmits<{ step: []; anchor: []; move: [by: 1 | -1]; remove: [] }>()

const worksOn = computed(() => {
  const stages = stagesOf(props.formula, props.way)
  const shownFormula = { ...props.formula, stages }
  return [{ value: '', label: 'the dough' }, ...stages.map((stage, s) => ({ value: stage.key || `:${s}`, label: stageName(shownFormula, s, props.units) })), ...props.formula.beside.map((one, b) => ({ value: one.key || `beside:${b}`, label: one.name || 'beside the dough' }))]
})
function workOn(value: string): void {
  const found = /^(beside)?:(\d+)$/.exec(value)
  if (!found) {
    props.step.of = value
    return
  }
  const of = found[1] ? props.formula.beside[Number(found[2])] : stagesOf(props.formula, props.way)[Number(found[2])]
  if (of) props.step.of = of.key ||= crypto.randomUUID().slice(0, 8)
}

const goes = computed(() => goesOf(props.formula, props.way, props.units))
const takenText = (one: Takes) => (one.what === 'rest' ? `all that no step names${one.called ? ` of ${one.called}` : ''}` : one.what === 'stage' ? `${one.called}, made` : one.called)
function take(value: string): void {
  const taken = takesOf(value, props.formula, props.way)
  if (!taken) return
  emit('step')
  props.step.takes.push(taken)
}
function drop(n: number): void {
  emit('step')
  props.step.takes.splice(n, 1)
}
const PARTS = [['all', 'all of it'], ['first', 'but for what is held back'], ['held_back', 'what was held back']] as const

function setHeat(end: 'low_c' | 'high_c', value: number | null): void {
  const heat = props.step.heat ?? props.kind.heat
  if (value === null) props.step.heat = null
  else {
    const [low, high] = end === 'low_c' ? [value, Math.max(value, heat?.high_c ?? value)] : [Math.min(value, heat?.low_c ?? value), value]
    props.step.heat = { low_c: low, high_c: high }
  }
  if (props.kind.does === 'rises') emit('anchor')
}
const BY = [['look', 'how it looks'], ['clock', 'the clock']] as const
const share = (one: Takes) => `${shown(one.share, 'share', props.units, 3)} %`
</script>

<template>
  <div class="details">
    <div class="goes">
      <b>Goes in</b>
      <span v-for="(one, n) in step.takes" :key="n" class="taken">
        {{ takenText(one) }}
        <SelectField v-if="one.what === 'line'" class="part" :value="one.part" :options="choices(PARTS)" :label="`${one.called}: which part`" @choose="one.part = $event" />
        <NumberBox v-if="one.what !== 'rest'" class="share" :value="one.share" kind="share" :units="units" :label="`${takenText(one)}: how much of it, now ${share(one)}`" @change="one.share = $event ?? 1" />
        <span v-if="one.what !== 'rest'" class="quiet">%</span>
        <el-button text size="small" :aria-label="`${takenText(one)} does not go in here`" @click="drop(n)">×</el-button>
      </span>
      <SelectField class="add" :value="null" :options="goes" hint="add something" :label="`${called}: what else goes in`" @choose="take" />
    </div>
    <div class="fields">
      <label class="label">Works on<SelectField :value="step.of" :options="worksOn" :label="`${called}: what it works on`" @choose="workOn" /></label>
      <label class="label">Ends by<SelectField :value="step.by ?? kind.by" :options="choices(BY)" :label="`${called}: what ends it`" @choose="step.by = $event" /></label>
      <label class="label">Hands<SelectField :value="step.hands ?? kind.hands" :options="choices(HANDS)" :label="`${called}: when it needs hands`" @choose="step.hands = $event" /></label>
      <label v-if="(step.hands ?? kind.hands) === 'touches'" class="label">How often<NumberBox :value="step.touches ?? kind.touches" :worked="step.touches == null" kind="count" :units="units" :label="`${called}: how often hands are needed`" @change="step.touches = $event" /></label>
      <label class="label">Where<SelectField :value="step.place ?? kind.place" :options="choices(PLACES)" :label="`${called}: where`" @choose="step.place = $event" /></label>
      <label class="label">Warm, from<NumberBox :value="step.heat?.low_c ?? kind.heat?.low_c ?? null" :worked="step.heat == null" kind="celsius" :units="units" :label="`${called}: how warm, from`" with-unit @change="setHeat('low_c', $event)" /></label>
      <label class="label">to<NumberBox :value="step.heat?.high_c ?? kind.heat?.high_c ?? null" :worked="step.heat == null" kind="celsius" :units="units" :label="`${called}: how warm, to`" with-unit @change="setHeat('high_c', $event)" /></label>
      <label v-if="kind.does === 'rises'" class="label">Told for yeast<NumberBox :value="step.told_yeast" kind="percent" :units="units" :label="`${called}: with how much yeast its time was told`" with-unit @change="step.told_yeast = $event" /></label>
      <label v-if="kind.does === 'rises' && (step.place ?? kind.place) === 'fridge'" class="label">In the room first<NumberBox :value="step.room_first_min ?? null" kind="min" :units="units" :label="`${called}: how long in the room before the fridge`" with-unit @change="step.room_first_min = $event" /></label>
      <label class="label">May wait<NumberBox :value="step.waits_min ?? kind.waits_min ?? null" :worked="step.waits_min == null" kind="min" :units="units" :label="`${called}: how long it may wait after`" with-unit @change="step.waits_min = $event" /></label>
      <label class="label wide">Until<el-input :model-value="step.look ?? kind.look" maxlength="300" :class="{ usual: step.look == null }" :aria-label="`${called}: what to look for`" @input="step.look = $event" /></label>
      <label class="label wide">If not<el-input :model-value="step.if_not ?? kind.if_not" maxlength="300" :class="{ usual: step.if_not == null }" :aria-label="`${called}: what if not`" @input="step.if_not = $event" /></label>
      <label class="label wide">Take care<el-input v-model="step.caution" maxlength="300" :aria-label="`${called}: what to take care of`" /></label>
      <el-checkbox v-model="step.during" class="wide">meanwhile: within the step before it</el-checkbox>
    </div>
    <div class="acts">
      <el-button text size="small" :aria-label="`Move ${called} up`" @click="emit('move', -1)">Up</el-button>
      <el-button text size="small" :aria-label="`Move ${called} down`" @click="emit('move', 1)">Down</el-button>
      <el-button text size="small" :aria-label="`Remove ${called}`" @click="emit('remove')">Remove</el-button>
      <span v-if="figures" class="quiet">{{ withUnit(figures.hands_min, 'min', units) }} by hand</span>
    </div>
  </div>
</template>

<style scoped>
.details { display: grid; gap: 8px; padding: 4px 0 8px }
.goes { display: flex; flex-wrap: wrap; gap: 5px; align-items: center }
.taken { display: inline-flex; align-items: center; gap: 3px; border: 1.5px solid var(--rim-soft); border-radius: 10px; padding: 0 2px 0 9px; flex-wrap: wrap }
.part { width: 168px }
.part :deep(.el-select__wrapper), .share :deep(.el-input__wrapper) { box-shadow: none; min-height: 30px; background: none }
.share { width: 62px }
.add { width: 160px }
.fields { display: grid; grid-template-columns: repeat(auto-fill, minmax(126px, 1fr)); gap: 6px 8px; align-items: end }
.wide { grid-column: span 2 }
.usual :deep(input) { color: var(--crust) }
.acts { display: flex; gap: 4px; align-items: center }
</style>
