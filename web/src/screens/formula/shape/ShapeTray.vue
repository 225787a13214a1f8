<script setup lang="ts">
/** How a piece is shaped, drawn to scale with what another weight would make of it, and the label it is sold under. */
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Count, Formula, Shaping, Whole } from '@/api/client'
import { plainCopy } from '@/base/copy'
import NumberBox from '@/design/NumberBox.vue'
import OpenWorking from '@/design/OpenWorking.vue'
import ShapedDough from '@/drawings/ShapedDough.vue'
import { withUnit, type Units } from '@/base/format'
import LockedPart from '@/design/LockedPart.vue'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'

export interface ShapeTrayProps {
  /** The desk's own formula and count; they are edited in place. */
  formula: Formula
  count: Count
  whole: Whole | null
  units: Units
  target: number
  locked: boolean
  /** Where the ruler at true size is; none before the formula is kept. */
  ruler: string | null
}
const props = defineProps<ShapeTrayProps>()
const emit = defineEmits<{ working: [opened: string]; step: [] }>()

const one = computed(() => props.count.targets[props.target] ?? props.count.targets[0])
const shaping = computed<Shaping>(() => one.value?.shaping ?? props.formula.usual.shaping)
const own = computed(() => one.value?.shaping != null)
const shaped = computed(() => props.whole?.looked_at?.shaped ?? null)
const usual = computed(() => props.whole?.looked_at?.usual_shaped ?? null)
/** The formula's own shape changes for all of its targets; a target that has one of its own keeps it apart. */
function set(change: Partial<Shaping>): void {
  const next = { ...plainCopy(shaping.value), ...change }
  if (one.value && own.value) one.value.shaping = next
  else props.formula.usual.shaping = next
}
const kinds = computed(() => (Object.keys(BY) as Shaping['kind'][]).map((value) => ({ value, label: props.units.reference.shapes[value]?.label ?? value })))
const rules = computed(() => Object.entries(props.units.reference.selling_rules).map(([value, label]) => ({ value: value as Count['rules'], label })))
function setKind(kind: Shaping['kind']): void {
  emit('step')
  set({ kind, thickness_cm: null, length_cm: null, diameter_cm: null })
}
function apart(): void {
  emit('step')
  if (one.value) one.value.shaping = own.value ? null : plainCopy(shaping.value)
}
/** The measure that is kept when the weight changes: of a rope its thickness or its length, of a disc its thickness or width. */
const BY = {
  ball: [],
  log: [['length_cm', 'Length of the log']],
  disc: [['thickness_cm', 'Thickness'], ['diameter_cm', 'Across']],
  rope: [['thickness_cm', 'Thickness'], ['length_cm', 'Length']],
  knot: [['thickness_cm', 'Thickness'], ['length_cm', 'Length']],
  ring: [['thickness_cm', 'Thickness'], ['length_cm', 'Length']],
} as const
type By = 'thickness_cm' | 'length_cm' | 'diameter_cm'
const by = computed(() => BY[shaping.value.kind].map(([field, label]) => {
  const fixed = shaping.value[field] ?? null
  const worked = field === 'diameter_cm' ? shaped.value?.across_cm : shaped.value?.[field]
  return { field, label, fixed, value: fixed ?? worked ?? null }
}))
function keep(field: By, value: number | null): void {
  const others = { thickness_cm: null, length_cm: null, diameter_cm: null }
  set(value === null ? others : { ...others, [field]: value })
}
const KEYS = ['shape_across', 'shape_length', 'shape_thickness', 'shape_opening', 'shape_risen_opening', 'shape_slice'] as const
const FIELD = { shape_across: 'across_cm', shape_length: 'length_cm', shape_thickness: 'thickness_cm', shape_opening: 'opening_cm', shape_risen_opening: 'risen_opening_cm', shape_slice: 'slice_cm' } as const
const figures = computed(() =>
  KEYS.flatMap((key) => {
    const figure = props.whole?.figures[key]
    if (!figure) return []
    const before = usual.value?.[FIELD[key]]
    return [{ key, label: figure.label, value: withUnit(figure.value, 'cm', props.units), before: before == null ? '' : withUnit(before, 'cm', props.units) }]
  }),
)
const differs = computed(() => shaped.value && usual.value && Math.abs(shaped.value.piece_g - usual.value.piece_g) > 0.05)
const closes = computed(() => shaped.value?.kind === 'ring' && !shaped.value.risen_opening_cm)

const box = ref<HTMLElement>()
const { width: room } = useElementSize(box, { width: 320, height: 0 })

/* Selling by weight. */
const sold = computed(() => props.whole?.looked_at?.sold ?? null)
function aim(): void {
  if (!one.value || !sold.value) return
  emit('step')
  one.value.pins.baked_g = Number((sold.value.aim_baked_g - sold.value.on_it_g).toFixed(2))
  one.value.pins.piece_g = null
}
const g = (value: number) => withUnit(value, 'g', props.units)
</script>

<template>
  <section class="tray" aria-labelledby="shape-head">
    <div class="tray-head">
      <h2 id="shape-head" class="visually-hidden">Shape and oven</h2>
      <slot name="head" />
    </div>
    <LockedPart :locked="locked">
      <div class="kinds">
        <label class="label">Shaped as<SelectField :value="shaping.kind" :options="kinds" label="Shaped as" @choose="setKind" /></label>
        <label v-for="one_ in by" :key="one_.field" class="label">{{ one_.label }}<NumberBox :value="one_.value" kind="cm" :units="units" :label="one_.label" :worked="one_.fixed === null" with-unit @change="keep(one_.field, $event)" /></label>
        <label v-if="shaping.kind === 'ring'" class="label">Overlap<NumberBox :value="shaping.overlap_cm" kind="cm" :units="units" label="Overlap of the ends" with-unit @change="set({ overlap_cm: $event ?? 0 })" /></label>
      </div>
      <el-checkbox v-if="count.targets.length > 1" :model-value="own" @change="apart">Shaped by itself, not as the formula usually is</el-checkbox>
      <div ref="box" class="drawing"><ShapedDough v-if="shaped" :shaped="shaped" :units="units" :room="room" /></div>
      <table v-if="figures.length" class="figures">
        <thead><tr><td /><th scope="col">{{ shaped ? g(shaped.piece_g) : '' }}</th><th v-if="differs" scope="col" class="quiet">usual {{ usual ? g(usual.piece_g) : '' }}</th></tr></thead>
        <tbody>
          <tr v-for="figure in figures" :key="figure.key"><th scope="row">{{ figure.label }}</th><td><OpenWorking :name="figure.key" @open="emit('working', $event)">{{ figure.value }}</OpenWorking></td><td v-if="differs" class="quiet">{{ figure.before }}</td></tr>
          <tr v-if="shaped?.cuts"><th scope="row">Pieces along the log</th><td>{{ shaped.cuts }}</td><td v-if="differs" /></tr>
        </tbody>
      </table>
      <el-button text tag="a" v-if="ruler && shaped" class="ruler" :href="ruler" target="_blank">Ruler at true size, to print</el-button>
      <Said v-if="closes">The opening closes as the ring doubles: a thinner rope, or a shorter overlap.</Said>
      <h3>Sold by weight</h3>
      <div class="kinds">
        <label class="label">On the label, baked<NumberBox v-if="one" :value="one.label_g ?? null" kind="g" :units="units" label="Weight on the label" with-unit @change="one.label_g = $event" /></label>
        <label class="label">By the rules of<SelectField :value="count.rules" :options="rules" label="By the rules of" @choose="count.rules = $event" /></label>
      </div>
      <template v-if="sold">
        <p>A single piece may be <b>{{ sold.tolerance_g === null ? 'not told by the table' : `${g(sold.tolerance_g)} light` }}</b><template v-if="sold.least_g !== null">, and none under <b>{{ g(sold.least_g) }}</b></template>. For {{ sold.says }}, aim <OpenWorking name="overweight" @open="emit('working', $event)">{{ g(sold.overweight_g) }}</OpenWorking> over: <b>{{ g(sold.aim_baked_g) }}</b> baked<template v-if="sold.on_it_g >= 0.05">, the {{ g(sold.on_it_g) }} of filling and topping on it counted</template>, <OpenWorking name="aim_raw" @open="emit('working', $event)">{{ g(sold.aim_raw_g) }}</OpenWorking> raw.</p>
        <div class="row"><el-button @click="aim">Pin the baked piece at {{ g(sold.aim_baked_g - sold.on_it_g) }}</el-button></div>
        <p class="quiet small">{{ sold.source ? `${sold.source}.` : 'The table has no row for such a weight.' }} Check your local rules.</p>
      </template>
      <p v-else class="quiet small">Type the weight on the label to see how far a piece may stray, and what to divide at.</p>
    </LockedPart>
  </section>
</template>

<style scoped>
.kinds { display: grid; grid-template-columns: repeat(auto-fit, minmax(110px, 1fr)); gap: 8px; margin: 2px 0 6px }
.drawing { display: grid; justify-items: center; padding: 6px 0; min-height: 90px; align-items: center }
.figures { width: 100%; border-collapse: collapse }
.figures th { text-align: left; font-weight: 500 }
.figures thead th { text-align: right; font-size: .9rem }
.figures td { text-align: right; font-weight: 700; padding: 3px 0 }
.figures tr + tr { border-top: 1px solid var(--rim-faint) }
.ruler { font-size: .9rem; padding-inline: 2px }
h3 { margin: 12px 0 4px; font-size: 1rem }
.small { font-size: .88rem }
</style>
