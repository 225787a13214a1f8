<script setup lang="ts">
/** Two ways side by side: the whole, by hand, when to begin to be ready; what dough each makes; and step by step what differs. */
import { computed, onMounted, ref, toRaw } from 'vue'
import { wayNumber } from './steps'
import { api, ask, type Count, type Formula, type Known } from '@/api/client'
import { useAnswer } from '@/base/useAnswer'
import { clockText, minutesText, spanText } from '@/base/times'
import type { Units } from '@/base/format'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'
import DifferenceTable from '@/screens/formula/revisions/DifferenceTable.vue'

export interface WaysBesideProps {
  formula: Formula
  count: Count
  known: Known
  units: Units
  /** The key of the other way. */
  other: string
}
const props = defineProps<WaysBesideProps>()
const emit = defineEmits<{ choose: [other: string]; close: [] }>()

const ours = computed(() => wayNumber(props.formula, props.count))
const theirs = computed(() => Math.max(0, props.formula.ways.findIndex((way) => way.key === props.other)))
const others = computed(() => props.formula.ways.flatMap((way, n) => (n === ours.value ? [] : [{ value: way.key, label: way.name || `Way ${n + 1}` }])))
const names = computed(() => [props.formula.ways[ours.value]?.name || 'this way', props.formula.ways[theirs.value]?.name || 'the other'] as const)
const ready = computed(() => ours.value !== theirs.value)
const { answer, problem } = useAnswer([() => props.formula, () => props.count, () => props.known, () => props.other], ready, () =>
  ask(api.POST('/api/reckon/ways', { body: { formula: toRaw(props.formula), count: toRaw(props.count), beside: props.other, looking_at: 0, ...props.known } })),
)
/** Opened where there is little room, it stands under the steps: it comes into sight. */
const tray = ref<HTMLElement>()
onMounted(() => tray.value?.scrollIntoView({ block: 'nearest' }))
const begins = (minutes: number | null | undefined) => (minutes == null ? '' : clockText(minutes, 0))
const figures = computed(() => {
  if (!answer.value) return []
  const { ours: a, theirs: b } = answer.value
  return [
    { label: 'The whole', ours: minutesText(a.usual_min), theirs: minutesText(b.usual_min) },
    { label: 'at its quickest and slowest', ours: spanText(a.low_min, a.high_min), theirs: spanText(b.low_min, b.high_min) },
    { label: 'By hand', ours: `${minutesText(a.hands_min)}, ${a.touches} goes`, theirs: `${minutesText(b.hands_min)}, ${b.touches} goes` },
    ...(a.begins_min == null && b.begins_min == null ? [] : [{ label: 'Begin at', ours: begins(a.begins_min), theirs: begins(b.begins_min) }, { label: 'Ready at', ours: begins(a.ready_min), theirs: begins(b.ready_min) }]),
  ]
})
const stepText = (side: 'ours' | 'theirs', n: number | null | undefined) => {
  const step = n == null ? undefined : answer.value?.[side].steps[n]
  return step ? `${step.label}${step.usual_min ? `, ${minutesText(step.usual_min)}` : ''}` : '–'
}
const steps = computed(() => (answer.value?.pairs ?? []).map((pair, key) => ({ key, alike: pair.alike, ours: stepText('ours', pair.ours), theirs: stepText('theirs', pair.theirs) })))
</script>

<template>
  <section ref="tray" class="tray beside-ways" aria-labelledby="ways-head">
    <div class="tray-head"><h2 id="ways-head">Ways side by side</h2><el-button text @click="emit('close')">Close</el-button></div>
    <label class="label">Beside<SelectField :value="other" :options="others" label="Beside which way" @choose="emit('choose', $event)" /></label>
    <Said v-if="problem" tone="stop">{{ problem.errors?.[0]?.detail ?? problem.detail }}</Said>
    <template v-if="answer">
      <el-table :data="figures" row-key="label">
        <el-table-column label="" prop="label" min-width="84" />
        <el-table-column :label="names[0]" min-width="96" align="right"><template #default="{ row }"><b class="worked">{{ row.ours }}</b></template></el-table-column>
        <el-table-column :label="names[1]" min-width="96" align="right"><template #default="{ row }"><span class="worked">{{ row.theirs }}</span></template></el-table-column>
      </el-table>
      <el-table :data="steps" row-key="key" :row-class-name="({ row }) => (row.alike ? 'alike' : 'differs')">
        <el-table-column :label="names[0]" prop="ours" min-width="110" />
        <el-table-column :label="names[1]" prop="theirs" min-width="110" />
      </el-table>
      <DifferenceTable :compared="answer.compared" :units="units" :sides="names" />
    </template>
  </section>
</template>

<style scoped>
.beside-ways { display: grid; gap: 8px; align-content: start }
:deep(.alike) { color: var(--ink-2) }
:deep(.differs td:first-child) { box-shadow: inset 3px 0 var(--crust) }
</style>
