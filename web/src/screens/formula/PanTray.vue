<script setup lang="ts">
/** The pan of this count: its measures, and the dough in it drawn to scale. */
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Count, Formula, Pan, Problem, Whole } from '@/api/client'
import ChoiceRow from '@/design/ChoiceRow.vue'
import NumberField from '@/design/NumberField.vue'
import FillBand from '@/drawings/FillBand.vue'
import PanSide from '@/drawings/PanSide.vue'
import PanTop from '@/drawings/PanTop.vue'
import { measures, type Units } from '@/format'

export interface PanTrayProps {
  /** The desk's own formula and count; they are edited in place. */
  formula: Formula
  count: Count
  whole: Whole | null
  problem: Problem | null
  units: Units
}
const props = defineProps<PanTrayProps>()
const emit = defineEmits<{ working: [opened: string] }>()

const SHAPES = [
  { value: 'rectangle', label: 'Rectangle' },
  { value: 'round', label: 'Round' },
  { value: 'none', label: 'No pan' },
] as const
type Shape = (typeof SHAPES)[number]['value']

const START: Record<'rectangle' | 'round', Pan> = {
  rectangle: { shape: 'rectangle', name: '', length_cm: 33, width_cm: 23, depth_cm: 5 },
  round: { shape: 'round', name: '', diameter_cm: 26, depth_cm: 5 },
}
const shape = computed<Shape>(() => props.count.pan?.shape ?? 'none')
const open = ref(false)

function choose(next: Shape): void {
  if (next === shape.value) return
  const usual = props.formula.usual.pan
  if (next === 'none') props.count.pan = null
  else props.count.pan = usual?.shape === next ? { ...usual } : { ...START[next], depth_cm: props.count.pan?.depth_cm ?? START[next].depth_cm }
  if (next !== 'none') open.value = true
}
type Measure = 'length_cm' | 'width_cm' | 'diameter_cm' | 'depth_cm'
const fields = computed<{ name: Measure; label: string }[]>(() =>
  shape.value === 'round'
    ? [{ name: 'diameter_cm', label: 'Across' }, { name: 'depth_cm', label: 'Depth' }]
    : [{ name: 'length_cm', label: 'Length' }, { name: 'width_cm', label: 'Width' }, { name: 'depth_cm', label: 'Depth' }],
)
const measureOf = (name: Measure) => (props.count.pan as unknown as Record<Measure, number>)[name]
function measure(name: Measure, value: number | null): void {
  if (props.count.pan && value !== null) (props.count.pan as unknown as Record<Measure, number>)[name] = value
}
const wrong = (name: string) => props.problem?.errors?.find((issue) => issue.pointer.includes('/pan/') && issue.pointer.endsWith(name))?.detail
const title = computed(() => (props.count.pan ? [props.count.pan.name, measures(props.count.pan, props.units)].filter(Boolean).join(', ') : ''))
const pieceG = computed(() => props.whole?.count.quantities.piece_g?.value ?? 0)
const pans = (n: number) => `${n} ${n === 1 ? 'pan' : 'pans'}`
const loads = computed(() =>
  (props.whole?.count.loads ?? []).map((load) => (load.pieces === 1 ? pans(load.pans) : `${pans(load.pans)} of ${load.pieces}`)).join(' and '),
)
const sits = computed(() => {
  const panned = props.whole?.pan
  if (!panned?.layout) return ''
  return `${panned.layout.words}, ${panned.touching ? 'touching after the second rise' : 'apart after the second rise'}`
})

/** One scale for both views, so that the tray is used and depth can be compared with width. */
const box = ref<HTMLElement>()
const { width: room } = useElementSize(box, { width: 330, height: 0 })
const MOST_HIGH = 210
const scale = computed(() => {
  const pan = props.whole?.pan?.pan
  if (!pan) return 1
  const across = pan.shape === 'round' ? pan.diameter_cm : pan.length_cm
  const down = pan.shape === 'round' ? pan.diameter_cm : pan.width_cm
  return Math.min((room.value - 50) / across, MOST_HIGH / down, 120 / Math.max(pan.depth_cm, props.whole?.pan?.depth_doubled_cm ?? 0))
})
</script>

<template>
  <section class="tray" aria-labelledby="pan-head">
    <div class="tray-head">
      <h2 id="pan-head">Pan</h2>
      <span class="quiet">{{ title || 'pieces on a sheet, a stone or a griddle' }}</span>
    </div>
    <div class="shapes">
      <ChoiceRow label="Shape of the pan" :options="SHAPES" :value="shape" @choose="choose" />
      <button v-if="count.pan" type="button" class="size" :aria-expanded="open" @click="open = !open">Size</button>
    </div>
    <div v-if="count.pan && open" class="measures">
      <label class="label name">Name<input v-model="count.pan.name" class="field" maxlength="300" placeholder="What you call it" /></label>
      <label v-for="field in fields" :key="field.name" class="label">
        {{ field.label }}
        <NumberField class="field" :value="measureOf(field.name)" kind="cm" :units="units" :label="`${field.label} of the pan`" :wrong="wrong(field.name)" with-unit @change="measure(field.name, $event)" />
      </label>
      <label class="label name">Usual fill
        <select v-model="formula.usual.fill_kind" class="field" @change="formula.usual.fill = null">
          <option v-for="fill in units.reference.fills" :key="fill.key" :value="fill.key">{{ fill.label }}</option>
        </select>
      </label>
    </div>
    <div ref="box" class="drawings">
      <template v-if="whole?.pan">
        <PanTop :panned="whole.pan" :piece-g="pieceG" :units="units" :scale="scale" />
        <p class="quiet">{{ [loads, sits].filter(Boolean).join(' · ') }}</p>
        <PanSide :panned="whole.pan" :units="units" :scale="scale" @working="emit('working', $event)" />
        <p v-if="whole.pan.past_rim" class="said stop">Doubled, this dough stands above the rim: a deeper pan, another pan, or less dough in each.</p>
        <FillBand :panned="whole.pan" @working="emit('working', $event)" />
      </template>
      <p v-else-if="count.pan" class="quiet empty">The pan is drawn as soon as there is dough to put in it.</p>
      <p v-else class="quiet empty">Choose a shape to see the dough in its pan, drawn to scale.</p>
    </div>
  </section>
</template>

<style scoped>
.shapes { display: flex; gap: 5px; margin: 4px 0 8px }
.size { flex: 0 0 60px; border: 1.5px dashed var(--rim-soft); background: none; border-radius: 10px; cursor: pointer }
.measures { display: grid; grid-template-columns: repeat(auto-fit, minmax(86px, 1fr)); gap: 8px; margin-bottom: 10px }
.measures .name { grid-column: 1 / -1 }
.measures .number.field { border: 1.5px solid var(--rim-soft); border-radius: 10px; min-height: 38px }
.drawings { display: grid; gap: 6px; justify-items: center; overflow: hidden }
.drawings > * { max-width: 100% }
.drawings .fill { width: 100% }
.empty { padding: 30px 12px; text-align: center }
</style>
