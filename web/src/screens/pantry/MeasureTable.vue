<script setup lang="ts">
/** What a measure of an ingredient weighs: low, usual, high, and where that comes from. A form in rows, each field with its own name. */
import type { Ingredient } from '@/api/client'
import type { Units } from '@/base/format'
import NumberBox from '@/design/NumberBox.vue'
import SelectField from '@/design/SelectField.vue'

type Weighed = Ingredient['measures'][number]
export interface MeasureTableProps {
  units: Units
  wrong: (place: string) => string | undefined
}
defineProps<MeasureTableProps>()
const measures = defineModel<Weighed[]>({ required: true })

const MEASURES = ['cup', 'tbsp', 'tsp', 'each', 'packet', 'stick', 'cube', 'cake', 'clove', 'slice', 'bunch', 'sprig', 'can', 'handful', 'pinch', 'knob', 'becher'] as const
const ENDS = ['low_g', 'usual_g', 'high_g'] as const
const set = (n: number, what: Partial<Weighed>) => (measures.value = measures.value.map((row, i) => (i === n ? { ...row, ...what } : row)))
function setEnd(n: number, end: (typeof ENDS)[number], value: number | null): void {
  if (value) set(n, { [end]: value, source: 'yours' })
}
const add = () => (measures.value = [...measures.value, { measure: 'cup', way: '', low_g: 90, usual_g: 100, high_g: 110, source: 'yours' }])
const remove = (n: number) => (measures.value = measures.value.filter((_, i) => i !== n))
</script>

<template>
  <div class="scroll">
    <table v-if="measures.length">
      <thead><tr><th>One</th><th>filled</th><th class="n">low g</th><th class="n">usual g</th><th class="n">high g</th><th>source</th><th><span class="visually-hidden">Remove</span></th></tr></thead>
      <tbody>
        <tr v-for="(row, n) in measures" :key="n">
          <td><SelectField :value="row.measure" :options="[...new Set<string>([...MEASURES, row.measure])].map((m) => ({ value: m, label: units.reference.measures[m]?.label ?? m }))" :label="`Measure ${n + 1}`" @choose="set(n, { measure: $event })" /></td>
          <td><el-input :model-value="row.way" maxlength="40" placeholder="any way" :aria-label="`How measure ${n + 1} is filled`" @input="set(n, { way: $event })" /></td>
          <td v-for="end in ENDS" :key="end"><NumberBox class="small" :value="row[end]" kind="count" :units="units" :label="`${end.split('_')[0]} weight of measure ${n + 1}`" :wrong="wrong(`/measures/${n}`)" @change="setEnd(n, end, $event)" /></td>
          <td class="quiet source">{{ row.source }}</td>
          <td><el-button text :aria-label="`Remove measure ${n + 1}`" @click="remove(n)">×</el-button></td>
        </tr>
      </tbody>
    </table>
  </div>
  <el-button text class="add" @click="add">+ Measure</el-button>
</template>

<style scoped>
.scroll { overflow-x: auto }
table { border-collapse: collapse; width: 100% }
th { text-align: left; font-size: .82rem; font-weight: 500; color: var(--ink-2); padding: 2px 6px 2px 0 }
td { padding: 3px 6px 3px 0 }
td:first-child { min-width: 130px }
td:nth-child(2) { min-width: 112px }
.n { text-align: right }
.small { width: 84px }
.source { min-width: 130px; line-height: 1.2 }
.add { justify-self: start }
</style>
