<script setup lang="ts">
/** The steps of a way: added, put in order by key and by dragging, typed; read from a text; what no step uses is told under them. */
import { computed, nextTick, ref } from 'vue'
import { emptyStep, kindOptions, moveStep, ownWay, placeFor, wayNumber } from './steps'
import StepRow from './StepRow.vue'
import { useDragOrder } from './useDragOrder'
import type { Count, Formula, Method } from '@/api/client'
import type { Units } from '@/base/format'
import { tell } from '@/base/notice'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'

export interface StepListProps {
  /** The desk's own; they are edited in place. */
  formula: Formula
  count: Count
  method: Method | null
  units: Units
  locked: boolean
}
const props = defineProps<StepListProps>()
const emit = defineEmits<{ working: [opened: string]; step: []; undo: []; read: [] }>()
/** Which step is open; −1 for none. */
const open = defineModel<number>('open', { required: true })

const list = ref<HTMLElement>()
const way = computed(() => props.formula.ways[wayNumber(props.formula, props.count)])
const steps = computed(() => way.value?.steps ?? [])
let keys = 0
const keyOf = new WeakMap<object, number>()
function key(of: object): number {
  if (!keyOf.has(of)) keyOf.set(of, ++keys)
  return keyOf.get(of) as number
}
const rows = () => [...(list.value?.querySelectorAll<HTMLElement>('[data-step]') ?? [])]
const focusStep = (n: number) => void nextTick(() => rows()[n]?.querySelector<HTMLElement>('.grab')?.focus())
const { dragged, begin } = useDragOrder(rows, (from, to) => (way.value ? moveStep(way.value, from, to) : from), () => emit('step'))

function add(kind: string): void {
  emit('step')
  const own = ownWay(props.formula, props.count)
  const at = placeFor(own, kind, Object.keys(props.units.reference.step_kinds))
  own.steps.splice(at, 0, emptyStep(kind))
  open.value = at
  void nextTick(() => rows()[at]?.querySelector<HTMLElement>('textarea')?.focus())
}
function move(n: number, by: 1 | -1): void {
  if (!way.value || n + by < 0 || n + by >= way.value.steps.length) return
  emit('step')
  const at = moveStep(way.value, n, n + by)
  if (open.value === n) open.value = at
  focusStep(at)
}
function remove(n: number): void {
  emit('step')
  way.value?.steps.splice(n, 1)
  open.value = -1
  tell(`Removed step ${n + 1}.`, () => emit('undo'))
}
/** A rise whose time was typed is told for the dough as it is now. */
function anchor(n: number): void {
  const step = way.value?.steps[n]
  if (step && props.method) step.told_yeast = props.method.yeast || null
}
function onKey(event: KeyboardEvent): void {
  const at = Number((event.target as HTMLElement).closest?.('[data-step]')?.getAttribute('data-step') ?? -1)
  const by = ({ ArrowUp: -1, ArrowDown: 1 } as Record<string, 1 | -1 | undefined>)[event.key]
  if (at < 0 || !event.altKey || props.locked) return
  if (by) move(at, by)
  else if (event.key === 'Backspace' || event.key === 'Delete') remove(at)
  else return
  event.preventDefault()
}
const loose = computed(() => props.method?.troubles.filter((one) => one.what !== 'gone') ?? [])
</script>

<template>
  <div>
    <ol ref="list" class="steps" @keydown="onKey">
      <StepRow v-for="(step, n) in steps" :key="key(step)" :step="step" :way="way!" :formula="formula" :n="n" :method="method" :units="units" :open="open === n" :dragged="dragged === n" :locked="locked" @working="emit('working', $event)" @toggle="open = open === n ? -1 : n" @grab="begin($event, n)" @move="move(n, $event)" @remove="remove(n)" @step="emit('step')" @anchor="anchor(n)" />
    </ol>
    <el-empty v-if="!steps.length" description="No steps yet. Read them from a text, or add the first."><template #image><span /></template></el-empty>
    <div v-if="!locked" class="adding">
      <SelectField class="add" :value="null" :options="kindOptions(units)" hint="Add a step" label="Add a step" @choose="add" />
      <el-button @click="emit('read')">Read from a text</el-button>
    </div>
    <Said v-if="loose.length" tone="now"><ul><li v-for="one in loose" :key="one.says">{{ one.says }}</li></ul></Said>
  </div>
</template>

<style scoped>
.steps { list-style: none; margin: 0; padding: 0 }
.adding { display: flex; flex-wrap: wrap; gap: 8px; margin: 8px 0 }
.add { flex: 0 1 220px }
</style>
