<script setup lang="ts">
/** What lies on the desk beside a revision, of this formula or another: what differs, and bringing it over. */
import { useQuery } from '@tanstack/vue-query'
import { computed, toRaw } from 'vue'
import DifferenceTable from './DifferenceTable.vue'
import { useRevision, useRevisions } from './useRevisions'
import { api, ask, type Change, type ComparedLine, type Formula, type Known } from '@/api/client'
import { plainCopy } from '@/base/copy'
import { withUnit, type Units } from '@/base/format'
import { useAnswer } from '@/base/useAnswer'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'

export interface CompareTrayProps {
  /** What lies on the desk, or the revision being read. */
  formula: Formula
  /** The revision being read; undefined while the desk is shown. */
  reading: number | undefined
  /** The formula and revision that it is compared with. */
  other: { id: number; revision: number }
  /** The formula on the desk, where it is kept already. */
  id: number | null
  known: Known
  units: Units
}
const props = defineProps<CompareTrayProps>()
const emit = defineEmits<{
  /** Show the desk, or a revision of this formula, on this side. */
  read: [revision: number | undefined]
  choose: [other: { id: number; revision: number }]
  apply: [change: Change, says: string]
  /** All of the other revision is to lie on the desk. */
  bring: [formula: Formula, says: string]
  close: []
}>()

const formulas = useQuery({ queryKey: ['formulas', false], queryFn: () => ask(api.GET('/api/formulas', { params: { query: { archived: false } } })) })
const revisions = useRevisions(() => props.other.id)
const own = useRevisions(() => props.id)
const theirs = useRevision(() => props.other.id, () => props.other.revision)
/** Formulas that have a revision to compare with. */
const saved = computed(() => (formulas.data.value ?? []).filter((head) => head.latest_number > 0))
const error = computed(() => theirs.error.value ?? revisions.error.value ?? formulas.error.value)

const ready = computed(() => theirs.data.value !== undefined)
const ours = computed(() => props.formula)
const { answer, problem } = useAnswer([ours, () => theirs.data.value, () => props.known], ready, () =>
  ask(api.POST('/api/reckon/compare', { body: { ours: toRaw(props.formula), theirs: theirs.data.value?.formula as Formula, flour_g: 1000, ...props.known } })),
)
const otherName = computed(() => theirs.data.value?.formula.name ?? '')
const sides = computed(() => [props.reading === undefined ? 'desk' : `rev. ${props.reading}`, props.other.id === props.id ? `rev. ${props.other.revision}` : otherName.value] as const)

const numbered = (found: readonly { number: number; note: string }[] | undefined) => (found ?? []).map(({ number, note }) => ({ value: number, label: `${number}: ${note || 'no note'}` }))
function chooseFormula(id: number): void {
  const head = saved.value.find((one) => one.id === id)
  if (head) emit('choose', { id, revision: head.latest_number })
}
function bring(what: 'line' | 'stage', line: ComparedLine): void {
  if (!line.theirs || !theirs.data.value) return
  const called = what === 'line' ? line.name : line.stage || line.kind
  emit('apply', { change: 'bring_over', what, theirs: plainCopy(theirs.data.value.formula), stage: line.theirs.stage, line: line.theirs.line, way: 0 }, `Brought over ${called} from ${sides.value[1]}.`)
}
function bringWay(way: number, name: string): void {
  if (theirs.data.value) emit('apply', { change: 'bring_over', what: 'way', theirs: plainCopy(theirs.data.value.formula), stage: 0, line: 0, way }, `Brought over the way ${name} from ${sides.value[1]}.`)
}
function bringAll(): void {
  if (theirs.data.value) emit('bring', { ...plainCopy(theirs.data.value.formula), name: props.formula.name }, `All of ${sides.value[1]} lies on the desk.`)
}
</script>

<template>
  <section class="tray compare" aria-labelledby="compare-head">
    <div class="tray-head">
      <h2 id="compare-head">Side by side</h2>
      <el-button text @click="emit('close')">Close</el-button>
    </div>
    <div class="choose">
      <label class="label">This formula<SelectField :value="reading ?? 0" :options="[{ value: 0, label: 'what lies on the desk' }, ...numbered(own.data.value)]" label="This formula, as it is in" @choose="emit('read', $event || undefined)" /></label>
      <label class="label">beside<SelectField :value="other.id" :options="saved.map((head) => ({ value: head.id, label: `${head.name}${head.id === id ? ' (this one)' : ''}` }))" label="Beside which formula" @choose="chooseFormula" /></label>
      <label class="label">as it was in<SelectField :value="other.revision" :options="numbered(revisions.data.value)" label="As it was in which revision" @choose="emit('choose', { id: other.id, revision: $event })" /></label>
      <el-button v-if="reading === undefined" :disabled="!ready" @click="bringAll">Bring all of it</el-button>
    </div>
    <Said tone="stop" v-if="error">{{ error.message }}</Said>
    <Said tone="stop" v-else-if="problem">{{ problem.errors?.[0]?.detail ?? problem.detail }}</Said>
    <p v-else-if="!answer" class="quiet">Laying them side by side …</p>
    <template v-if="answer">
      <p class="quiet">Both on {{ withUnit(answer.flour_g, 'g', units) }} flour; what differs most stands first.</p>
      <DifferenceTable :compared="answer" :units="units" :sides="sides" :can-bring="reading === undefined" @line="bring('line', $event)" @stage="bring('stage', $event)" @way="bringWay" />
    </template>
  </section>
</template>

<style scoped>
.compare { display: grid; gap: 8px; align-content: start }
.choose { display: flex; flex-wrap: wrap; gap: 8px 12px; align-items: end }
.choose .label { flex: 1 1 150px }
p { margin: 0 }
</style>
