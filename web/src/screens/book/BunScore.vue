<script setup lang="ts">
/** A score that is only read: buns, filled as far as it goes. */
import { BEST, scoreText } from './words'

export interface BunScoreProps {
  score: number
}
defineProps<BunScoreProps>()
</script>

<template>
  <span class="buns" role="img" :aria-label="scoreText(score)">
    <svg v-for="n in BEST" :key="n" viewBox="0 0 24 20" aria-hidden="true"><path d="M3 14c0-6 4-10 9-10s9 4 9 10c0 2-1 3-3 3H6c-2 0-3-1-3-3Z" :class="{ on: n <= Math.round(score) }" /></svg><b>{{ score.toFixed(1) }}</b>
  </span>
</template>

<style scoped>
.buns { display: inline-flex; align-items: center; gap: 1px; white-space: nowrap }
svg { width: 17px; height: 14px }
path { fill: none; stroke: var(--rim-soft); stroke-width: 2 }
.on { fill: var(--crumb); stroke: var(--rim) }
b { margin-left: 5px }
</style>
