<script setup lang="ts">
/** The whole formula in one column: each ingredient once, over all stages, to be typed in grams or percent. */
import { computed } from 'vue'
import { lowerFirst, stageName } from './lines'
import type { Change, Formula, Row, Whole } from '@/api/client'
import NumberField from '@/design/NumberField.vue'
import { shown, type Units } from '@/base/format'

export interface WholeTableProps {
  formula: Formula
  whole: Whole
  units: Units
}
const props = defineProps<WholeTableProps>()
const emit = defineEmits<{ apply: [change: Change] }>()

/** Where it stands, where that is in more than one stage. */
const parts = (row: Row) => (row.parts.length < 2 ? [] : row.parts.map((part) => ({ key: `${part.stage}:${part.line}`, says: `${shown(part.shown_percent, 'percent', props.units)} in ${lowerFirst(stageName(props.formula, part.stage, props.units))}` })))
const rows = computed(() => props.whole.rows.map((row, i) => ({ row, key: `${row.name}:${row.role}`, parts: parts(row), called: row.name || 'line without a name', counted: shown(props.whole.row_count_g[i] ?? NaN, 'g', props.units) })))

function set(row: Row, field: 'weight_g' | 'percent', value: number | null): void {
  if (value === null) return
  emit('apply', { change: 'set_row', name: row.name, role: row.role, weight_g: field === 'weight_g' ? value : null, percent: field === 'percent' ? value : null })
}
</script>

<template>
  <table class="whole">
    <thead><tr><th scope="col">The whole formula</th><th scope="col" class="n">% of flour</th><th scope="col" class="n">as written</th><th scope="col" class="n">this count</th></tr></thead>
    <tbody>
      <tr v-for="{ row, key, parts: where, called, counted } in rows" :key="key" :data-row="row.name">
        <th scope="row"><span class="dot" :style="{ background: `var(--role-${row.role ?? 'salt'})` }" aria-hidden="true" />{{ called }}<small v-if="where.length" class="quiet"><span v-for="(part, i) in where" :key="part.key">{{ i ? ' · ' : '' }}{{ part.says }}</span></small></th>
        <td class="n"><NumberField :value="row.given === 'open' ? null : row.shown_percent" kind="percent" :units="units" :label="`${called}, percent in all`" :worked="row.given !== 'percent' || row.parts.length > 1" @change="set(row, 'percent', $event)" /></td>
        <td class="n"><NumberField :value="row.given === 'open' ? null : row.weight_g" kind="g" :units="units" :label="`${called}, weight in all`" :worked="row.given !== 'weight' || row.parts.length > 1" @change="set(row, 'weight_g', $event)" /></td>
        <td class="n count worked">{{ row.given === 'open' ? '–' : counted }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.whole { width: 100%; border-collapse: collapse; table-layout: fixed }
thead th { font-size: .78rem; font-weight: 400; color: var(--ink-2); text-align: left }
thead th.n { width: 84px; padding-right: 6px }
thead .n, td.n { text-align: right }
tbody tr { border-bottom: 1px solid var(--rim-faint) }
tbody th { text-align: left; font-weight: 400; padding: 5px 2px; overflow-wrap: anywhere }
small { display: block; line-height: 1.15; padding-left: 18px }
.dot { display: inline-block; width: 10px; height: 10px; border-radius: 50%; margin-right: 8px }
.count { font-weight: 700; padding-right: 5px }
.n :deep(.number) { width: 100% }
@media (max-width: 700px) { .n :deep(input) { padding: 9px 0 } thead th.n { width: 76px } }
</style>
