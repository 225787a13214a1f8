<script setup lang="ts">
/** One line of a formula: its role, name, percent, weight as written, and weight in this count. */
import { computed, ref } from 'vue'
import IngredientField from './IngredientField.vue'
import { findIngredient, ROLES } from './lines'
import type { Ingredient, Line, Role } from '@/api/client'
import NumberBox from '@/design/NumberBox.vue'
import NumberField from '@/design/NumberField.vue'
import OpenWorking from '@/design/OpenWorking.vue'
import { shown, withUnit, type Units } from '@/base/format'
import SelectField from '@/design/SelectField.vue'

export interface LineRowProps {
  /** The desk's own line; it is edited in place. */
  line: Line
  figures: { given: string; percent: number; shown_percent: number; weight_g: number } | undefined
  /** Whether percentages are those of the kitchen's own counting, not of all flour as typed. */
  apart: boolean
  /** Weight in this count. [g] */
  countG: number | undefined
  pantry: readonly Ingredient[]
  units: Units
  /** Where it stands, as "stage:line". */
  spot: string
  /** What the server says is wrong, by field. */
  wrong: Readonly<Record<string, string>>
  /** Length of the bar under the line, 0 to 1. */
  share: number
  /** Its percentage in the way that is shown, where that is another; undefined where it is as in all ways. */
  otherPercent: number | undefined
  /** The formula has several ways, so that it may be otherwise in this one. */
  inWays: boolean
}
const props = defineProps<LineRowProps>()
const emit = defineEmits<{
  working: [opened: string]
  /** Go on to the next line, or make one. */
  done: []
  move: [by: 1 | -1]
  remove: []
  amount: [field: 'weight_g' | 'percent', value: number | null]
  /** Swap it for what goes by this label. */
  swap: [to: string]
  /** In this way it is otherwise, or as in the others again. */
  otherwise: [on: boolean]
}>()

const more = ref(false)
const called = computed(() => props.line.name || 'line without a name')
const COLUMNS = [
  { field: 'percent', kind: 'percent', label: 'percent of flour' },
  { field: 'weight_g', kind: 'g', label: 'weight as written' },
] as const
/** As typed, or as it follows from the other column; null where the amount is open. */
function amount(field: 'percent' | 'weight_g'): number | null | undefined {
  if (isOpen.value) return null
  if (props.otherPercent !== undefined) return field === 'percent' ? props.otherPercent : props.figures?.weight_g
  if (field === 'percent' && props.apart) return props.figures?.shown_percent
  return props.line[field] ?? props.figures?.[field]
}
const swaps = computed(() => [{ value: '', label: 'keep it' }, ...(props.units.reference.swaps[findIngredient(props.pantry, props.line.name)?.name ?? ''] ?? []).map((to) => ({ value: to, label: to }))])
/** What is said of it beside its amount: held back, in parts, how wet. */
const aside = computed(() => {
  const { held_back: held, parts, hydration } = props.line
  const heldG = props.countG === undefined ? '' : withUnit(props.countG * held, 'g', props.units, 3)
  return [props.otherPercent === undefined ? '' : `in this way; ${props.line.percent == null ? `${withUnit(props.line.weight_g ?? 0, 'g', props.units)} as written` : `${shown(props.line.percent, 'percent', props.units)} %`} in the others`, held ? `${heldG || `${shown(held, 'share', props.units)} %`} held back` : '', parts > 1 ? `in ${parts} parts` : '', hydration == null ? '' : `at ${shown(hydration, 'percent', props.units)} % hydration`].filter(Boolean).join(', ')
})
const isOpen = computed(() => props.line.percent == null && props.line.weight_g == null)
const counted = computed(() => (props.countG == null || isOpen.value ? '' : shown(props.countG, 'g', props.units)))

function rename(name: string): void {
  const known = findIngredient(props.pantry, name)
  const before = findIngredient(props.pantry, props.line.name)
  if (known) props.line.role = known.role
  else if (before) props.line.role = null
  if (known || before) props.line.hydration = known?.hydration ?? null
  props.line.name = name
}
function chooseRole(event: Event): void {
  props.line.role = ((event.target as HTMLSelectElement).value || null) as Role | null
}
</script>

<template>
  <li class="line" :style="{ '--share': share, '--role': `var(--role-${line.role ?? 'salt'})` }">
    <span class="role" :class="{ unknown: !line.role && line.name, wrong: wrong.role }">
      <select :value="line.role ?? ''" :aria-label="`What ${called} is in the dough`" :title="line.role ?? 'What is it in the dough?'" @change="chooseRole">
        <option value="">What is it?</option>
        <option v-for="role in ROLES" :key="role" :value="role">{{ role }}</option>
      </select>
      <span aria-hidden="true">{{ line.role || !line.name ? '' : '?' }}</span>
    </span>
    <IngredientField
      :data-cell="`${spot}:name`"
      :name="line.name"
      :pantry="pantry"
      :wrong="wrong.name ?? wrong.role"
      :label="`Name of line ${spot.replace(':', '.')}`"
      @change="rename"
      @done="emit('done')"
    />
    <NumberField
      v-for="column in COLUMNS"
      :key="column.field"
      :data-cell="`${spot}:${column.field}`"
      :value="amount(column.field)"
      :kind="column.kind"
      :units="units"
      :label="`${called}, ${column.label}`"
      :worked="otherPercent === undefined ? line[column.field] == null : column.field === 'weight_g'"
      :wrong="wrong[column.field]"
      @change="emit('amount', column.field, $event)"
      @working="emit('working', `line:${spot}:${column.field}`)"
    />
    <OpenWorking v-if="counted" class="counted" :name="`line:${spot}:count_g`" :label="`${called} in this count: ${counted}.`" @open="emit('working', $event)">{{ counted }}</OpenWorking>
    <span v-else class="counted quiet">–</span>
    <button type="button" class="more" :class="{ noted: line.note || line.written || aside }" :aria-expanded="more" :aria-label="`More for ${called}`" :title="[line.note, aside].filter(Boolean).join('; ') || line.written || undefined" @click="more = !more">
      <svg viewBox="0 0 20 20" width="16" aria-hidden="true"><path d="M5 8l5 5 5-5" fill="none" stroke="currentColor" stroke-width="2.4" stroke-linecap="round" /></svg>
    </button>
    <small v-if="aside && !more" class="aside quiet">{{ aside }}</small>
    <div v-if="more" class="extra">
      <el-input v-model="line.note" class="note" maxlength="300" placeholder="Note: warm, soft, last …" :aria-label="`Note for ${called}`" />
      <p v-if="line.written" class="written quiet">As written: “{{ line.written }}”<template v-if="line.band">, which may be {{ shown(line.band.low_g, 'g', units, 3) }}–{{ withUnit(line.band.high_g, 'g', units, 3) }}</template></p>
      <label class="label">Held back, %<NumberBox :value="line.held_back" kind="share" :units="units" :label="`${called}, share held back`" :wrong="wrong.held_back" @change="line.held_back = $event ?? 0" /></label>
      <label class="label">In parts<NumberBox :value="line.parts" kind="count" :units="units" :label="`${called}, in how many parts`" :wrong="wrong.parts" @change="line.parts = $event ?? 1" /></label>
      <label v-if="line.role === 'leaven'" class="label">Hydration, %<NumberBox :value="line.hydration" kind="percent" :units="units" :label="`${called}, hydration of the starter`" :wrong="wrong.hydration" @change="line.hydration = $event" /></label>
      <el-checkbox v-if="inWays" :model-value="otherPercent !== undefined" @change="emit('otherwise', Boolean($event))">otherwise in this way</el-checkbox>
      <label v-if="swaps.length > 1" class="label">Swap for<SelectField :value="''" :options="swaps" :label="`Swap ${called} for`" @choose="$event && emit('swap', $event)" /></label>
      <span class="acts">
        <el-button text size="small" :aria-label="`Move ${called} up`" @click="emit('move', -1)">Up</el-button>
        <el-button text size="small" :aria-label="`Move ${called} down`" @click="emit('move', 1)">Down</el-button>
        <el-button text size="small" :aria-label="`Remove ${called}`" @click="emit('remove')">Remove</el-button>
      </span>
    </div>
  </li>
</template>

<style scoped>
.line { display: grid; grid-template-columns: 18px minmax(90px, 1fr) 66px 74px 76px 26px; align-items: center; column-gap: 2px; border-bottom: 1px solid var(--rim-faint); position: relative; min-height: 30px }
.line::after { content: ''; position: absolute; left: 22px; bottom: -1px; height: 3px; border-radius: 2px; width: calc((100% - 270px) * var(--share)); background: var(--role); pointer-events: none }
.role { position: relative; width: 16px; height: 24px; display: grid; place-items: center; font-weight: 700; font-size: .8rem }
.role::before { content: ''; position: absolute; width: 10px; height: 10px; border-radius: 50%; background: var(--role) }
.role.unknown::before { width: 16px; height: 16px; background: var(--crust-soft); border: 1.5px solid var(--crust) }
.role.wrong::before { background: var(--stop-soft); border-color: var(--stop) }
.role span { position: relative; color: var(--crust); pointer-events: none }
.role select { position: absolute; inset: 0; opacity: 0; cursor: pointer; width: 100%; z-index: 1 }
.role:focus-within { outline: 3px solid var(--crust); border-radius: 8px }
.counted { text-align: right; padding: 4px 5px; font-weight: 700; font-size: 1.02rem }
.more { border: 0; background: none; width: 26px; height: 30px; padding: 0; cursor: pointer; color: var(--ink-2); border-radius: 8px; display: grid; place-items: center; justify-self: end }
.more.noted { color: var(--rim) }
.more:hover { background: var(--rim-faint) }
.more[aria-expanded='true'] svg { transform: rotate(180deg) }
.extra { grid-column: 2 / -1; display: flex; flex-wrap: wrap; align-items: end; gap: 4px; padding: 2px 0 7px }
.extra > .note { flex: 1 1 100% }
.extra .label { font-size: .76rem }
.extra .el-input:not(.note) { width: 68px }
.extra .el-select { width: 116px }
.aside { grid-column: 2 / -1; padding: 0 5px 2px; line-height: 1; margin-top: -3px; font-size: .78rem }
.written { flex: 1 0 100%; order: 3; padding: 2px 4px }
@media (max-width: 760px) {
  .line { grid-template-columns: 16px minmax(80px, 1fr) 48px 56px 60px 30px; min-height: 44px; column-gap: 0; font-size: .95rem }
  .line::after { width: calc((100% - 240px) * var(--share)); left: 20px }
  .line :deep(input) { min-height: 42px; padding-inline: 2px }
  .line > .number { padding-inline: 1px }
  .counted { padding: 10px 2px; font-size: 1rem }
  .more { width: 30px; height: 44px }
  .extra { grid-column: 1 / -1 }
}
</style>
