<script setup lang="ts">
/** The pan of the target looked at: off the shelf or by its measures, its fill, and the dough in it drawn to scale. */
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { bare, fillPer } from '@/screens/formula/working/words'
import type { Count, Formula, Pan, Problem, Whole } from '@/api/client'
import { plainCopy } from '@/base/copy'
import NumberBox from '@/design/NumberBox.vue'
import PanForm from '@/design/PanForm.vue'
import { panOf } from '@/design/pans'
import FillBand from '@/drawings/FillBand.vue'
import PanSide from '@/drawings/PanSide.vue'
import PanTop from '@/drawings/PanTop.vue'
import SheetTop from '@/drawings/SheetTop.vue'
import { flat } from '@/drawings/solid'
import { outline, panTitle, type Units } from '@/base/format'
import { usePans } from '@/base/kitchen'
import { turnsWords, WHERE } from '@/screens/sheet/shapes'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'

export interface PanTrayProps {
  /** The desk's own formula and count; they are edited in place. */
  formula: Formula
  count: Count
  whole: Whole | null
  problem: Problem | null
  units: Units
  target: number
  locked: boolean
}
const props = defineProps<PanTrayProps>()
const emit = defineEmits<{ working: [opened: string]; step: [] }>()

const one = computed(() => props.count.targets[props.target] ?? props.count.targets[0])
const shelf = usePans()
const pan = computed(() => one.value?.pan ?? null)
const open = ref(false)

/** Which of the shelf it is; "own" for one by its measures alone. */
const same = (a: Pan, b: Pan) => JSON.stringify(sorted(a)) === JSON.stringify(sorted(b))
const sorted = (p: Pan) => Object.entries(p).filter(([, value]) => value != null).sort(([a], [b]) => (a < b ? -1 : 1))
const chosen = computed(() => {
  const now = pan.value
  if (!now) return 'none'
  const found = shelf.data.value?.find((state) => same(state.shelved.pan, now))
  return found ? String(found.id) : 'own'
})
const offers = computed(() => [
  { value: 'none', label: 'No pan: pieces by themselves' },
  ...(shelf.data.value ?? []).map((state) => ({ value: String(state.id), label: panTitle(state.shelved.pan, props.units), group: 'On the shelf' })),
  { value: 'own', label: chosen.value === 'own' && pan.value ? panTitle(pan.value, props.units) : 'Another, by its measures' },
])
function choose(value: string): void {
  const target = one.value
  if (!target) return
  emit('step')
  open.value = value === 'own'
  if (value === 'none') target.pan = null
  else if (value === 'own') target.pan = pan.value ?? panOf('rectangle', props.units.reference)
  else {
    const found = shelf.data.value?.find((state) => String(state.id) === value)
    if (found) target.pan = plainCopy(found.shelved.pan)
  }
  suit()
  target.leave_gaps = false
}
/** A tin or a tray of cups is filled by what it holds, whatever the formula usually goes into; another pan as usual again. */
function suit(): void {
  const target = one.value
  if (!target?.pan) return
  const { fills, pan_shapes } = props.units.reference
  const byVolume = (kind: string | null | undefined) => (fills[kind ?? '']?.per ?? 'area') !== 'area'
  const bake = pan_shapes[target.pan.shape]?.bake ?? ''
  if (byVolume(bake)) target.fill_kind = bake === props.formula.usual.fill_kind ? null : bake
  else if (byVolume(target.fill_kind)) target.fill_kind = null
}
function reshape(next: Pan): void {
  if (!one.value) return
  const another = next.shape !== one.value.pan?.shape
  one.value.pan = next
  if (another) suit()
}
const wrong = (name: string) => props.problem?.errors?.find((issue) => issue.pointer.includes(`/targets/${props.target}/pan/`) && issue.pointer.endsWith(name))?.detail

/* The fill: its kind, and the fill itself in the unit that this baker types. */
const kind = computed(() => one.value?.fill_kind ?? props.formula.usual.fill_kind)
function setKind(value: string): void {
  if (!one.value) return
  emit('step')
  one.value.fill_kind = value === props.formula.usual.fill_kind ? null : value
  one.value.pins.fill = null
}
const per = computed(() => fillPer(props.formula, props.count, props.target, props.units))
const fillUnits = computed(() => Object.entries(props.units.reference.fill_units).filter(([, unit]) => unit.per === per.value))
const unitNames = computed(() => fillUnits.value.map(([name]) => ({ value: name, label: name })))
const kinds = computed(() => Object.values(props.units.reference.fills).map((rule) => ({ value: rule.key, label: rule.label })))
const wanted = ref<string>()
const fillUnit = computed(() => fillUnits.value.find(([name]) => name === wanted.value) ?? fillUnits.value[0])
const fill = computed(() => props.whole?.looked_at?.pan?.fill)
const typed = computed(() => (fill.value === undefined || !fillUnit.value ? null : fill.value / fillUnit.value[1].worth))
function setFill(value: number | null): void {
  if (!one.value) return
  one.value.pins.fill = value === null ? null : value
  if (value === null) return
  // A fill moves what each piece weighs, so that goes with it.
  one.value.pins.piece_g = null
  one.value.pins.baked_g = null
}
const typeFill = (value: number | null) => setFill(value === null ? null : Number((value * (fillUnit.value?.[1].worth ?? 1)).toPrecision(4)))
const asLast = computed(() => (kind.value === props.formula.usual.fill_kind && props.formula.usual.fill ? props.formula.usual.fill : null))

const panned = computed(() => props.whole?.looked_at?.pan ?? null)
const pieceG = computed(() => props.whole?.count.quantities[`piece_g.${props.target}`]?.value ?? 0)
const pieces = computed(() => props.whole?.count.quantities[`pieces.${props.target}`]?.value ?? 0)
/** Without a pan: the sheet or the griddle that the pieces lie on. */
const lies = computed(() => props.whole?.looked_at?.turns.find((turns) => turns.packing && turns.through !== 'pot') ?? null)
const on = computed(() => (lies.value ? flat(lies.value) : null))
const pans = (n: number) => `${n} ${n === 1 ? 'pan' : 'pans'}`
const loads = computed(() =>
  (props.whole?.count.loads[props.target] ?? []).map((load) => (load.pieces === 1 ? pans(load.pans) : `${pans(load.pans)} of ${load.pieces}`)).join(' and '),
)
const sits = computed(() => {
  if (!panned.value?.layout) return ''
  return `${panned.value.layout.words}, ${panned.value.touching ? 'touching' : 'apart'} after the second rise`
})
const fightsFill = computed(() => props.whole?.count.fights.some((fight) => fight.alternatives.some((a) => bare(a.pin) === 'fill')))

/** One scale for both views, so that the tray is used and depth can be compared with width. */
const box = ref<HTMLElement>()
const { width: room } = useElementSize(box, { width: 330, height: 0 })
const MOST_HIGH = 190
const scale = computed(() => {
  const shown = panned.value
  if (!shown) return 1
  const [across, down] = outline(shown.solid)
  return Math.min((room.value - 60) / across, MOST_HIGH / down, 110 / Math.max(shown.solid.depth_cm, Math.min(shown.depths.baked_cm, 3 * shown.solid.depth_cm || 20)))
})
</script>

<template>
  <section class="tray" aria-labelledby="pan-head">
    <div class="tray-head">
      <h2 id="pan-head">Pan</h2>
      <span class="quiet">{{ pan ? panTitle(pan, units) : 'pieces on a sheet, a stone or a griddle' }}</span>
    </div>
    <div class="shapes">
      <SelectField :value="chosen" :options="offers" label="Which pan" @choose="choose" />
      <el-button v-if="pan" text :aria-expanded="open" @click="open = !open">Size</el-button>
    </div>
    <div v-if="pan && open && one" class="measures"><PanForm :pan="pan" :units="units" :wrong="wrong" @change="reshape" /></div>
    <div v-if="pan" class="filling">
      <SelectField :value="kind" :options="kinds" label="Kind of bake, for the usual fill" @choose="setKind" />
      <NumberBox :value="typed" kind="fill" :units="units" label="Fill of the pan" :worked="one?.pins.fill == null" :wrong="wrong('fill')" @change="typeFill" @working="emit('working', 'pan_fill')" />
      <SelectField v-if="fillUnits.length > 1" class="unit" :value="fillUnit?.[0]" :options="unitNames" label="Unit of the fill" @choose="wanted = $event" />
      <span v-else class="quiet unit">{{ fillUnit?.[0] }}</span>
    </div>
    <div v-if="pan && (asLast !== null || one?.pins.fill != null)" class="row short">
      <el-button text size="small" v-if="asLast !== null" @click="setFill(asLast)">As full as last time</el-button>
      <el-button text size="small" v-if="one?.pins.fill != null" @click="setFill(null)">Let the fill go</el-button>
    </div>
    <div ref="box" class="drawings">
      <template v-if="panned">
        <PanTop :solid="panned.solid" :panned="panned" :piece-g="pieceG" :units="units" :scale="scale" />
        <p class="quiet">{{ [loads, sits].filter(Boolean).join(' · ') }}</p>
        <PanSide :panned="panned" :units="units" :scale="scale" :locked="locked" @working="emit('working', $event)" @fill="setFill" />
        <Said tone="stop" v-if="panned.past_rim">Doubled, this dough stands further above the rim than its kind may: a deeper pan, another pan, or less dough in each.</Said>
        <FillBand :panned="panned" :units="units" @working="emit('working', $event)" />
      </template>
      <p v-else-if="pan && whole?.count.fights.length" class="quiet empty">The pan is drawn when no pins fight.<template v-if="fightsFill"> The fill is one of them.</template></p>
      <p v-else-if="pan" class="quiet empty">The pan is drawn as soon as there is dough to put in it.</p>
      <template v-else-if="lies && on">
        <SheetTop :turns="lies" :solid="on" :pieces="Math.min(lies.per_holder, pieces)" :units="units" :scale="Math.min((room - 16) / on.across, 250 / on.down)" :label="WHERE[lies.through]" />
        <p class="quiet">{{ turnsWords(lies, units) }}</p>
      </template>
      <p v-else class="quiet empty">Choose a pan to see the dough in it, drawn to scale. What lies on sheets, in the pot or on the griddle is drawn under <b>Shape</b>.</p>
    </div>
  </section>
</template>

<style scoped>
.shapes { display: flex; gap: 5px; margin: 2px 0 6px }
.measures { margin-bottom: 10px }
.filling { display: grid; grid-template-columns: minmax(0, 1fr) 84px auto; gap: 5px; align-items: center; margin-bottom: 4px }
.filling .el-input { font-weight: 650 }
.filling .unit { white-space: nowrap; min-width: 46px }
.filling .el-select.unit { width: 92px }
.short { display: flex; flex-wrap: wrap; gap: 0 4px }
.drawings { display: grid; gap: 4px; justify-items: center; overflow: hidden }
.drawings > * { max-width: 100% }
.drawings .fill { width: 100% }
.empty { padding: 26px 12px; text-align: center }
</style>
