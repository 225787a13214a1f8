<script setup lang="ts">
/** Lines as they were meant beside as they went in: grams, percent of flour, and how far off. */
import { computed } from 'vue'
import { grams } from './words'
import type { BakeRecord } from '@/api/client'
import { plain, type Units } from '@/base/format'

export interface LinesPartProps {
  record: BakeRecord
  units: Units
}
const props = defineProps<LinesPartProps>()
const stages = computed(() => {
  const found: { name: string; lines: BakeRecord['lines'] }[] = []
  for (const line of props.record.lines.filter((one) => !one.beside)) {
    const last = found.at(-1)
    if (last?.name === line.of) last.lines.push(line)
    else found.push({ name: line.of, lines: [line] })
  }
  const beside = props.record.lines.filter((one) => one.beside)
  return beside.length ? [...found, { name: 'Beside the dough', lines: beside }] : found
})
const off = (line: BakeRecord['lines'][number]) => {
  if (line.was_g == null || line.meant_g == null || line.within) return ''
  const by = line.was_g - line.meant_g
  return `${by > 0 ? '+' : '−'}${grams(Math.abs(by), props.units)}`
}
const gauges = computed(() => props.record.gauges.filter((one) => Math.abs(one.now - one.meant) >= 0.05).slice(0, 6))
</script>

<template>
  <section class="tray" aria-labelledby="lines-head">
    <div class="tray-head"><h2 id="lines-head">Dough</h2><span class="quiet">{{ grams(record.mixed_g, units) }} mixed, {{ grams(record.planned_g, units) }} planned</span></div>
    <div class="scroll" tabindex="0" role="region" aria-label="Lines as meant and as they went in">
      <table>
        <thead><tr><th scope="col">&nbsp;</th><th scope="col">Meant</th><th scope="col">Went in</th><th scope="col">% of flour</th><th scope="col">Off by</th></tr></thead>
        <tbody v-for="stage in stages" :key="stage.name">
          <tr v-if="stages.length > 1"><th class="stage" colspan="5" scope="rowgroup">{{ stage.name }}</th></tr>
          <tr v-for="(line, n) in stage.lines" :key="n">
            <th scope="row">{{ line.name }}<small v-if="line.says" class="quiet says">{{ line.says }}</small></th>
            <td class="quiet">{{ line.meant_g == null ? 'open' : grams(line.meant_g, units) }}</td>
            <td><template v-if="line.was_g != null">{{ grams(line.was_g, units) }}</template><span v-else class="quiet">not weighed</span></td>
            <td>{{ line.was_percent == null ? (line.meant_percent == null ? '' : plain(line.meant_percent, 3)) : plain(line.was_percent, 3) }}</td>
            <td :class="{ off: off(line) }">{{ off(line) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="gauges.length" class="quiet moved">So the dough was: <template v-for="(one, n) in gauges" :key="one.key"><template v-if="n">; </template>{{ one.label.toLowerCase() }} {{ plain(one.meant, 3) }} → <b>{{ plain(one.now, 3) }} %</b></template>.</p>
  </section>
</template>

<style scoped>
.scroll { overflow-x: auto }
table { width: 100%; border-collapse: collapse }
th, td { text-align: right; padding: 4px 0 4px 10px; border-top: 1px solid var(--rim-faint); font-weight: 400; white-space: nowrap }
th:first-child { text-align: left; padding-left: 0; white-space: normal }
thead th { border-top: 0; color: var(--ink-2); font-size: .85rem }
td:nth-child(3) { font-weight: 650 }
td .quiet { font-weight: 400 }
.stage { font: 700 .95rem var(--head); color: var(--rim); padding-top: 8px }
.off { color: var(--stop); font-weight: 650 }
.says { margin-left: 8px }
.moved { margin-top: 6px }
</style>
