<script setup lang="ts">
/** What is weighed for one bowl: in, next, and still to come. Each line may be gone to. */
import { lineText, gramsUnit } from './words'
import type { LineNow } from '@/api/client'
import type { Units } from '@/base/format'

export interface InBowlProps {
  title: string
  lines: readonly LineNow[]
  at: string
  units: Units
}
defineProps<InBowlProps>()
const emit = defineEmits<{ go: [key: string] }>()
const SIGNS: Record<string, string> = { in: '✓', accepted: '✓', over: '!', under: '!', twice: '?', skipped: '–' }
const SAYS: Record<string, string> = { in: 'in', accepted: 'in, left as it is', over: 'over', under: 'short', twice: 'weighed twice', skipped: 'left out', open: 'to weigh' }
</script>

<template>
  <section class="tray" aria-labelledby="bowl-head">
    <div class="tray-head"><h2 id="bowl-head">{{ title }}</h2></div>
    <ol>
      <li v-for="line in lines" :key="line.key">
        <button type="button" :class="[line.status, { here: line.key === at }]" :aria-current="line.key === at ? 'step' : undefined" @click="emit('go', line.key)">
          <span class="sign" aria-hidden="true">{{ line.key === at ? '›' : (SIGNS[line.status] ?? '') }}</span>
          <span class="name">{{ line.name }}<em v-if="line.what === 'held_back'">, held back</em><span class="visually-hidden">, {{ SAYS[line.status] }}</span></span>
          <b>{{ line.in_g != null && line.status !== 'open' ? gramsUnit(line.in_g, line.step_g, units) : lineText(line, units) }}</b>
        </button>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol { list-style: none; margin: 0 calc(-1 * var(--side)); padding: 0 }
button { display: grid; grid-template-columns: 22px 1fr auto; gap: 8px; align-items: center; width: 100%; min-height: 42px; border: 0; border-bottom: 1px solid var(--rim-faint); background: none; padding: 0 var(--side); text-align: left; cursor: pointer; font-size: 1.05rem; color: var(--ink) }
.in, .accepted, .skipped { color: var(--ink-2) }
.in .sign, .accepted .sign { color: var(--ok) }
.over, .under, .twice { color: var(--stop) }
.here { background: var(--crust-soft); color: var(--ink); font-weight: 700 }
em { font-style: normal; color: var(--ink-2); font-weight: 400 }
b { font-weight: 650 }
</style>
