<script setup lang="ts">
/** A temperature or a weight that is measured: from the thermometer or the scale where there is one, typed always. */
import { computed, ref } from 'vue'
import { grams } from './words'
import { read, unitOf, type Units } from '@/base/format'

export interface MeasureFieldProps {
  label: string
  kind: 'celsius' | 'g'
  units: Units
  /** What the device shows now; null where there is none. */
  live: number | null
  /** What was measured last; null where nothing was. */
  last: number | null
}
const props = defineProps<MeasureFieldProps>()
const emit = defineEmits<{ measured: [value: number] }>()
const text = ref('')
const bad = ref('')
const field = ref<HTMLInputElement | null>(null)
function typed(): void {
  const value = read(text.value, props.kind === 'g' ? 'g' : 'count', props.units)
  if (value === null) return
  const wrong = Number.isNaN(value) || (props.kind === 'celsius' && (value < -30 || value > 320))
  bad.value = wrong ? (props.kind === 'g' ? 'That is no weight.' : 'In degrees, as 26.5.') : ''
  if (wrong) return
  text.value = ''
  field.value?.blur() // the next press is for what is to do
  emit('measured', value)
}
const GRAM = 1
const unit = computed(() => (props.kind === 'celsius' ? '°C' : unitOf('g', props.units)))
const say = (value: number): string => (props.kind === 'celsius' ? value.toFixed(1) : grams(value, GRAM, props.units))
</script>

<template>
  <form class="measure" @submit.prevent="typed">
    <label>{{ label }}<span class="entry"><input ref="field" v-model="text" inputmode="decimal" autocomplete="off" :aria-label="label" :placeholder="last === null ? '' : say(last)" :aria-invalid="bad ? true : undefined" /><span>{{ unit }}</span></span></label>
    <el-button v-if="live !== null && !text" class="take" @click="emit('measured', live)">Take {{ say(live) }} {{ unit }}</el-button>
    <el-button v-else class="take" native-type="submit" :disabled="!text.trim()">Keep</el-button>
    <span v-if="bad" class="bad" role="alert">{{ bad }}</span>
  </form>
</template>

<style scoped>
.measure { display: flex; flex-wrap: wrap; gap: 8px; align-items: end }
label { display: grid; font-size: .92rem; color: var(--ink-2) }
.entry { display: flex; align-items: center; gap: 6px; border: 2px solid var(--rim-soft); border-radius: 12px; padding: 0 10px; min-height: 50px; background: var(--tray); width: 150px }
.entry input { flex: 1; min-width: 0; border: 0; outline: 0; background: none; font: 700 1.3rem var(--body); text-align: right; color: var(--ink) }
.entry input::placeholder { color: var(--ink-2); font-weight: 500; font-size: 1.05rem }
.entry:focus-within { outline: 3px solid var(--crust) }
.take { min-height: 50px; min-width: 76px; font-size: 1.05rem }
.bad { color: var(--stop); align-self: center }
</style>
