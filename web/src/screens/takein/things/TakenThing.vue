<script setup lang="ts">
/** One thing on a line, what it was taken to be, and, opened, everything that can be settled of it by hand. */
import { computed, ref, watch } from 'vue'
import BandBar from './BandBar.vue'
import type { Row } from '@/screens/takein/recipe/useTaking'
import { LINE_KINDS, WHERE } from './where'
import type { Ingredient, Settled } from '@/api/client'
import ChoiceRow from '@/design/ChoiceRow.vue'
import NumberBox from '@/design/NumberBox.vue'
import { shown, withUnit, unitOf, type Units } from '@/base/format'
import IngredientField from '@/screens/formula/lines/IngredientField.vue'
import { ROLES } from '@/screens/formula/lines/lines'
import SelectField from '@/design/SelectField.vue'

export interface TakenThingProps {
  row: Row
  open: boolean
  /** Whether its line is the one looked at. */
  looked: boolean
  percent: { low: number; usual: number; high: number } | undefined
  /** Shown in grams, or in percent of flour. */
  kind: 'g' | 'percent'
  pantry: readonly Ingredient[]
  units: Units
}
const props = defineProps<TakenThingProps>()
const emit = defineEmits<{
  toggle: []
  settle: [what: Partial<Settled>]
  unsettle: []
  weigh: []
}>()

const WAY_WORDS: Record<string, string> = { scooped: 'dipped and scooped', spooned: 'spooned and levelled', packed: 'packed', loose: 'loose' }

const thing = computed(() => props.row.thing)
const named = computed(() => thing.value.name || 'not understood')
const apart = computed(() => thing.value.where !== 'dough')
const band = computed(() => thing.value.band)
const amount = computed(() => thing.value.amount)
/** What the row shows: percent of flour, or where that is not asked for or not known, grams. */
const figures = computed(() => {
  const b = band.value
  if (props.kind === 'percent' && props.percent && !apart.value) return { ...props.percent, kind: 'percent' as const }
  return b ? { low: b.low_g, usual: b.usual_g, high: b.high_g, kind: 'g' as const } : null
})
const ends = computed(() => {
  const f = figures.value
  if (!f || f.high - f.low < 0.02 * f.usual) return ''
  return `${shown(f.low, f.kind, props.units, 3)}–${shown(f.high, f.kind, props.units, 3)}`
})
const percentWords = computed(() => {
  const p = props.percent
  if (!p) return ''
  const [low, high] = [shown(p.low, 'percent', props.units, 3), shown(p.high, 'percent', props.units, 3)]
  return low === high ? `${low} % of flour` : `${shown(p.usual, 'percent', props.units, 3)} % of flour (${low}–${high})`
})
const ways = computed(() => thing.value.ways.map((value) => ({ value, label: WAY_WORDS[value] ?? value })))

/* A name is settled when it is taken or left, not at every letter. */
const name = ref('')
watch(() => thing.value.name, (now) => (name.value = now), { immediate: true })
function takeName(): void {
  const wanted = name.value.trim()
  if (wanted && wanted !== thing.value.name) emit('settle', { name: wanted })
}
</script>

<template>
  <li class="thing" :class="{ apart, looked, open, asks: thing.asks, settled: thing.settled }">
    <button type="button" class="head" :aria-expanded="open" :aria-label="`${named}, ${amount || 'no amount'}: ${band ? withUnit(band.usual_g, 'g', units) : 'weight open'}. Settle it`" @click="emit('toggle')">
      <span class="name"><b>{{ named }}</b>{{ ' ' }}<small v-if="thing.state">{{ thing.state }}</small></span>
      <span class="amount">{{ amount || '–' }}</span>
      <template v-if="apart"><span class="where">{{ WHERE.find((w) => w.value === thing.where)?.label }}, kept out of the dough</span></template>
      <template v-else>
        <BandBar v-if="figures" :low="figures.low" :usual="figures.usual" :high="figures.high" :colour="`var(--role-${thing.role ?? 'salt'})`" />
        <span v-else class="where open">open</span>
        <span class="ends quiet">{{ ends }}</span>
      </template>
      <span class="grams">{{ figures ? shown(figures.usual, figures.kind, units) : '–' }}<small v-if="figures">{{ unitOf(figures.kind, units) }}</small></span>
    </button>
    <p v-if="thing.caution" class="caution" role="note">{{ thing.caution }}</p>
    <p v-if="thing.asks" class="ask">{{ thing.asks }}
      <el-button v-if="thing.confirms" size="small" :aria-label="`${named}: that is right`" @click="emit('settle', thing.confirms === 'name' ? { name: thing.name } : { where: thing.where })">That is right</el-button>
    </p>
    <div v-if="open" class="settle">
      <div class="fields">
        <label class="label wide" @focusout="takeName">What it is
          <IngredientField :name="name" :pantry="pantry" :label="`What line ${row.number + 1} is`" @change="name = $event" @done="takeName" />
        </label>
        <label v-if="!thing.known" class="label">In the dough it is
          <SelectField :value="thing.role ?? ''" :options="[{ value: '' as const, label: 'not said' }, ...ROLES.map((value) => ({ value, label: value }))]" :label="`What ${named} is in the dough`" @choose="emit('settle', { role: $event || null })" />
        </label>
        <label class="label">It weighs
          <NumberBox :value="band?.usual_g ?? null" kind="g" :units="units" :label="`Weight of ${named}`" with-unit :worked="!thing.settled" @change="emit('settle', { weight_g: $event || null })" />
        </label>
        <label class="label">It goes
          <SelectField :value="thing.where" :options="WHERE" :label="`Where ${named} goes`" @choose="emit('settle', { where: $event })" />
        </label>
        <label v-if="thing.part === 0" class="label">This line is
          <SelectField :value="'ingredient' as const" :options="LINE_KINDS" :label="`What line ${row.number + 1} is taken to be`" @choose="emit('settle', { kind: $event })" />
        </label>
      </div>
      <div v-if="ways.length" class="ways">
        <span class="quiet">{{ thing.measure ? `The ${units.reference.measures[thing.measure]?.label} is` : 'Its size is' }}</span>
        <ChoiceRow :label="thing.measure ? `How the ${thing.measure} of ${named} is filled` : `Size of ${named}`" :options="ways" :value="thing.way" @choose="emit('settle', { way: $event })" />
      </div>
      <div v-if="thing.alternatives.length" class="ways">
        <span class="quiet">Or, as the line says,</span>
        <el-button v-for="(other, i) in thing.alternatives" :key="i" @click="emit('settle', { alternative: i, name: null, weight_g: null })">{{ other }}</el-button>
      </div>
      <p class="quiet">“{{ row.line.text.trim() }}”<template v-if="percentWords"> · {{ percentWords }}</template></p>
      <p v-for="why in thing.why" :key="why" class="quiet">{{ why }}</p>
      <div class="row">
        <el-button v-if="thing.measure && thing.known" @click="emit('weigh')">Weigh my {{ units.reference.measures[thing.measure]?.label }}</el-button>
        <el-button text v-if="thing.settled" @click="emit('unsettle')">Take it as it reads</el-button>
      </div>
    </div>
  </li>
</template>

<style scoped>
.thing { border-bottom: 1px solid var(--rim-faint); margin: 0 calc(-1 * var(--side)); padding: 0 var(--side) }
.head { display: grid; grid-template-columns: minmax(130px, 1.35fr) minmax(96px, 1fr) minmax(80px, 2fr) 82px 88px; gap: 10px; align-items: center; width: 100%; min-height: 37px; border: 0; background: none; text-align: left; cursor: pointer; padding: 3px 0; border-radius: 8px }
.thing:hover, .open { background: color-mix(in srgb, var(--rim-faint) 55%, transparent) }
.looked { background: var(--crust-soft) }
.name { overflow-wrap: anywhere }
.name b { font-weight: 600 }
small, .amount { color: var(--ink-2); font-size: .88rem }
.grams { text-align: right; font-weight: 700; font-size: 1.12rem; white-space: nowrap }
.grams small { font-weight: 400; margin-left: 4px }
.ends { text-align: right; white-space: nowrap }
.apart .head { color: var(--ink-2) }
.apart .where { grid-column: 3 / 5 }
.apart .grams, .apart b { font-weight: 400 }
.where { font-size: .85rem; color: var(--ink-2) }
.where.open { color: var(--crust); background: none }
.caution { color: var(--stop); font-size: .9rem; font-weight: 600; padding: 0 0 6px; max-width: 70ch }
.ask { color: var(--crust); font-size: .9rem; padding: 0 0 6px }
.settled .name b::after { content: ' ✓'; color: var(--ok) }
.settle { display: grid; gap: 8px; padding: 4px 0 12px }
.fields { display: flex; flex-wrap: wrap; gap: 8px 12px }
.wide { flex: 1 1 190px }
.wide :deep(input) { border: 1.5px solid var(--rim-soft); border-radius: 10px; min-height: var(--touch); background: var(--tray) }
.fields .el-input { width: 130px }
.fields .el-select { width: 160px }
.ways { display: flex; flex-wrap: wrap; align-items: center; gap: 8px }
.ways .choice { flex: 0 1 auto; background: var(--tray) }
.row { display: flex; flex-wrap: wrap; gap: 8px }
@media (max-width: 760px) {
  .head { grid-template-columns: 1fr auto; gap: 0 10px; padding: 7px 0 }
  .amount { grid-row: 2 }
  .grams { grid-area: 1 / 2 }
  .bar { display: none }
  .ends, .apart .where, .where { grid-area: 2 / 2; text-align: right }
}
</style>
