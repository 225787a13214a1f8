<script setup lang="ts">
/** Each rise as it will be today, drawn; into the fridge and back; and what of yeast or warmth would have it ready on time. */
import { computed } from 'vue'
import { wayNumber } from './steps'
import type { Change, Count, Formula, Lever, Method, RiseFigures } from '@/api/client'
import { plain, withUnit, type Units } from '@/base/format'
import { minutesText, NEAR_MIN, spanText } from '@/base/times'
import OpenWorking from '@/design/OpenWorking.vue'
import Said from '@/design/Said.vue'
import RiseCurve from '@/drawings/RiseCurve.vue'

export interface RisePanelProps {
  /** The desk's own; they are edited in place. */
  formula: Formula
  count: Count
  method: Method
  units: Units
  locked: boolean
}
const props = defineProps<RisePanelProps>()
const emit = defineEmits<{ working: [opened: string]; step: []; take: [change: Change, says: string] }>()

const way = computed(() => props.formula.ways[wayNumber(props.formula, props.count)])
const rises = computed(() => props.method.rises.map((rise) => ({ rise, label: props.method.steps[rise.step]?.label ?? 'rise', strand: props.method.strands[props.method.steps[rise.step]?.strand ?? 0]?.name ?? '' })))
const told = (rise: RiseFigures) => `${spanText(rise.told.low_min, rise.told.high_min)} at ${withUnit(rise.told_c, 'celsius', props.units)}${rise.told_yeast ? `, with ${plain(rise.told_yeast, 3)} % of yeast` : ''}`
const levers = computed(() => (Math.abs(props.method.spare_min ?? 0) < NEAR_MIN ? [] : props.method.levers))
/** Of a dose: what a scale for yeast can weigh. */
const DIGITS = 3
const nameOf = (lever: Lever) => (lever.what === 'yeast' ? 'Yeast' : `${props.method.steps[lever.step ?? 0]?.label ?? 'rise'} at`)
const figureOf = (lever: Lever) => (lever.needed == null ? '' : lever.what === 'yeast' ? `${plain(lever.needed, DIGITS)} % instead of ${plain(lever.now, DIGITS)} %` : `${withUnit(lever.needed, 'celsius', props.units, 3)} instead of ${withUnit(lever.now, 'celsius', props.units, 3)}`)

function take(lever: Lever): void {
  if (lever.needed == null) return
  if (lever.what === 'yeast') {
    emit('take', { change: 'way_yeast', way: props.count.way, yeast: Number(lever.needed.toPrecision(DIGITS)) }, `${plain(lever.needed, DIGITS)} % of yeast in this way.`)
    return
  }
  const step = way.value?.steps[lever.step ?? -1]
  if (!step) return
  emit('step')
  step.place = 'warm'
  props.count.today.warm_c = Math.round(lever.needed * 10) / 10
}
function moveTo(rise: RiseFigures): void {
  const step = way.value?.steps[rise.step]
  if (!step || !rise.elsewhere) return
  emit('step')
  const cold = rise.elsewhere.place === 'fridge'
  // What was told of it stays the anchor: only where it stands is another.
  step.heat ??= { low_c: rise.told_c, high_c: rise.told_c }
  step.place = cold ? 'fridge' : 'room'
  step.room_first_min = cold && rise.elsewhere.first_min > 1 ? Math.round(rise.elsewhere.first_min) : null
}
</script>

<template>
  <section class="tray" aria-labelledby="rise-head">
    <div class="tray-head"><h2 id="rise-head">Rises today</h2><span class="quiet">{{ plain(method.yeast, 3) }} % of yeast, as instant</span></div>
    <div v-if="levers.length" class="levers">
      <h3>To be ready on time, one of these</h3>
      <ul>
        <li v-for="(lever, n) in levers" :key="n">
          <span><b>{{ nameOf(lever) }}</b> <span v-if="figureOf(lever)" class="worked">{{ figureOf(lever) }}</span> <small v-if="lever.says" class="quiet">{{ lever.says }}</small></span>
          <el-button v-if="lever.needed != null && !locked" size="small" :aria-label="`Take ${nameOf(lever)} ${figureOf(lever)}`" @click="take(lever)">Take it</el-button>
        </li>
      </ul>
    </div>
    <p v-if="!rises.length" class="quiet">No step of this way is a rise yet.</p>
    <article v-for="{ rise, label, strand } in rises" :key="rise.step">
      <h3>{{ label }} <span v-if="method.strands.length > 1" class="quiet">{{ strand }}</span>
        <OpenWorking v-if="rise.usual_min != null" :name="`method:rise.${rise.step}`" :label="`${label}: usually ${minutesText(rise.usual_min)}.`" class="usual" @open="emit('working', $event)">{{ minutesText(rise.usual_min) }}</OpenWorking></h3>
      <Said v-if="rise.says" tone="stop">{{ rise.says }}</Said>
      <RiseCurve v-else :rise="rise" />
      <p class="quiet">Told as {{ told(rise) }}. Today the dough begins at {{ withUnit(rise.begins_c, 'celsius', units, 3) }}, where it is {{ withUnit(rise.around_c, 'celsius', units, 3) }}.</p>
      <p v-if="rise.elsewhere" class="elsewhere">
        {{ rise.elsewhere.place === 'fridge' ? 'In the fridge' : 'In the room' }}<template v-if="rise.elsewhere.first_min > 1">, after {{ minutesText(rise.elsewhere.first_min) }} here</template>: good from <b class="worked">{{ minutesText(rise.elsewhere.look_min) }}</b> to <b class="worked">{{ minutesText(rise.elsewhere.too_far_min) }}</b>
        <el-button v-if="!locked" text size="small" @click="moveTo(rise)">{{ rise.elsewhere.place === 'fridge' ? 'Into the fridge' : 'Out of the fridge' }}</el-button>
      </p>
    </article>
    <p v-for="says in method.says" :key="says" class="warn">{{ says }}</p>
  </section>
</template>

<style scoped>
article { border-top: 2px solid var(--rim-faint); padding: 5px 0 2px; margin-top: 5px }
h3 { font-size: 1rem; display: flex; gap: 8px; align-items: baseline }
.usual { margin-left: auto; font: 700 1.15rem var(--body) }
.elsewhere { font-size: .92rem; display: flex; flex-wrap: wrap; gap: 0 5px; align-items: center }
.levers ul { list-style: none; margin: 2px 0; padding: 0 }
.levers li { display: flex; gap: 8px; align-items: center; justify-content: space-between; min-height: 36px; border-bottom: 1px solid var(--rim-faint) }
.levers small { display: block }
.warn { color: var(--crust); font-weight: 600; margin-top: 4px }
</style>
