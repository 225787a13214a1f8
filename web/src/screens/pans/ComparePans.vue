<script setup lang="ts">
/** The same dough in two or more pans: depth as divided, doubled and baked, slices, what each wants; and what else would take it. */
import { computed, ref, toRaw, watch } from 'vue'
import { api, ask, type InPan, type PanState, type StandIn } from '@/api/client'
import NumberBox from '@/design/NumberBox.vue'
import { filled, hollows, walls } from '@/drawings/solid'
import { outline, panTitle, plain, withUnit, type Units } from '@/base/format'
import { fillShown } from '@/screens/formula/working/words'
import { useAnswer } from '@/base/useAnswer'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'

export interface ComparePansProps {
  pans: readonly PanState[]
  units: Units
}
const props = defineProps<ComparePansProps>()
const emit = defineEmits<{ open: [state: PanState] }>()

const kind = ref('')
const shownKind = computed(() => kind.value || props.units.reference.pan_shapes[props.pans[0]?.shelved.pan.shape ?? '']?.bake || 'pull_apart_buns')
const rule = computed(() => props.units.reference.fills[shownKind.value])
const dough = ref<number | null>(null)
const ready = computed(() => props.pans.length > 0)
/** What the first pan usually wants, until a weight is typed. */
const { answer, problem } = useAnswer<InPan[]>([() => props.pans.map((state) => state.id + ':' + state.version), dough, shownKind], ready, async () => {
  const pans = props.pans.map((state) => toRaw(state.shelved.pan))
  const hold = (dough_g: number) => ask(api.POST('/api/reckon/pans', { body: { dough_g, fill_kind: shownKind.value, pans } }))
  if (dough.value) return hold(dough.value)
  const [first] = await hold(1000)
  return hold(Math.round(first?.wants_g ?? 1000))
})
const inPans = computed(() => (ready.value ? (answer.value ?? []) : []).slice(0, props.pans.length))
const doughG = computed(() => dough.value ?? inPans.value[0]?.dough_g ?? null)
watch(() => props.pans[0]?.id, () => { dough.value = null; kind.value = '' })

const standing = ref<StandIn[]>([])
const asked = ref(false)
const { answer: others } = useAnswer<StandIn[]>([asked, doughG, shownKind, () => props.pans[0]?.id], computed(() => asked.value && ready.value && doughG.value !== null), () =>
  ask(api.POST('/api/pans/stand-ins', { body: { dough_g: doughG.value ?? 1, fill_kind: shownKind.value, pan: toRaw(props.pans[0]!.shelved.pan) } })),
)
watch(others, (now) => (standing.value = now ?? []))

/** All cuts to one scale. */
const ROOM = 168
const scale = computed(() => {
  const shown = inPans.value
  if (!shown.length) return 1
  const wide = Math.max(...shown.map((one) => outline(one.measured.solid)[0]))
  const deep = Math.max(...shown.map((one) => Math.max(one.measured.solid.depth_cm, Math.min(one.depths.baked_cm, 30))))
  return Math.min((ROOM * 2) / shown.length / wide, 120 / deep, 8)
})
const high = (one: InPan) => Math.max(one.measured.solid.depth_cm, Math.min(one.depths.baked_cm, 30)) * scale.value + 8
const per = (one: InPan) => (one.measured.volume_ml ? (rule.value?.per ?? 'area') : 'area')
const cm = (value: number) => withUnit(value, 'cm', props.units)
const g = (value: number) => withUnit(value, 'g', props.units)
const LIES = { under: 'shallower than usual', in: 'as usual', over: 'fuller than usual' } as Record<string, string>
const percent = (share: number) => (Math.abs(share - 1) < 0.005 ? 'as it is' : `${share > 1 ? '+' : '−'}${plain(Math.abs(share - 1) * 100, 2)} %`)
</script>

<template>
  <section class="tray" aria-labelledby="hold-head">
    <div class="tray-head"><h2 id="hold-head">Held against each other</h2></div>
    <p v-if="pans.length === 1" class="quiet">Tick <b>Hold against</b> under one more, to see the same dough in both.</p>
      <div class="fields">
        <label class="label">Dough<NumberBox :value="doughG" kind="g" :units="units" label="Dough in each" :worked="dough === null" with-unit @change="dough = $event" /></label>
        <label class="label">Kind of bake<SelectField :value="shownKind" :options="Object.values(units.reference.fills).map((one) => ({ value: one.key, label: one.label }))" label="Kind of bake" @choose="kind = $event" /></label>
      </div>
      <Said tone="stop" v-if="problem">{{ problem.errors?.[0]?.detail ?? problem.detail }}</Said>
      <div class="wide">
      <table v-if="inPans.length">
        <thead>
          <tr><td /><th v-for="(one, i) in inPans" :key="i" scope="col">
            <svg :viewBox="`-4 ${-high(one)} ${outline(one.measured.solid)[0] * scale + 8} ${high(one) + 5}`" :width="outline(one.measured.solid)[0] * scale + 8" :height="high(one) + 5" role="img" :aria-label="`${one.pan.name}: ${cm(one.depths.divided_cm)} deep as divided, ${cm(one.depths.doubled_cm)} doubled`">
              <template v-for="(part, p) in hollows(one.measured.solid, outline(one.measured.solid)[0])" :key="p">
                <path class="risen" :class="{ over: one.past_rim }" :d="filled(part, Math.min(30, one.depths.doubled_cm), one.measured.solid.depth_cm, scale)" />
                <path class="dough" :d="filled(part, Math.min(30, one.depths.divided_cm), one.measured.solid.depth_cm, scale)" />
                <path class="baked" :d="`M${(part.middle - part.half(one.depths.baked_cm)) * scale} ${-Math.min(30, one.depths.baked_cm) * scale}H${(part.middle + part.half(one.depths.baked_cm)) * scale}`" />
                <path class="wall" :d="one.measured.solid.depth_cm ? walls(part, one.measured.solid.depth_cm, scale) : `M0 0H${outline(one.measured.solid)[0] * scale}`" />
              </template>
            </svg>
            <el-button text @click="pans[i] && emit('open', pans[i])">{{ one.pan.name || 'This pan' }}</el-button>
          </th></tr>
        </thead>
        <tbody>
          <tr><th scope="row">Holds</th><td v-for="(one, i) in inPans" :key="i">{{ one.measured.volume_ml ? `${plain(one.measured.volume_ml)} ml` : `${plain(one.measured.area_cm2)} cm²` }}<small v-if="one.measured.measured_ml != null">by water</small></td></tr>
          <tr><th scope="row">As divided</th><td v-for="(one, i) in inPans" :key="i">{{ cm(one.depths.divided_cm) }}</td></tr>
          <tr><th scope="row">Doubled</th><td v-for="(one, i) in inPans" :key="i" :class="{ stop: one.past_rim }">{{ cm(one.depths.doubled_cm) }}<small v-if="one.past_rim">over the rim</small></td></tr>
          <tr><th scope="row">Baked</th><td v-for="(one, i) in inPans" :key="i">{{ cm(one.depths.baked_cm) }}</td></tr>
          <tr><th scope="row">Fill</th><td v-for="(one, i) in inPans" :key="i" :class="one.fill_is">{{ fillShown(one.fill, per(one), units) }}<small>{{ LIES[one.fill_is] }}</small></td></tr>
          <tr><th scope="row">Cut</th><td v-for="(one, i) in inPans" :key="i">{{ one.slices.words.includes('×') ? one.slices.words : `${one.slices.pieces}${one.measured.solid.count > 1 ? ',' : ''} ${one.slices.words}` }}<small>{{ plain(one.slices.width_cm / (units.reference.length_units[units.length] ?? 1), 2) }} × {{ plain(one.slices.length_cm / (units.reference.length_units[units.length] ?? 1), 2) }} × {{ withUnit(one.slices.height_cm, 'cm', units, 2) }}</small></td></tr>
          <tr><th scope="row">Usually wants</th><td v-for="(one, i) in inPans" :key="i">{{ g(Math.round(one.wants_low_g)) }} to {{ g(Math.round(one.wants_high_g)) }}</td></tr>
          <tr v-if="inPans.length > 1"><th scope="row">As full as the first</th><td v-for="(one, i) in inPans" :key="i"><b>{{ g(Math.round(one.keeps_g)) }}</b><small>{{ i ? percent(one.keeps_share) : '' }}</small></td></tr>
        </tbody>
      </table>
      </div>
      <div class="row"><el-button :aria-expanded="asked" @click="asked = !asked">What else on the shelf would take this?</el-button></div>
      <ol v-if="asked" class="others">
        <li v-for="one in standing" :key="`${one.key}:${one.pans}`"><b>{{ panTitle(one.in_pan.pan, units) }}</b> {{ one.words }}, {{ cm(one.in_pan.depths.divided_cm) }} deep, {{ cm(one.in_pan.depths.doubled_cm) }} doubled</li>
        <li v-if="!standing.length" class="quiet none">Nothing else on the shelf takes it without being too full or too empty.</li>
      </ol>
  </section>
</template>

<style scoped>
.fields { display: grid; grid-template-columns: 130px minmax(0, 1fr); gap: 8px; margin-bottom: 8px }
.wide { overflow-x: auto }
table { width: 100%; border-collapse: collapse }
thead th { vertical-align: bottom; padding: 0 4px }
thead svg { display: block; margin: 0 auto; max-width: 100%; height: auto }
tbody th { text-align: left; font-weight: 500; color: var(--ink-2); font-size: .92rem; padding-right: 8px }
td { text-align: center; padding: 4px; font-weight: 650; color: var(--crust) }
tbody tr { border-top: 1px solid var(--rim-faint) }
td small { display: block; font-weight: 400; color: var(--ink-2); font-size: .82rem }
td.in { color: var(--ok) }
td.stop { color: var(--stop) }
.wall { fill: none; stroke: var(--rim); stroke-width: 4; stroke-linejoin: round; stroke-linecap: round }
.dough { fill: var(--crumb) }
.risen { fill: var(--dough); fill-opacity: .6; stroke: var(--crust); stroke-width: 1.5; stroke-dasharray: 5 4 }
.over.risen { fill: var(--stop-soft) }
.baked { stroke: var(--crumb); stroke-width: 2; stroke-dasharray: 2 4 }
.others { margin: 8px 0 0; padding-left: 22px; display: grid; gap: 5px }
.none { list-style: none }
</style>
