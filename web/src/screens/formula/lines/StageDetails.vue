<script setup lang="ts">
/** What a stage is and where it goes: its kind, what it feeds, what is kept back, what the scale says once it is cooked. */
import { computed, ref, watch } from 'vue'
import { lowerFirst, stageName } from './lines'
import type { Change, Formula, StageKind, Whole } from '@/api/client'
import NumberBox from '@/design/NumberBox.vue'
import { shown, withUnit, type Units } from '@/base/format'
import SelectField from '@/design/SelectField.vue'

export interface StageDetailsProps {
  /** The desk's own formula; the stage's kind is edited in place. */
  formula: Formula
  stage: number
  whole: Whole | null
  units: Units
}
const props = defineProps<StageDetailsProps>()
const emit = defineEmits<{
  /** A change to be made at once, and what to tell of it. */
  apply: [change: Change, says: string]
  step: []
  remove: []
}>()

const stage = computed(() => props.formula.stages[props.stage])
const figures = computed(() => props.whole?.formula.stages[props.stage])
const rule = computed(() => (stage.value ? props.units.reference.stages[stage.value.kind] : undefined))
const called = (s: number) => stageName(props.formula, s, props.units)

/** Where it goes now, as the core has it: told, or of itself. */
const goes = computed(() =>
  (props.whole?.formula.stages ?? []).flatMap((target, t) => target.fed.filter((fed) => fed.source === props.stage).map((fed) => ({ target: t, share: fed.share }))),
)
const others = computed(() => props.formula.stages.map((_, s) => s).filter((s) => s !== props.stage && !goes.value.some((way) => way.target === s)))
const madeG = computed(() => (figures.value ? figures.value.bowl_g - figures.value.boiled_off_g : 0))
const isPart = computed(() => goes.value.length > 0)
const cooks = computed(() => rule.value?.does === 'cooks')
const keptG = ref<number | null>(null)
const cookedG = ref<number | null>(null)

const kinds = computed(() => Object.values(props.units.reference.stages).map(({ kind, label }) => ({ value: kind, label })))
function setKind(kind: StageKind): void {
  emit('step')
  if (stage.value) stage.value.kind = kind
}
/** Without a share, all that goes nowhere yet. */
function feed(into: number, share?: number): void {
  emit('apply', { change: 'feed', stage: props.stage, into, share }, `${called(props.stage)} goes into ${lowerFirst(called(into))}.`)
}
function keepBack(): void {
  if (keptG.value !== null) emit('apply', { change: 'keep_back', stage: props.stage, kept_g: keptG.value }, `${withUnit(keptG.value, 'g', props.units)} of ${lowerFirst(called(props.stage))} kept back.`)
}
function cook(): void {
  if (cookedG.value !== null) emit('apply', { change: 'cooked', stage: props.stage, cooked_g: cookedG.value }, `${called(props.stage)} weighs ${withUnit(cookedG.value, 'g', props.units)}; the lost water is made up.`)
}
// What was typed of one stage is not of the next, nor of what it has become.
watch(() => [props.stage, figures.value?.kept_back_g, figures.value?.boiled_off_g], () => { keptG.value = cookedG.value = null })
const putBack = () => emit('apply', { change: 'move_out', stage: props.stage }, `${called(props.stage)} is back in the dough.`)
</script>

<template>
  <div v-if="stage" class="details">
    <label class="label">It is<SelectField :value="stage.kind" :options="kinds" :label="`What ${called(props.stage)} is`" @choose="setKind" /></label>
    <label v-for="way in goes" :key="way.target" class="label">% into {{ lowerFirst(called(way.target)) }}<NumberBox :value="way.share" kind="share" :units="units" :label="`Share of ${called(props.stage)} that goes into ${called(way.target)}`" @change="$event !== null && feed(way.target, $event)" /></label>
    <label v-if="others.length" class="label">{{ isPart ? 'also into' : 'Goes into' }}<SelectField :value="''" :options="[{ value: '', label: isPart ? 'nothing else' : 'part of the dough' }, ...others.map((s) => ({ value: String(s), label: called(s) }))]" :label="`Where else ${called(props.stage)} goes`" @choose="$event && feed(Number($event))" /></label>
    <form v-if="isPart" class="label" @submit.prevent="keepBack"><span>Keep back, of {{ withUnit(madeG, 'g', units) }}</span>
      <span class="pair"><NumberBox :value="keptG ?? figures?.kept_back_g" kind="g" :units="units" :label="`Kept back of ${called(props.stage)}`" @change="keptG = $event" /><el-button text native-type="submit">Keep</el-button></span>
    </form>
    <form v-if="cooks" class="label" @submit.prevent="cook"><span>Cooked, the scale says (of {{ withUnit(figures?.bowl_g ?? 0, 'g', units) }})</span>
      <span class="pair"><NumberBox :value="cookedG ?? madeG" kind="g" :units="units" :label="`Cooked weight of ${called(props.stage)}`" :worked="cookedG === null" @change="cookedG = $event" /><el-button text native-type="submit">Put right</el-button></span>
    </form>
    <p v-if="figures?.boiled_off_g" class="quiet wide">{{ withUnit(figures.boiled_off_g, 'g', units) }} boils off, {{ shown(100 * stage.boiled_off, 'percent', units, 2) }} % of it; the same water is made up where it goes.</p>
    <div class="wide row">
      <el-button v-if="isPart" @click="putBack">Put it back into the dough</el-button>
      <el-button text v-if="formula.stages.length > 1" @click="emit('remove')">Remove the stage and its lines</el-button>
    </div>
  </div>
</template>

<style scoped>
.details { display: flex; flex-wrap: wrap; gap: 8px 12px; align-items: end; background: var(--rim-faint); border-radius: 0 0 10px 10px; padding: 8px 10px 10px; margin-bottom: 4px }
.el-input { width: 96px }
.el-select { width: 170px }
.pair { display: flex; gap: 2px; align-items: center }
.wide { flex: 1 0 100%; margin: 0 }
.row { display: flex; flex-wrap: wrap; gap: 6px }
</style>
