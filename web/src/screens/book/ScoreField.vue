<script setup lang="ts">
/** One to five buns on a scale: radios that look like buns, large enough for a floury knuckle. Pressing the chosen one takes it back. */
import { BEST } from './words'

export interface ScoreFieldProps {
  label: string
  value: number | null
}
defineProps<ScoreFieldProps>()
const emit = defineEmits<{ choose: [score: number | null] }>()
const name = `score-${crypto.randomUUID()}`
</script>

<template>
  <fieldset class="score">
    <legend>{{ label }}</legend>
    <span class="buns">
      <label v-for="n in BEST" :key="n" :class="{ on: value !== null && n <= value }" :title="`${n} of ${BEST}`">
        <input type="radio" :name="name" :value="n" :checked="value === n" :aria-label="`${label}: ${n} of ${BEST}`" @change="emit('choose', n)" @click="value === n && emit('choose', null)" />
        <svg viewBox="0 0 24 20" aria-hidden="true"><path d="M3 14c0-6 4-10 9-10s9 4 9 10c0 2-1 3-3 3H6c-2 0-3-1-3-3Z" /></svg>
      </label>
    </span>
    <b class="figure">{{ value ?? '–' }}</b>
  </fieldset>
</template>

<style scoped>
.score { border: 0; margin: 0; padding: 0; display: grid; grid-template-columns: minmax(84px, 1fr) auto 22px; align-items: center; gap: 8px; min-height: 44px }
legend { float: left; padding: 0; font-weight: 600 }
.buns { display: flex }
label { position: relative; width: 44px; height: 44px; display: grid; place-items: center; cursor: pointer; border-radius: 10px }
label:has(:focus-visible) { outline: 3px solid var(--crust); outline-offset: -2px }
input { position: absolute; inset: 0; opacity: 0; cursor: pointer; margin: 0 }
svg { width: 32px; height: 27px; pointer-events: none }
path { fill: none; stroke: var(--rim-soft); stroke-width: 1.8 }
.on path { fill: var(--crumb); stroke: var(--rim) }
.figure { text-align: right }
</style>
