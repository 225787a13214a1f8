<script setup lang="ts">
/** The count: pin what is known of the batch and of its targets, see the rest worked out, decide what does not come out whole. */
import { computed } from 'vue'
import CountChoices from './CountChoices.vue'
import CountFights from './CountFights.vue'
import CountRow from './CountRow.vue'
import LimitList from './LimitList.vue'
import TargetTabs from './TargetTabs.vue'
import { fillPer, labelOf } from '@/screens/formula/working/words'
import type { Count, Formula, PinName, Pins, Problem, TargetPins, Whole } from '@/api/client'
import { plainCopy } from '@/base/copy'
import { withUnit, type Kind, type Units } from '@/base/format'
import LockedPart from '@/design/LockedPart.vue'
import Said from '@/design/Said.vue'

export interface CountTrayProps {
  formula: Formula
  /** The desk's own count; it is edited in place. */
  count: Count
  whole: Whole | null
  problem: Problem | null
  units: Units
  /** The target that is looked at. */
  target: number
  /** Reading only: nothing can be pinned. */
  locked: boolean
}
const props = defineProps<CountTrayProps>()
const emit = defineEmits<{
  working: [opened: string]
  /** Something other than typing is about to change the desk: a step of undo of its own. */
  step: []
  /** Look at another target. */
  look: [target: number]
}>()

type Row = { name: PinName; small?: boolean; ofPan?: boolean; several?: boolean }
const BATCH: Row[] = [{ name: 'flour_g' }, { name: 'dough_g' }, { name: 'bench_loss', small: true }, { name: 'divide_g' }]
const TARGET: Row[] = [
  { name: 'take_g', small: true, several: true },
  { name: 'pieces' },
  { name: 'piece_g' },
  { name: 'bake_loss', small: true },
  { name: 'baked_g' },
  { name: 'pans', ofPan: true },
  { name: 'pieces_per_pan', small: true, ofPan: true },
  { name: 'fill', small: true, ofPan: true },
]
const one = computed(() => props.count.targets[props.target] ?? props.count.targets[0])
const several = computed(() => props.count.targets.length > 1)
const per = computed(() => fillPer(props.formula, props.count, props.target, props.units))
const FILL_UNIT = { area: 'g/cm²', volume: 'g/ml', share: '' } as const

function shownRow(row: Row, full: string, pin: number | null | undefined, pointer: string) {
  const words = props.units.reference.quantities[row.name]
  return {
    ...row,
    name: full,
    label: words?.label ?? row.name,
    kind: (row.name === 'fill' && per.value === 'share' ? 'share' : (words?.kind ?? 'g')) as Kind,
    unit: row.name === 'fill' ? FILL_UNIT[per.value] : '',
    worked: props.whole?.count.quantities[full],
    pin: pin ?? undefined,
    wrong: props.problem?.errors?.find((issue) => issue.pointer.endsWith(pointer))?.detail,
    fights: props.whole?.count.fights.some((fight) => fight.alternatives.some((a) => a.pin === full)),
  }
}
const batch = computed(() => BATCH.map((row) => shownRow(row, row.name, props.count.pins[row.name as keyof Pins], `/count/pins/${row.name}`)))
const rows = computed(() =>
  TARGET.filter((row) => (!row.ofPan || one.value?.pan) && (!row.several || several.value)).map((row) =>
    shownRow(row, `${row.name}.${props.target}`, one.value?.pins[row.name as keyof TargetPins], `/targets/${props.target}/pins/${row.name}`),
  ),
)
/** What the server says of the count, in words under it. */
const wrongHere = computed(() => props.problem?.errors?.find((issue) => issue.pointer.startsWith('/count'))?.detail)
const anyPin = computed(() => [props.count.pins, ...props.count.targets.map((target) => target.pins)].some((pins) => Object.values(pins).some((pin) => pin != null)))
const left = computed(() => props.whole?.count.quantities.remainder_g?.value ?? 0)
const isLeft = computed(() => left.value > 1e-3 && (props.count.leave_remainder || !props.whole?.count.choices.length))
const loads = computed(() => props.whole?.count.loads[props.target] ?? [])

function pin(full: string, value: number | null): void {
  const [name = '', target] = full.split('.')
  if (target === undefined) props.count.pins[name as keyof Pins] = value
  else {
    const pinned = props.count.targets[Number(target)]
    if (!pinned) return
    pinned.pins[name as keyof TargetPins] = value
    pinned.leave_gaps = false
  }
  // A new number makes an old decision about leavings one about something else.
  props.count.leave_remainder = false
}
function take(chosen: Count): void {
  emit('step')
  Object.assign(props.count, plainCopy(chosen))
}
function release(): void {
  emit('step')
  props.count.pins = {}
  for (const target of props.count.targets) {
    target.pins = {}
    target.leave_gaps = false
  }
  props.count.leave_remainder = false
}
/** What this count comes to becomes what the formula usually makes. */
function makeUsual(): void {
  emit('step')
  const of = (name: string) => props.whole?.count.quantities[`${name}.${props.target}`]?.value
  const { usual } = props.formula
  usual.bench_loss = props.whole?.count.quantities.bench_loss?.value ?? usual.bench_loss
  usual.piece_g = of('piece_g') ?? usual.piece_g
  usual.bake_loss = of('bake_loss') ?? usual.bake_loss
  usual.pieces_per_pan = of('pieces_per_pan') ?? usual.pieces_per_pan
  usual.pans = Math.max(1, of('pans') ?? usual.pans)
  usual.fill_kind = one.value?.fill_kind ?? usual.fill_kind
  usual.fill = of('fill') ?? null
  usual.pan = one.value?.pan ? plainCopy(one.value.pan) : null
  usual.shaping = one.value?.shaping ? plainCopy(one.value.shaping) : usual.shaping
}
const canBeUsual = computed(() => props.whole && !props.whole.count.fights.length && !props.whole.count.choices.length)
</script>

<template>
  <section class="tray" aria-labelledby="count-head">
    <div class="tray-head">
      <h2 id="count-head" class="visually-hidden">Count</h2>
      <slot name="head" />
    </div>
    <LockedPart :locked="locked">
      <p class="quiet hint"><span>{{ anyPin ? 'Pin what you know.' : 'Pin what you know; the rest is worked out.' }}</span><el-button v-if="anyPin && !locked" text size="small" @click="release">Let all go</el-button></p>
      <ul>
        <CountRow v-for="row in batch" :key="row.name" v-bind="row" :units="units" @pin="pin(row.name, $event)" @working="emit('working', row.name)" />
      </ul>
      <TargetTabs :count="count" :whole="whole" :target="target" :locked="locked" @look="emit('look', $event)" @step="emit('step')" />
      <ul :aria-label="one?.name || 'What is made of it'">
        <CountRow v-for="row in rows" :key="row.name" v-bind="row" :units="units" @pin="pin(row.name, $event)" @working="emit('working', row.name)" />
      </ul>
      <Said tone="stop" v-if="wrongHere">{{ wrongHere }}</Said>
      <Said v-if="isLeft" class="left">
        <strong>{{ withUnit(left, 'g', units) }} over<template v-if="count.leave_remainder">: a baker’s bite</template></strong>
        <el-button text v-if="count.leave_remainder" @click="count.leave_remainder = false">Decide again</el-button>
      </Said>
      <Said v-if="one?.leave_gaps && loads.length > 1" class="left">
        Pans: <template v-for="(load, i) in loads" :key="i">{{ i ? ', ' : '' }}{{ load.pans }} of {{ load.pieces }}</template>
        <el-button text @click="one.leave_gaps = false">Decide again</el-button>
      </Said>
      <CountFights v-if="whole?.count.fights.length" :fights="whole.count.fights" :formula="formula" :count="count" :units="units" @release="pin($event, null)" />
      <CountChoices v-else-if="whole?.count.choices.length || whole?.count.extras.length" :whole="whole" :count="count" :units="units" @take="take">
        <el-button v-if="canBeUsual && !locked" text size="small" :title="`${labelOf('piece_g', count, units.reference)}, losses, pan and fill of this count stand in from now on`" @click="makeUsual">Make this the usual</el-button>
      </CountChoices>
      <LimitList :formula="formula" :count="count" :whole="whole" :problem="problem" :units="units" @working="emit('working', $event)" @step="emit('step')" />
    </LockedPart>
  </section>
</template>

<style scoped>
ul { list-style: none; margin: 0; padding: 0 }
.hint { display: flex; justify-content: space-between; align-items: center; min-height: 30px }
.said { margin-top: 8px }
.left :deep(.el-alert__description) { display: flex; justify-content: space-between; align-items: center }
</style>
