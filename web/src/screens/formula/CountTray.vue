<script setup lang="ts">
/** The count: pin what is known, see the rest worked out, and decide what does not come out whole. */
import { computed } from 'vue'
import CountChoices from './CountChoices.vue'
import CountFights from './CountFights.vue'
import CountRow from './CountRow.vue'
import type { Count, Formula, PinName, Problem, Whole } from '@/api/client'
import { plainCopy } from '@/copy'
import { withUnit, type Kind, type Units } from '@/format'

export interface CountTrayProps {
  formula: Formula
  /** The desk's own count; it is edited in place. */
  count: Count
  whole: Whole | null
  problem: Problem | null
  units: Units
  /** Reading only: nothing can be pinned. */
  locked: boolean
}
const props = defineProps<CountTrayProps>()
const emit = defineEmits<{
  working: [opened: string]
  /** Something other than typing is about to change the desk: a step of undo of its own. */
  step: []
}>()

const ROWS: { name: PinName; small?: boolean; ofPan?: boolean }[] = [
  { name: 'flour_g' },
  { name: 'dough_g' },
  { name: 'bench_loss', small: true },
  { name: 'divide_g' },
  { name: 'pieces' },
  { name: 'piece_g' },
  { name: 'pans', ofPan: true },
  { name: 'pieces_per_pan', small: true, ofPan: true },
  { name: 'fill', small: true, ofPan: true },
]
const per = computed(() => props.units.reference.fills[props.formula.usual.fill_kind]?.per ?? 'area')
const rows = computed(() =>
  ROWS.filter((row) => !row.ofPan || props.count.pan).map((row) => {
    const words = props.units.reference.quantities[row.name]
    return {
      ...row,
      label: words?.label ?? row.name,
      kind: (words?.kind ?? 'g') as Kind,
      unit: row.name === 'fill' ? (per.value === 'area' ? 'g/cm²' : 'g/ml') : '',
      worked: props.whole?.count.quantities[row.name],
      pin: props.count.pins[row.name] ?? undefined,
      wrong: props.problem?.errors?.find((issue) => issue.pointer.endsWith(`/pins/${row.name}`))?.detail,
      fights: props.whole?.count.fights.some((fight) => fight.alternatives.some((a) => a.pin === row.name)),
    }
  }),
)
/** What the server says of the pins or the pan, in words under them. */
const wrongHere = computed(() => props.problem?.errors?.find((issue) => issue.pointer.startsWith('/count'))?.detail)
const anyPin = computed(() => Object.values(props.count.pins).some((pin) => pin != null))
const left = computed(() => props.whole?.count.quantities.remainder_g?.value ?? 0)
const isLeft = computed(() => props.count.leave_remainder && left.value > 1e-3)

function pin(name: PinName, value: number | null): void {
  props.count.pins[name] = value
  // A new number makes an old decision about leavings one about something else.
  props.count.leave_remainder = false
  props.count.leave_gaps = false
}
function take(chosen: Count): void {
  emit('step')
  Object.assign(props.count, plainCopy(chosen))
}
function release(): void {
  emit('step')
  props.count.pins = {}
  props.count.leave_remainder = props.count.leave_gaps = false
}
/** What this count comes to becomes what the formula usually makes. */
function makeUsual(): void {
  emit('step')
  const value = (name: string) => props.whole?.count.quantities[name]?.value
  const { usual } = props.formula
  usual.piece_g = value('piece_g') ?? usual.piece_g
  usual.bench_loss = value('bench_loss') ?? usual.bench_loss
  usual.pieces_per_pan = value('pieces_per_pan') ?? usual.pieces_per_pan
  usual.pans = Math.max(1, value('pans') ?? usual.pans)
  usual.fill = value('fill') ?? usual.fill
  usual.pan = props.count.pan ? { ...props.count.pan } : null
}
</script>

<template>
  <section class="tray" aria-labelledby="count-head">
    <div class="tray-head">
      <h2 id="count-head" class="visually-hidden">Count</h2>
      <slot name="head" />
      <button v-if="anyPin && !locked" type="button" class="button bare" @click="release">Let all go</button>
    </div>
    <fieldset class="plain" :disabled="locked">
    <p v-if="!anyPin" class="quiet">Pin what you know; the rest is worked out.</p>
    <ul>
      <CountRow v-for="row in rows" :key="row.name" v-bind="row" :units="units" @pin="pin(row.name, $event)" @working="emit('working', row.name)" />
    </ul>
    <p v-if="wrongHere" class="said stop" role="alert">{{ wrongHere }}</p>
    <p v-if="isLeft" class="said">
      <strong>{{ withUnit(left, 'g', units) }} over: a baker’s bite</strong>
      <button type="button" class="button bare" @click="count.leave_remainder = false">Decide again</button>
    </p>
    <p v-if="count.leave_gaps && (whole?.count.loads.length ?? 0) > 1" class="said">
      Pans: <template v-for="(load, i) in whole?.count.loads" :key="i">{{ i ? ', ' : '' }}{{ load.pans }} of {{ load.pieces }}</template>
      <button type="button" class="button bare" @click="count.leave_gaps = false">Decide again</button>
    </p>
    <CountFights v-if="whole?.count.fights.length" :fights="whole.count.fights" :formula="formula" :units="units" @release="pin($event, null)" />
    <CountChoices v-else-if="whole?.count.choices.length" :whole="whole" :units="units" @take="take" />
    <button v-if="whole && !whole.count.fights.length && !whole.count.choices.length" type="button" class="button bare usual" title="Piece, loss, pan and fill of this count stand in from now on" @click="makeUsual">Make this the usual</button>
    </fieldset>
  </section>
</template>

<style scoped>
ul { list-style: none; margin: 0; padding: 0 }
.usual { font-size: .86rem; margin-top: 4px }
.said { margin-top: 8px }
</style>
