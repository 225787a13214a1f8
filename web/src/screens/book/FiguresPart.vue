<script setup lang="ts">
/** Losses, temperatures, pieces with their spread, loads and checks: meant beside as it was. */
import { computed } from 'vue'
import { celsius, grams, share } from './words'
import type { BakeRecord } from '@/api/client'
import type { Units } from '@/base/format'
import { minutesText } from '@/base/times'
import PieceBars from '@/drawings/PieceBars.vue'

export interface FiguresPartProps {
  record: BakeRecord
  units: Units
}
const props = defineProps<FiguresPartProps>()
const rows = computed(() => {
  const { record, units } = props
  return [
    ...[['Bowl and bench loss', record.bench_loss], ['Baking loss', record.bake_loss]].map(([name, loss]) => ({ name: String(name), meant: share((loss as BakeRecord['bench_loss']).meant), was: (loss as BakeRecord['bench_loss']).was == null ? '' : share((loss as BakeRecord['bench_loss']).was as number) })),
    ...record.targets.map((one) => ({ name: one.name || 'Pieces', meant: `${one.meant_pieces} × ${grams(one.meant_piece_g, units)}`, was: `${one.pieces} × ${grams(one.piece_g, units)}` })),
    ...(record.baked_g == null ? [] : [{ name: 'A piece, baked', meant: '', was: grams(record.baked_g, units) }]),
    ...record.temperatures.map((one) => ({ name: one.label, meant: one.meant_c == null ? '' : celsius(one.meant_c), was: celsius(one.was_c) })),
  ]
})
const strips = computed(() =>
  props.record.targets.filter((one) => one.weighed.length > 1).map((one) => {
    const tolerance = one.tolerance_g
    return { target: one, strip: { target: 0, pieces: one.weighed, off: one.weighed.map((g) => (Math.abs(g - one.meant_piece_g) <= tolerance ? 0 : g > one.meant_piece_g ? 1 : -1)), tolerance_g: tolerance, mean_g: one.mean_g ?? null, spread_g: one.spread_g ?? null, left: 0, left_g: 0, rest_g: null, says: '' } }
  }),
)
/** What goes by loads, and takes its time in the heat. */
const HEAT = ['bathe', 'bake', 'griddle']
const loads = computed(() => props.record.steps.filter((one) => HEAT.includes(one.kind) && one.began_s != null && one.done_s != null))
const checks = computed(() => props.record.steps.filter((one) => one.passed != null || one.tries > 0))
const took = (one: BakeRecord['steps'][number]) => minutesText((Number(one.done_s) - Number(one.began_s)) / 60)
</script>

<template>
  <section class="tray" aria-labelledby="figures-head">
    <div class="tray-head"><h2 id="figures-head">Figures</h2></div>
    <table>
      <thead><tr><th scope="col">&nbsp;</th><th scope="col">Meant</th><th scope="col">Was</th></tr></thead>
      <tbody><tr v-for="(row, n) in rows" :key="n"><th scope="row">{{ row.name }}</th><td class="quiet">{{ row.meant }}</td><td><template v-if="row.was">{{ row.was }}</template><span v-else class="quiet">not weighed</span></td></tr></tbody>
    </table>
    <template v-for="(one, n) in strips" :key="n">
      <h3>{{ one.target.name || 'Pieces' }}, each</h3>
      <PieceBars :strip="one.strip" :piece-g="one.target.meant_piece_g" :units="units" />
      <p class="quiet">{{ grams(one.target.least_g ?? 0, units) }} to {{ grams(one.target.most_g ?? 0, units) }}, {{ grams(one.target.mean_g ?? 0, units) }} in the middle, straying by {{ (one.target.spread_g ?? 0).toFixed(1) }} g.</p>
    </template>
    <template v-if="loads.length"><h3>In the heat</h3><p v-for="one in loads" :key="one.key">{{ one.label }}: {{ took(one) }}<span class="quiet"> of {{ minutesText(one.planned_min) }} planned{{ one.heat ? `, ${one.heat}` : '' }}</span></p></template>
    <template v-if="checks.length"><h3>Checks</h3><p v-for="one in checks" :key="one.key">{{ one.label }}: {{ one.passed ? 'passed' : 'not passed' }}<span v-if="one.tries" class="quiet">, not yet at {{ one.tries }} {{ one.tries === 1 ? 'look' : 'looks' }} before</span></p></template>
    <template v-if="record.notes.length"><h3>Noted at the bench</h3><p v-for="(one, n) in record.notes" :key="n">{{ one.says }}</p></template>
  </section>
</template>

<style scoped>
table { width: 100%; border-collapse: collapse }
th, td { text-align: right; padding: 4px 0 4px 10px; border-top: 1px solid var(--rim-faint); font-weight: 400 }
th:first-child { text-align: left; padding-left: 0 }
thead th { border-top: 0; color: var(--ink-2); font-size: .85rem }
td:last-child { font-weight: 650 }
td .quiet { font-weight: 400 }
h3 { font-size: .98rem; color: var(--rim); margin: 12px 0 4px }
</style>
