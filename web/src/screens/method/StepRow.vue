<script setup lang="ts">
/** One step in the list: when, what, what goes in, how long, in the baker's own words; opened, everything else of it. */
import { computed } from 'vue'
import StepDetails from './StepDetails.vue'
import { kindOf, kindOptions } from './steps'
import type { Formula, Method, Step, Way } from '@/api/client'
import { shown, withUnit, type Units } from '@/base/format'
import { minutesText, newDayText, whenText } from '@/base/times'
import OpenWorking from '@/design/OpenWorking.vue'
import SelectField from '@/design/SelectField.vue'
import TimeField from '@/design/TimeField.vue'

export interface StepRowProps {
  /** The desk's own; they are edited in place. */
  step: Step
  way: Way
  formula: Formula
  n: number
  method: Method | null
  units: Units
  open: boolean
  dragged: boolean
  locked: boolean
}
const props = defineProps<StepRowProps>()
const emit = defineEmits<{
  working: [opened: string]
  toggle: []
  grab: [event: PointerEvent]
  move: [by: 1 | -1]
  remove: []
  step: []
  /** Yeast is of its rise's telling: a time was typed for the dough as it is now. */
  anchor: []
}>()

const kind = computed(() => kindOf(props.step, props.units))
/** The figures of this very step; nothing while the answer is of another list. */
const figures = computed(() => (props.method?.steps.length === props.way.steps.length ? props.method.steps[props.n] : undefined))
const newDay = computed(() => (figures.value ? newDayText(figures.value.begin, props.method?.steps[props.n - 1]?.begin ?? 0, props.method?.begins_min ?? null) : ''))
const rise = computed(() => props.method?.rises.find((one) => one.step === props.n))
const bake = computed(() => props.method?.bakes.find((one) => one.step === props.n))
const loads = computed(() => props.method?.loads.filter((one) => one.step === props.n) ?? [])
const strand = computed(() => props.method?.strands[figures.value?.strand ?? -1])
const called = computed(() => `Step ${props.n + 1}, ${kind.value.label}`)
const usual = computed(() => (figures.value && props.step.lasts == null ? { low_min: figures.value.low_min, usual_min: figures.value.usual_min, high_min: figures.value.high_min } : null))
const goes = computed(() => (figures.value?.goes_in ?? []).map((one) => `${one.name}${one.weight_g == null ? '' : ` ${withUnit(one.weight_g, 'g', props.units)}`}${one.held_back ? ', held back' : ''}${one.parts > 1 ? `, in ${one.parts} parts` : ''}`))
const heat = computed(() => {
  const oven = figures.value?.heat_high_c
  const dial = bake.value?.dial ?? (kind.value.does === 'ahead' ? props.method?.bakes.find((one) => one.oven_c != null && oven != null && Math.abs(one.oven_c - oven) < 1)?.dial : '')
  if (dial) return dial
  const { heat_low_c: low, heat_high_c: high } = figures.value ?? {}
  if (low == null || high == null) return ''
  return low === high ? withUnit(high, 'celsius', props.units) : `${shown(low, 'celsius', props.units)}–${withUnit(high, 'celsius', props.units)}`
})
const today = computed(() => {
  if (rise.value?.look_min != null && rise.value.too_far_min != null) return { name: `method:rise.${props.n}`, text: `look from ${minutesText(rise.value.look_min)}, too far by ${minutesText(rise.value.too_far_min)}` }
  if (bake.value && loads.value.length <= 1) return { name: `method:bake.${props.n}`, text: `look from ${minutesText(bake.value.look_min)}, usually ${minutesText(bake.value.usual_min)}` }
  if (figures.value && props.step.lasts && kind.value.does === 'cold' && Math.abs(figures.value.usual_min - props.step.lasts.usual_min) > 1) return { name: '', text: `today ${minutesText(figures.value.usual_min)}, to be ready on time` }
  if (loads.value.length > 1) return { name: '', text: `${loads.value.length} loads, ${minutesText((loads.value.at(-1)?.end ?? 0) - (loads.value[0]?.begin ?? 0))} in all` }
  return null
})
const missing = computed(() => props.method?.troubles.filter((one) => one.what === 'gone' && one.spot[0] === props.n) ?? [])

function setKind(wanted: string): void {
  emit('step')
  Object.assign(props.step, { kind: wanted })
}
function setLasts(lasts: Step['lasts']): void {
  Object.assign(props.step, { lasts })
  if (kind.value.does === 'rises') emit('anchor')
}
</script>

<template>
  <li class="step" :class="{ dragged, during: step.during, open }" :data-step="n">
    <button type="button" class="grab" :aria-label="`Move ${called}: drag, or Alt with an arrow`" :disabled="locked" @pointerdown="emit('grab', $event)"><svg viewBox="0 0 12 18" width="12" aria-hidden="true"><circle v-for="k in 6" :key="k" :cx="k % 2 ? 3 : 9" :cy="3 + Math.floor((k - 1) / 2) * 6" r="1.7" /></svg></button>
    <span class="when worked"><small v-if="newDay" class="quiet">{{ newDay }} </small>{{ figures ? whenText(figures.begin, method?.begins_min ?? null) : n + 1 }}</span>
    <SelectField class="kind" :value="step.kind" :options="kindOptions(units)" :label="`What step ${n + 1} is`" @choose="setKind" />
    <TimeField class="lasts" :value="step.lasts ?? null" :usual="usual" :label="`${called}: how long`" @change="setLasts" />
    <span class="heat">{{ heat }}</span>
    <button type="button" class="more" :aria-expanded="open" :aria-label="`More of ${called}`" @click="emit('toggle')"><svg viewBox="0 0 20 20" width="16" aria-hidden="true"><path d="M5 8l5 5 5-5" fill="none" stroke="currentColor" stroke-width="2.4" stroke-linecap="round" /></svg></button>
    <div class="body">
      <p v-if="step.of && strand && strand.kind !== 'gone'" class="strand quiet">{{ strand.name }}</p>
      <p v-if="goes.length" class="goes"><span v-for="one in goes" :key="one" class="chip worked">{{ one }}</span></p>
      <el-input type="textarea" :model-value="step.text" autosize resize="none" maxlength="10000" :placeholder="kind.key === 'note' ? 'A note' : 'In your own words'" :aria-label="`${called}: in words`" @input="step.text = $event" />
      <p v-if="today" class="today"><OpenWorking v-if="today.name" :name="today.name" :label="`${called}: ${today.text}.`" @open="emit('working', $event)">{{ today.text }}</OpenWorking><span v-else class="worked">{{ today.text }}</span></p>
      <p v-if="figures?.waits_says" class="warn">{{ figures.waits_says }}</p>
      <p v-for="one in missing" :key="one.says" class="warn">{{ one.says }}</p>
      <p v-if="figures?.caution" class="caution">{{ figures.caution }}</p>
    </div>
    <StepDetails v-if="open" class="details" :step="step" :way="way" :formula="formula" :called="called" :kind="kind" :figures="figures" :units="units" @step="emit('step')" @anchor="emit('anchor')" @move="emit('move', $event)" @remove="emit('remove')" />
  </li>
</template>

<style scoped>
.step { display: grid; grid-template-columns: 22px 58px minmax(120px, 250px) minmax(96px, 1fr) auto 30px; align-items: center; column-gap: 4px; border-bottom: 1px solid var(--rim-faint); padding: 3px 0; background: var(--tray) }
.step.dragged { outline: 2px solid var(--crust); position: relative; z-index: 2 }
.step.during { padding-left: 18px }
.grab { border: 0; background: none; cursor: grab; touch-action: none; padding: 8px 4px; color: var(--ink-2); border-radius: 8px; display: grid; place-items: center }
.grab circle { fill: currentcolor }
.grab:disabled { visibility: hidden }
.when { font-weight: 700; font-size: .95rem; line-height: 1.1 }
.when small { display: block; font-weight: 400; white-space: nowrap }
.kind :deep(.el-select__wrapper) { box-shadow: none; background: none; min-height: 32px; font-weight: 700; color: var(--rim); padding: 2px 4px; font-family: var(--head) }
.step:not(:hover, :focus-within) .kind :deep(.el-select__suffix) { visibility: hidden }
.kind :deep(.el-select__placeholder) { color: var(--rim) }
.lasts { justify-self: end; width: min(100%, 190px) }
.heat { min-width: 56px; text-align: right; font-weight: 650; white-space: nowrap }
.more { border: 0; background: none; width: 28px; height: 32px; padding: 0; cursor: pointer; color: var(--rim); border-radius: 8px; display: grid; place-items: center }
.more:hover, .grab:hover { background: var(--rim-faint) }
.more[aria-expanded='true'] svg { transform: rotate(180deg) }
.body { grid-column: 3 / -1; display: grid; gap: 2px; padding-bottom: 2px }
.goes { display: flex; flex-wrap: wrap; gap: 3px 5px }
.goes .chip { white-space: normal; border-color: var(--rim-faint); font-size: .86rem }
.body :deep(textarea) { padding: 2px 4px; font-size: .95rem; line-height: 1.3 }
.body :deep(textarea:not(:hover):not(:focus)) { box-shadow: none; background: none }
.today { font-size: .9rem; padding-left: 4px }
.strand { padding-left: 4px }
.warn { color: var(--crust); font-size: .9rem; padding-left: 4px }
.caution { border-left: 4px solid var(--stop); padding-left: 8px; font-size: .88rem }
.details { grid-column: 2 / -1 }
@media (max-width: 760px) {
  .step { grid-template-columns: 26px 52px minmax(0, 1fr) 30px }
  .lasts { grid-column: 3; grid-row: 2; justify-self: start; margin-left: -1px }
  .lasts :deep(input) { text-align: left }
  .heat { grid-column: 3 / 5; grid-row: 2; justify-self: end }
  .more { grid-column: 4; grid-row: 1; height: 44px }
  .body, .details { grid-column: 1 / -1 }
}
</style>
