<script setup lang="ts">
/** One thing of the timetable, opened: when, why then, how far it may slide and what that costs; pinned, let go, marked as it happened. */
import { computed, ref, watch } from 'vue'
import AtField from './AtField.vue'
import type { Day, DayProduct, Doing, Mark, Timetable } from '@/api/client'
import { atText, fullText } from '@/base/dayTimes'
import { minutesText, spanText } from '@/base/times'
import SelectField from '@/design/SelectField.vue'

export interface WhyCardProps {
  day: Day
  timetable: Timetable
  block: number
}
const props = defineProps<WhyCardProps>()
const emit = defineEmits<{ close: []; pin: [product: DayProduct, doing: Doing, at: number]; free: [product: DayProduct, steps: number[]]; mark: [product: DayProduct, mark: Mark]; unmark: [product: DayProduct, step: number]; hold: [product: DayProduct, steps: number[]] }>()

const doings = computed(() => props.timetable.doings.filter((one) => one.block === props.block))
const first = computed(() => doings.value[0])
const product = computed(() => props.day.products[first.value?.product ?? -1])
const slide = computed(() => props.timetable.slides.find((one) => one.block === props.block))
const gaps = computed(() => props.timetable.giving.filter((one) => one.steps.length && (one.before === props.block || (one.after === props.block && one.before !== props.block))))
const steps = computed(() => [...new Map(doings.value.map((one) => [one.step, one])).values()].map((one) => ({ value: one.step, label: one.label })))
const pinned = computed(() => product.value?.pins.filter((pin) => doings.value.some((one) => one.step === pin.step)) ?? [])
const name = computed(() => props.timetable.products[first.value?.product ?? -1]?.name ?? '')
const ends = computed(() => Math.max(...doings.value.map((one) => one.ends_min)))
const at = (minutes: number) => atText(props.day.date, minutes)

const marking = ref(0)
watch([() => props.block, steps], () => (marking.value = steps.value[0]?.value ?? 0), { immediate: true })
const marked = computed(() => product.value?.marks.find((one) => one.step === marking.value))
const own = computed(() => doings.value.filter((one) => one.step === marking.value))
const planned = computed(() => ({ begins: Math.min(...own.value.map((one) => one.begins_min)), ends: Math.max(...own.value.map((one) => one.ends_min)) }))
function setMark(what: Partial<Mark>): void {
  const one = own.value[0]
  if (!product.value || !one) return
  const mark: Mark = { step: one.step, kind: one.kind, began_min: marked.value?.began_min ?? null, ended_min: marked.value?.ended_min ?? null, ...what }
  if (mark.began_min === null && mark.ended_min === null) emit('unmark', product.value, one.step)
  else if (!(mark.began_min != null && mark.ended_min != null && mark.ended_min < mark.began_min)) emit('mark', product.value, mark)
}
const LATER = [15, 30] as const
const pin = (minutes: number) => product.value && first.value && emit('pin', product.value, first.value, minutes)
</script>

<template>
  <section v-if="first && product" class="tray why" aria-labelledby="why-head">
    <div class="tray-head">
      <h2 id="why-head">{{ name }}: {{ steps.map((one) => one.label).join(', ') }}</h2>
      <el-button text aria-label="Close" @click="emit('close')">Close</el-button>
    </div>
    <div class="parts">
      <div>
        <div class="when">
          <label class="label">Begins<AtField :value="pinned.length ? first.begins_min : null" :worked="first.begins_min" :date="day.date" label="Begins at" full :near="first.begins_min" @change="$event === null ? emit('free', product, doings.map((one) => one.step)) : pin($event)" /></label>
          <p>until <b>{{ fullText(day.date, ends) }}</b></p>
          <el-button v-if="pinned.length" @click="emit('free', product, doings.map((one) => one.step))">Let go of the pin</el-button>
          <template v-else-if="first.happened"><span class="quiet">It has happened{{ marked ? '' : ', as told' }}.</span><el-button @click="emit('hold', product, doings.map((one) => one.step))">It has not begun yet</el-button></template>
          <template v-else><el-button aria-label="Pin 5 min earlier" @click="pin(first.begins_min - 5)">−5 min</el-button><el-button aria-label="Pin 5 min later" @click="pin(first.begins_min + 5)">+5 min</el-button></template>
        </div>
        <ul v-if="slide && !first.happened && !pinned.length" class="reasons">
          <li><b>Not sooner</b> than {{ at(slide.earliest_min) }}: {{ slide.not_earlier }}.<span v-if="slide.costs_earlier" class="quiet"> At {{ at(slide.earliest_min) }} it would cost: {{ slide.costs_earlier }}.</span></li>
          <li><b>Not later</b> than {{ at(slide.latest_min) }}: {{ slide.not_later }}.<span v-if="slide.costs_later" class="quiet"> At {{ at(slide.latest_min) }} it would cost: {{ slide.costs_later }}.</span></li>
        </ul>
      </div>
      <ul class="gaps">
        <li v-for="gap in gaps" :key="`${gap.before}.${gap.after}.${gap.label}`"><b>{{ gap.before === block ? 'After it' : 'Before it' }}: {{ gap.label }}</b> <span class="worked">{{ minutesText(gap.ends_min - gap.begins_min) }}</span> <span class="quiet">usually {{ minutesText(gap.usual_min) }}, {{ spanText(gap.low_min, gap.high_min) }}<template v-if="gap.bears_min > gap.high_min + 1">, bears {{ minutesText(gap.bears_min) }}</template></span><b v-if="gap.beyond_min >= 5" class="late"> {{ minutesText(gap.beyond_min) }} too long</b></li>
      </ul>
      <div class="happened">
        <span class="quiet">As it happened</span>
        <div class="row">
          <SelectField v-if="steps.length > 1" :value="marking" :options="steps" label="Which step happened" @choose="marking = $event" />
          <label class="label">Began<AtField :value="marked?.began_min ?? null" :date="day.date" label="It began at" :near="planned.begins" full @change="setMark({ began_min: $event })" /></label>
          <label class="label">Ended<AtField :value="marked?.ended_min ?? null" :date="day.date" label="It ended at" :near="planned.ends" full @change="setMark({ ended_min: $event })" /></label>
          <el-button v-for="minutes in LATER" :key="minutes" @click="setMark({ began_min: Math.round(planned.begins) + minutes })">began {{ minutes }} min late</el-button>
          <el-button @click="setMark({ began_min: Math.round(planned.begins) })">as told</el-button>
          <el-button v-if="marked" text @click="emit('unmark', product, marking)">Not yet</el-button>
        </div>
      </div>
    </div>
  </section>
</template>

<style scoped>
.why { border-color: var(--crust) }
.parts { display: grid; grid-template-columns: 1.2fr 1fr; gap: 8px 20px }
.when { display: flex; flex-wrap: wrap; gap: 8px 10px; align-items: end }
.when .label { width: 110px }
.when p { min-height: 30px }
ul { list-style: none; margin: 6px 0 0; padding: 0; display: grid; gap: 4px }
.late { color: var(--stop) }
.happened { grid-column: 1 / -1; border-top: 1px solid var(--rim-faint); padding-top: 6px }
.happened .row { display: flex; flex-wrap: wrap; gap: 8px; align-items: end }
.happened .label { width: 104px }
.happened :deep(.el-select) { width: 170px }
@media (max-width: 760px) { .parts { grid-template-columns: minmax(0, 1fr) } }
</style>
