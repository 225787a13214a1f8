<script setup lang="ts">
/** Dividing: the dough on the scale, what it makes, each piece beside what it is to weigh, the pans filling; or by halves without a scale. */
import { computed, ref } from 'vue'
import MeasureField from './MeasureField.vue'
import { gramsUnit } from './words'
import type { BakeNow, Deed } from '@/api/client'
import { read, unitOf, type Units } from '@/base/format'
import Said from '@/design/Said.vue'
import PanTop from '@/drawings/PanTop.vue'
import PieceBars from '@/drawings/PieceBars.vue'

export interface DividePartProps {
  bake: BakeNow
  units: Units
  net: number | null
  steady: boolean
}
const props = defineProps<DividePartProps>()
const emit = defineEmits<{ act: [...deeds: Deed[]] }>()

const at = ref(0)
const made = computed(() => props.bake.making?.targets[at.value] ?? null)
const strip = computed(() => props.bake.strips.find((one) => one.target === at.value) ?? null)
const text = ref('')
const halves = ref(false)
function piece(g: number | null, by: 'scale' | 'typed'): void {
  if (g === null || Number.isNaN(g) || g <= 0) return
  emit('act', { deed: 'piece', target: at.value, g, by })
  text.value = ''
}
const size = (g: number) => gramsUnit(g, props.bake.step_g, props.units)
const other = computed(() => props.bake.instead)
const perPan = computed(() => made.value?.loads[0]?.pieces ?? 0)
/** Full pans before the one that is being filled. */
const panNumber = computed(() => (perPan.value ? Math.min(Math.floor((strip.value?.pieces.length ?? 0) / perPan.value), (made.value?.loads.reduce((sum, one) => sum + one.pans, 0) ?? 1) - 1) : 0))
const inPan = computed(() => (strip.value?.pieces.length ?? 0) - panNumber.value * perPan.value)
</script>

<template>
  <div class="divide" :class="{ panned: made?.panned }">
    <div class="figures">
    <MeasureField label="All the dough, on the scale" kind="g" :units="units" :live="net" :last="bake.dough.on_scale_g ?? null" @measured="emit('act', { deed: 'measured', what: 'dough_g', value: $event, pieces: 1 })" />
    <Said v-for="one in bake.questions.filter((own) => own.kind === 'loss')" :key="one.key" tone="now"><strong>{{ one.title }}</strong>{{ one.says }}</Said>
    <p v-if="bake.dough.on_scale_g != null" class="says">{{ bake.dough.says }}</p>
    <div v-if="bake.making && bake.making.targets.length > 1" class="targets" role="tablist"><button v-for="(one, n) in bake.making.targets" :key="n" type="button" role="tab" :aria-selected="n === at" @click="at = n">{{ one.name || `Target ${n + 1}` }}</button></div>
    <template v-if="made">
      <p class="make"><b class="figure worked">{{ made.pieces }}</b> {{ made.pieces === 1 ? 'piece' : 'pieces' }} of <b class="figure worked">{{ size(made.piece_g) }}</b><span v-if="bake.making && bake.making.remainder_g >= 1" class="quiet"> and {{ size(bake.making.remainder_g) }} over</span></p>
      <p v-if="other && other.targets[at] && (other.targets[at]?.pieces !== made.pieces || other.targets[at]?.piece_g !== made.piece_g)" class="or">or {{ other.targets[at]?.pieces }} of {{ size(other.targets[at]?.piece_g ?? 0) }}<template v-if="other.remainder_g >= 1">, {{ size(other.remainder_g) }} over</template><el-button :disabled="Boolean(strip?.pieces.length)" @click="emit('act', { deed: 'kept', what: other.keeps === 'weight' ? 'weight' : 'pieces' })">Keep the {{ other.keeps === 'weight' ? 'weight' : 'number' }}</el-button></p>
      <Said v-if="made.says" tone="now">{{ made.says }}</Said>
    </template>
    <template v-if="made && strip">
      <PieceBars :strip="strip" :piece-g="made.piece_g" :units="units" />
      <p class="next" role="status"><b v-if="net !== null && strip.left">{{ size(net) }} on the scale. </b>{{ strip.says }}<span v-if="strip.mean_g != null" class="quiet"> Mean {{ size(strip.mean_g) }}<template v-if="strip.spread_g != null">, spread {{ strip.spread_g.toFixed(1) }} g</template>.</span></p>
      <div class="row">
        <el-button v-if="net !== null" class="big" :disabled="!strip.left || !steady" @click="piece(net, 'scale')">This piece</el-button>
        <form @submit.prevent="piece(read(text, 'g', units), 'typed')"><label class="visually-hidden" for="piece-typed">Weight of a piece</label><input id="piece-typed" v-model="text" inputmode="decimal" autocomplete="off" placeholder="a piece" /><span>{{ unitOf('g', units) }}</span><el-button native-type="submit" :disabled="!text.trim()">Keep</el-button></form>
        <el-button v-if="bake.shares.length" @click="halves = !halves" :aria-expanded="halves">Without a scale</el-button>
      </div>
      <ol v-if="halves" class="halves"><li v-for="line in bake.shares" :key="line">{{ line }}</li><li><el-button @click="emit('act', { deed: 'shared_out', target: at })">Shared out so</el-button></li></ol>
    </template>
    </div>
    <template v-if="made && strip">
      <figure v-if="made.panned"><PanTop :solid="made.panned.solid" :panned="made.panned" :filled="inPan" :piece-g="made.piece_g" :units="units" :scale="6" :measured="false" /><figcaption class="quiet">{{ made.panned.pan.name }} {{ panNumber + 1 }} of {{ made.loads.reduce((sum, one) => sum + one.pans, 0) }}: {{ inPan }} of {{ perPan }} in it.</figcaption></figure>
    </template>
  </div>
</template>

<style scoped>
.divide, .figures { display: grid; gap: 10px; align-content: start; min-width: 0 }
@media (min-width: 800px) { .panned { grid-template-columns: minmax(0, 1fr) auto } }
.says { font-size: 1.08rem }
.make { font-size: 1.5rem }
.figure { font-size: 2.6rem }
.or { display: flex; flex-wrap: wrap; gap: 10px; align-items: center; font-size: 1.05rem; color: var(--ink-2) }
.next { font-size: 1.3rem; font-weight: 600 }
.next .quiet { font-weight: 400; font-size: 1rem }
.row { display: flex; flex-wrap: wrap; gap: 10px; align-items: center }
form { display: flex; gap: 8px; align-items: center }
form input { width: 110px; min-height: 56px; border: 2px solid var(--rim); border-radius: 12px; text-align: right; padding: 0 10px; font: 700 1.4rem var(--body); background: var(--tray) }
form input::placeholder { font-weight: 400; font-size: 1.05rem; color: var(--ink-2) }
.row :deep(.el-button) { min-height: 56px; font-size: 1.1rem; margin-left: 0 }
.halves { margin: 0; padding-left: 22px; font-size: 1.15rem; display: grid; gap: 4px }
.targets { display: flex; gap: 8px }
.targets button { min-height: 44px; padding: 0 14px; border: 2px solid var(--rim-soft); border-radius: 99px; background: none }
.targets [aria-selected=true] { background: var(--rim); color: var(--on-rim) }
figure { margin: 0; display: grid; gap: 4px; max-width: 300px }
</style>
