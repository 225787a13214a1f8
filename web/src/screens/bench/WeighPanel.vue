<script setup lang="ts">
/** One line to weigh: what is meant, what the scale shows, a bar that fills towards it with its tolerance; taken when it stands, or typed. */
import { computed, nextTick, ref, watch } from 'vue'
import { grams, gramsUnit } from './words'
import type { LineNow, OnScale } from '@/api/client'
import { read, unitOf, upper, type Units } from '@/base/format'
import Said from '@/design/Said.vue'

export interface WeighPanelProps {
  line: LineNow
  /** What is in of it already; the scale counts on from there. [g] */
  inAlready: number
  /** The scale; null where none is connected. */
  scale: OnScale | null
  why: string
  units: Units
  mixes: number
}
const props = defineProps<WeighPanelProps>()
const emit = defineEmits<{ weighed: [g: number, by: 'scale' | 'typed' | 'meant']; zero: []; skip: []; undo: [] }>()

const target = computed(() => props.line.target_g)
/** What the scale shows, where something stands on it and counts; null else. */
const onScale = computed(() => (props.scale && props.scale.phase !== 'none' && props.scale.phase !== 'empty' ? (props.scale.net_g ?? 0) : null))
const shownG = computed(() => (onScale.value === null ? (props.line.in_g ?? null) : props.inAlready + onScale.value))
/** Nothing finer is shown than the scale knows. */
const shownStep = computed(() => (onScale.value === null ? props.line.step_g : Math.max(props.line.step_g, props.scale?.step_g ?? 0)))
const fill = computed(() => (target.value ? Math.max(0, Math.min(1.25, (shownG.value ?? 0) / target.value)) / 1.25 : 0))
const band = computed(() => {
  const own = target.value
  if (!own) return null
  const half = Math.max(props.line.tolerance_g / own, 0.012)
  return { left: `${((1 - half) / 1.25) * 100}%`, width: `${((2 * half) / 1.25) * 100}%` }
})
const state = computed(() => {
  const own = target.value
  if (own == null || shownG.value === null) return 'none'
  if (Math.abs(shownG.value - own) <= props.line.tolerance_g + 1e-9) return 'within'
  if (Math.abs(shownG.value - own) < shownStep.value / 2) return 'near'
  return shownG.value > own ? 'over' : 'under'
})
const toGo = computed(() => {
  if (target.value == null || shownG.value === null) return ''
  const off = target.value - shownG.value
  if (state.value === 'within') return props.scale?.steady === false ? 'hold still' : 'it is in'
  if (state.value === 'near') return 'as near as this scale shows'
  return `${gramsUnit(Math.abs(off), shownStep.value, props.units)} ${off > 0 ? 'to go' : 'over'}`
})
const text = ref('')
const field = ref<HTMLInputElement | null>(null)
const doubt = ref<number | null>(null)
const bad = ref('')
watch(() => props.line.key, () => {
  text.value = ''
  doubt.value = null
  bad.value = ''
})
function typed(sure = false): void {
  const g = read(text.value, 'g', props.units)
  if (g === null) return
  if (Number.isNaN(g)) return void (bad.value = 'That is no weight: 475, 4.5 or 1.2 kg.')
  bad.value = ''
  if (!sure && target.value !== null && g > props.line.doubt_over_g) return void (doubt.value = g)
  doubt.value = null
  text.value = ''
  field.value?.blur() // the next press is for the next line
  emit('weighed', g, 'typed')
}
/** Nothing of it was put on the scale yet. */
const bare = computed(() => onScale.value !== null && onScale.value <= Math.max(props.line.tolerance_g, props.scale?.step_g ?? 0))
/** What the large button takes: what is typed, what the scale shows, what was meant; nothing where nothing is on the scale that should weigh it. */
const takes = computed<'typed' | 'scale' | 'meant' | 'nothing'>(() => {
  if (text.value.trim()) return 'typed'
  if (onScale.value === null || props.scale?.coarse) return 'meant'
  if (bare.value) return props.line.whole || target.value === null ? 'meant' : 'nothing'
  return 'scale'
})
function primary(): void {
  if (takes.value === 'typed') typed()
  else if (takes.value === 'scale') emit('weighed', props.inAlready + Math.max(0, onScale.value ?? 0), 'scale')
  else if (takes.value === 'meant') {
    if (target.value === null) emit('skip')
    else emit('weighed', target.value, 'meant')
  }
}
const primaryText = computed(() => {
  if (takes.value === 'typed') return 'Take what is typed'
  if (takes.value === 'scale' || takes.value === 'nothing') return 'Take this weight'
  return target.value === null ? 'It is in' : `${gramsUnit(target.value, props.line.step_g, props.units)} is in`
})
/** While something is typed the scale takes nothing by itself. */
const typing = computed(() => takes.value === 'typed' || doubt.value !== null)
function focus(): void {
  void nextTick(() => field.value?.focus())
}
defineExpose({ primary, focus, typing })
</script>

<template>
  <div class="weigh">
    <h2 class="what">{{ line.name }}</h2>
    <p class="more">
      <span v-if="mixes > 1 && line.what !== 'beside'">Mix {{ line.mix + 1 }} of {{ mixes }}. </span><span v-if="line.of">{{ line.of }}. </span><span v-if="line.note">{{ upper(line.note) }}. </span><b v-if="line.fine">Fine scale. </b><span v-if="line.parts > 1">It goes in in {{ line.parts }} parts. </span>{{ line.says }}
    </p>
    <p class="figure" :class="state" aria-live="off"><span class="number">{{ shownG === null ? (target == null ? '–' : grams(target, line.step_g, units)) : grams(shownG, shownStep, units) }}</span> <span class="unit">{{ unitOf('g', units) }}</span><span v-if="shownG === null && target != null" class="meant">to weigh</span></p>
    <div v-if="target != null" class="bar" role="img" :aria-label="`${gramsUnit(target, line.step_g, units)} meant, within ${gramsUnit(line.tolerance_g, line.step_g, units)}`">
      <div class="fill" :class="state" :style="{ width: `${fill * 100}%` }" />
      <div v-if="band" class="band" :class="state" :style="band" />
      <span class="meant-at" :style="{ left: '80%' }">{{ grams(target, line.step_g, units) }} ± {{ grams(Math.max(line.tolerance_g, line.step_g), line.step_g, units) }}</span>
    </div>
    <p class="to-go" :class="state" role="status">{{ toGo }}</p>
    <Said v-if="why || scale?.says" :tone="scale?.trouble || why ? 'stop' : 'plain'">{{ why || scale?.says }}</Said>
    <Said v-if="doubt !== null" tone="now"><strong>{{ gramsUnit(doubt, line.step_g, units) }} typed, {{ target == null ? '' : gramsUnit(target, line.step_g, units) }} meant</strong>A nought too many?<div class="row"><el-button @click="typed(true)">It is so</el-button><el-button type="primary" @click="((doubt = null), focus())">Type it again</el-button></div></Said>
    <div class="acts">
      <el-button type="primary" class="big first" :disabled="takes === 'nothing'" @click="primary">{{ primaryText }}<kbd>Space</kbd></el-button>
      <form class="typed" @submit.prevent="typed()">
        <label>Or what is in<span class="entry"><input ref="field" v-model="text" inputmode="decimal" autocomplete="off" :aria-label="`${line.name}, what is in`" :aria-invalid="bad ? true : undefined" @keydown.esc.stop="((text = ''), field?.blur())" /><span>{{ unitOf('g', units) }}</span></span></label>
      </form>
      <el-button v-if="scale" class="big" @click="emit('zero')">Zero<kbd>Z</kbd></el-button>
      <el-button class="big" @click="emit('undo')">Undo<kbd>U</kbd></el-button>
      <el-button class="big" @click="emit('skip')">Leave out<kbd>N</kbd></el-button>
    </div>
    <p v-if="bad" class="bad" role="alert">{{ bad }}</p>
  </div>
</template>

<style scoped>
.weigh { display: grid; gap: 6px; align-content: start }
.what { font-size: 2rem; color: var(--ink) }
.more { color: var(--ink-2); font-size: 1.08rem; min-height: 1.4em }
.figure { display: flex; align-items: baseline; gap: 18px; line-height: 1 }
.number { font: 750 clamp(4.6rem, 15vw, 8rem)/1.05 var(--body); letter-spacing: -.01em }
.unit { font-size: 2.4rem; color: var(--ink-2) }
.meant { font-size: 1.4rem; color: var(--ink-2) }
.figure.within .number { color: var(--ok) }
.figure.over .number { color: var(--stop) }
.bar { position: relative; height: 30px; border-radius: 15px; background: var(--rim-faint); margin: 30px 0 4px }
.fill { height: 100%; border-radius: 15px; background: var(--crumb); transition: width .12s linear }
.fill.over { background: var(--stop) }
.band { position: absolute; top: -8px; bottom: -8px; border: 2.5px solid var(--ok); border-radius: 6px; background: color-mix(in srgb, var(--ok) 28%, transparent) }
.meant-at { position: absolute; top: -30px; transform: translateX(-50%); font-weight: 600; white-space: nowrap }
.to-go { font-size: 1.7rem; font-weight: 700; color: var(--crust); min-height: 1.4em }
.to-go.within { color: var(--ok) }
.to-go.over { color: var(--stop) }
.acts { display: flex; flex-wrap: wrap; gap: 10px; align-items: stretch; margin-top: 8px }
.acts :deep(.el-button + .el-button) { margin-left: 0 }
.first { flex: 1 1 240px }
.typed { flex: 1 1 150px }
.typed label { display: grid; font-size: .9rem; color: var(--ink-2) }
.entry { display: flex; align-items: center; gap: 6px; border: 2px solid var(--rim); border-radius: 14px; padding: 0 12px; min-height: 50px; background: var(--tray) }
.entry input { flex: 1; min-width: 0; width: 60px; border: 0; outline: 0; background: none; font: 700 1.5rem var(--body); text-align: right; color: var(--ink) }
.entry:focus-within { outline: 3px solid var(--crust) }
.bad { color: var(--stop) }
@media (max-width: 760px) { .what { font-size: 1.6rem } .acts > * { flex: 1 1 28% } .first, .typed { flex: 1 1 100% } .bar { margin-top: 26px } }
</style>
