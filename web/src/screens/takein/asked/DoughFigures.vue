<script setup lang="ts">
/** What the dough may be: each headline figure with its range, and the line behind most of it. */
import { computed } from 'vue'
import BandBar from '@/screens/takein/things/BandBar.vue'
import type { Figure } from '@/api/client'
import { plain } from '@/base/format'

export interface DoughFiguresProps {
  figures: readonly Figure[]
}
const props = defineProps<DoughFiguresProps>()

const digits = (value: number) => plain(value, value < 10 ? 2 : 3)
/** Scaled so that the range is seen in proportion to the figure. */
const shownFigures = computed(() => props.figures.filter((f) => f.high > 0.05).map((f) => ({ ...f, from: Math.max(0, f.usual - 1.15 * Math.max(f.usual - f.low, f.high - f.usual, 0.25 * f.usual)), to: f.usual + 1.15 * Math.max(f.usual - f.low, f.high - f.usual, 0.25 * f.usual) })))
const certain = (f: Figure) => digits(f.low) === digits(f.high)
const isWide = (f: Figure) => f.blame !== '' && !certain(f) && f.high - f.low > 0.02 * f.usual
/** What would make the lines surer that are behind most of a range, each once; true water's first. */
const cures = computed(() => {
  const wide = [...shownFigures.value].filter(isWide).sort((a, b) => Number(b.key === 'water') - Number(a.key === 'water'))
  return wide.filter((f, n) => wide.findIndex((other) => other.blame === f.blame) === n).slice(0, 3)
})
const part = (share: number) => (share > 0.995 ? 'all' : `${Math.round(100 * share)} %`)
</script>

<template>
  <section class="tray dough" aria-labelledby="dough-head">
    <div class="tray-head"><h2 id="dough-head">What the dough may be</h2><span class="quiet">% of flour</span></div>
    <p v-if="!figures.length" class="quiet">There is no flour with a weight yet. Flour is the 100 % that all else is measured against.</p>
    <dl v-else>
      <template v-for="f in shownFigures" :key="f.key">
        <dt>{{ f.label }}</dt>
        <dd class="worked">{{ digits(f.usual) }}</dd>
        <dd><BandBar :low="f.low" :usual="f.usual" :high="f.high" :from="f.from" :to="f.to" colour="var(--dough-band)" /></dd>
        <dd class="quiet ends">{{ certain(f) ? 'as weighed' : `${digits(f.low)}–${digits(f.high)}` }}</dd>
        <dd v-if="isWide(f)" class="quiet behind">{{ part(f.share) }} of the range is {{ f.blame }}</dd>
      </template>
    </dl>
    <p v-for="f in cures" :key="f.key" class="quiet"><b>{{ f.blame }}</b>: {{ f.cure }}</p>
  </section>
</template>

<style scoped>
.dough { display: grid; gap: 8px; align-content: start; --dough-band: color-mix(in srgb, var(--crust) 50%, var(--tray)) }
dl { display: grid; grid-template-columns: auto auto minmax(50px, 1fr) auto; gap: 6px 12px; align-items: center; margin: 0 }
dd { margin: 0 }
dd.worked { font-size: 1.2rem; font-weight: 700; text-align: right }
.ends { white-space: nowrap; text-align: right }
.behind { grid-column: 1 / -1; margin: -7px 0 0; font-size: .8rem }
b { color: var(--ink); font-weight: 600 }
</style>
