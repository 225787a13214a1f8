<script setup lang="ts">
/** Limits: at most so much of something. What binds is named, with what loosening it would give. */
import { computed } from 'vue'
import type { Count, Formula, Limit, LimitState, Problem, Whole } from '@/api/client'
import NumberField from '@/design/NumberField.vue'
import OpenWorking from '@/design/OpenWorking.vue'
import { withUnit, type Kind, type Units } from '@/base/format'
import SelectField from '@/design/SelectField.vue'

export interface LimitListProps {
  formula: Formula
  /** The desk's own count; it is edited in place. */
  count: Count
  whole: Whole | null
  problem: Problem | null
  units: Units
}
const props = defineProps<LimitListProps>()
const emit = defineEmits<{ working: [opened: string]; step: [] }>()

const MOST = 12
const START: Record<Limit['kind'], number> = { flour: 1500, ingredient: 100, bowl: 1, oven: 1, pot: 4, griddle: 10, fridge: 1, by_when: 60 }

/** What may be limited: kinds, and of ingredients those in the formula, by weight or counted. */
const offers = computed(() => {
  const names = [...new Set(props.formula.stages.flatMap((stage) => stage.lines.filter((line) => line.name && line.role !== 'flour').map((line) => line.name)))]
  const countable = Object.values(props.units.reference.counted)
  return [
    { value: 'flour', label: props.units.reference.limits.flour?.label ?? '', limit: { kind: 'flour', amount: START.flour } },
    ...names.flatMap((name) => [
      ...countable.filter((one) => one.ingredient === name).map((one) => ({ value: `${name}:${one.key}`, label: `${name}, in ${one.label}`, limit: { kind: 'ingredient', ingredient: name, each_g: one.each_g, amount: one.key.includes('packet') || one.key.includes('cube') ? 1 : 4 } })),
      { value: name, label: `${name}, by weight`, limit: { kind: 'ingredient', ingredient: name, amount: START.ingredient } },
    ]),
    ...(['bowl', 'oven', 'pot', 'griddle', 'fridge', 'by_when'] as const).map((kind) => ({ value: kind as string, label: props.units.reference.limits[kind]?.label ?? kind, limit: { kind, amount: START[kind] } })),
  ] as { value: string; label: string; limit: Partial<Limit> & Pick<Limit, 'kind' | 'amount'> }[]
})
function add(wanted: string): void {
  const offer = offers.value.find((one) => one.value === wanted)
  if (!offer) return
  emit('step')
  props.count.limits.push({ ingredient: '', each_g: null, ...offer.limit })
}
function remove(i: number): void {
  emit('step')
  props.count.limits.splice(i, 1)
}

const kindOf = (limit: Limit): Kind => (limit.kind === 'flour' || (limit.kind === 'ingredient' && limit.each_g == null) ? 'g' : limit.kind === 'by_when' ? 'min' : 'count')
const counted = (limit: Limit) => Object.values(props.units.reference.counted).find((one) => one.ingredient === limit.ingredient && one.each_g === limit.each_g)
const nameOf = (limit: Limit) => (limit.kind !== 'ingredient' ? (props.units.reference.limits[limit.kind]?.label ?? limit.kind) : limit.each_g == null ? limit.ingredient : (counted(limit)?.label ?? `${limit.ingredient}, pieces`))
const amount = (limit: Limit, value: number) => withUnit(value, kindOf(limit), props.units)

function loosened(state: LimitState): string {
  const without = state.without
  if (!without) return ''
  const pieces = without.pieces.map((n, i) => `${n}${without.pieces.length > 1 ? ` ${props.count.targets[i]?.name || `of target ${i + 1}`}` : ''}`).join(', ')
  return `Without it: ${pieces} ${without.pieces.length > 1 ? '' : without.pieces[0] === 1 ? 'piece' : 'pieces'} from ${withUnit(without.flour_g, 'g', props.units)} flour.`
}
const SILENT: Partial<Record<Limit['kind'], string>> = { ingredient: 'not in this formula', bowl: 'the bowl is not known: Kitchen, Kit', oven: 'the oven’s sheets are not known: Kitchen, Kit', pot: 'the pot is not known: Kitchen, Kit', griddle: 'the griddle is not known: Kitchen, Kit', fridge: 'the fridge shelf is not known: Kitchen, Kit', by_when: 'the oven’s sheets are not known: Kitchen, Kit' }
const rows = computed(() =>
  props.count.limits.map((limit, i) => {
    const state = props.whole?.count.limits[i]
    return { limit, state, name: nameOf(limit), is: state?.is_ ?? 'within', wrong: props.problem?.errors?.find((issue) => issue.pointer.includes(`/limits/${i}/`))?.detail }
  }),
)
</script>

<template>
  <div class="limits">
    <ul v-if="rows.length" aria-label="Limits">
      <li v-for="(row, i) in rows" :key="i" :class="row.is">
        <span class="name">{{ row.name }}<small>at most</small></span>
        <NumberField class="value" :value="row.limit.amount" :kind="kindOf(row.limit)" :units="units" :label="`${row.name}, at most`" :wrong="row.wrong" with-unit @change="$event !== null && (row.limit.amount = $event)" />
        <span class="need">
          <template v-if="row.state?.need != null"><OpenWorking :name="`limit.${i}`" @open="emit('working', $event)">{{ amount(row.limit, row.state.need) }}</OpenWorking></template>
        </span>
        <el-button text class="off" :aria-label="`Remove the limit ${row.name}`" @click="remove(i)">×</el-button>
        <p v-if="row.is === 'binds'" class="why"><strong>This binds.</strong> {{ row.state ? loosened(row.state) : '' }}</p>
        <p v-else-if="row.is === 'over'" class="why"><strong>More than there is.</strong> Let a pin go, or make less.</p>
        <p v-else-if="row.is === 'silent'" class="why quiet">Says nothing here: {{ SILENT[row.limit.kind] }}.</p>
      </li>
    </ul>
    <div v-if="count.limits.length < MOST" class="add">
      <SelectField :value="undefined" :options="offers" label="Add a limit" hint="+ Limit: a bag, eggs, the bowl, the oven …" @choose="add" />
    </div>
  </div>
</template>

<style scoped>
.limits { margin-top: 8px; border-top: 2px solid var(--rim-faint); padding-top: 6px }
ul { list-style: none; margin: 0; padding: 0 }
li { display: grid; grid-template-columns: minmax(0, 1fr) 82px auto 34px; align-items: center; gap: 0 2px; min-height: 40px; border-radius: 10px; padding-left: 4px }
li.over { background: var(--stop-soft) }
li.binds { background: var(--crust-soft) }
.name { line-height: 1.1; font-size: .95rem }
.name small { display: block; color: var(--ink-2) }
.value { font-weight: 650 }
.need { text-align: right; min-width: 48px }
.need .opens { font-weight: 700 }
.over .need .opens { color: var(--stop) }
.off { width: 34px; font-size: 1.2rem; padding: 0 }
.why { grid-column: 1 / -1; margin: 0 0 6px; font-size: .9rem }
.add :deep(.el-select__wrapper) { box-shadow: none; border: 1.5px dashed var(--rim-soft); background: none }
</style>
