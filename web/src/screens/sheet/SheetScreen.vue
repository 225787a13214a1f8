<script setup lang="ts">
/** The weigh sheet: on screen as it comes out on paper. */
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { spaced } from './decimals'
import { shapeWords, turnsWords } from './shapes'
import SheetFrame from './SheetFrame.vue'
import { api, ask } from '@/api/client'
import { panTitle, plain } from '@/base/format'
import { useUnits } from '@/base/kitchen'

const route = useRoute()
const id = computed(() => Number(route.params.id))
const revision = computed(() => (route.query.revision ? Number(route.query.revision) : undefined))
const { units } = useUnits()
const query = useQuery({
  queryKey: ['sheet', id, revision],
  gcTime: 0,
  retry: false,
  queryFn: () =>
    ask(api.GET('/api/formulas/{formula_id}/sheet', { params: { path: { formula_id: id.value }, query: { revision: revision.value } } })),
})
const page = computed(() => query.data.value)
const sheet = computed(() => page.value?.sheet)
const file = (name: string, paper?: string) => {
  const query = [revision.value ? `revision=${revision.value}` : '', paper ? `paper=${paper}` : ''].filter(Boolean).join('&')
  return `/api/formulas/${id.value}/${name}${query ? `?${query}` : ''}`
}
type Sheet = NonNullable<typeof sheet.value>
type SheetLine = Sheet['stages'][number]['lines'][number]
/** The note of a line, and how it goes in. */
const asideOf = (line: SheetLine) =>
  [line.note, line.parts > 1 ? `in ${line.parts} parts` : '', line.held_back ? `hold back ${spaced(line.held_back)} ${sheet.value?.unit}` : '', line.fine ? 'on the fine scale' : ''].filter(Boolean).join(', ')
const back = computed(() => ({ name: 'formula', params: { id: id.value }, query: revision.value ? { revision: revision.value } : {} }))
const ROOMY = 20
const small = computed(() => (sheet.value?.stages.reduce((n, stage) => n + stage.lines.length + 1, 0) ?? 0) > ROOMY)
</script>

<template>
  <SheetFrame :ready="Boolean(sheet && page && units)" :error="query.error.value" :back="{ to: back, label: 'Back to the count' }" :other="{ to: { name: 'method-sheet', params: { id }, query: route.query }, label: 'Method sheet' }" :pdf="(paper) => file('sheet.pdf', paper)" @again="query.refetch()">
    <template #files>
      <el-button tag="a" :href="file('sheet.csv')">CSV</el-button>
      <el-button tag="a" :href="file('count.ods')">Spreadsheet</el-button>
    </template>
    <div v-if="sheet && page && units" :class="{ small }">
      <h1>{{ sheet.name || 'Formula without a name' }}</h1>
      <p class="quiet">{{ page.kitchen }} · {{ page.edition }} · {{ spaced(sheet.flour) }} {{ sheet.unit }} flour is 100 %<template v-if="sheet.mixes > 1"><br /><b>Weigh this {{ sheet.mixes }} times: {{ sheet.mixes }} equal mixes</b></template></p>
      <table>
        <tbody v-for="(stage, s) in sheet.stages" :key="s">
          <tr class="stage"><th colspan="3" scope="rowgroup">{{ stage.name || 'Dough' }}</th><td class="n">{{ spaced(stage.printed) }} {{ sheet.unit }}</td><td class="run">{{ s ? '' : 'scale shows' }}</td></tr>
          <tr v-for="(line, n) in stage.lines" :key="n">
            <td class="tick"><span /></td>
            <td>{{ line.name }} <span class="quiet">{{ asideOf(line) }}</span></td>
            <td class="percent">{{ line.percent === null ? '' : `${plain(line.percent)} %` }}</td>
            <td class="n">{{ line.printed === null ? 'as needed' : `${spaced(line.printed)} ${sheet.unit}` }}</td>
            <td class="run">{{ line.running == null ? '' : spaced(line.running) }}</td>
          </tr>
          <template v-for="(fed, n) in stage.fed" :key="`fed-${n}`">
            <tr class="passing"><td class="tick"><span /></td><td colspan="2">{{ fed.name }}, {{ fed.whole ? 'all of it' : 'this much of it' }}</td><td class="n">{{ spaced(fed.printed) }} {{ sheet.unit }}</td><td class="run">{{ fed.made_up ? '' : spaced(fed.running) }}</td></tr>
            <tr v-if="fed.made_up" class="passing"><td class="tick"><span /></td><td colspan="2">Water, for what boiled off</td><td class="n">{{ spaced(fed.made_up) }} {{ sheet.unit }}</td><td class="run">{{ spaced(fed.running) }}</td></tr>
          </template>
          <tr v-if="stage.boiled_off" class="passing"><td /><td colspan="2">boils off</td><td class="n">−{{ spaced(stage.boiled_off) }} {{ sheet.unit }}</td><td /></tr>
          <tr v-if="stage.kept_back" class="passing"><td /><td colspan="2">kept back for next time</td><td class="n">−{{ spaced(stage.kept_back) }} {{ sheet.unit }}</td><td /></tr>
        </tbody>
        <tbody class="all">
          <tr><td /><td>All of it<template v-if="sheet.mixes > 1">, each mix</template></td><td class="percent">{{ plain(sheet.total_percent) }} %</td><td class="n">{{ spaced(sheet.printed_total) }} {{ sheet.unit }}</td><td /></tr>
        </tbody>
        <tbody v-for="(stage, s) in sheet.beside" :key="`beside-${s}`">
          <tr class="stage"><th colspan="5" scope="rowgroup">{{ stage.name }} <span class="quiet">beside the dough{{ sheet.mixes > 1 ? ', for all mixes' : '' }}</span></th></tr>
          <tr v-for="(line, n) in stage.lines" :key="n">
            <td class="tick"><span /></td>
            <td colspan="2">{{ line.name }} <span class="quiet">{{ line.note }}</span></td>
            <td class="n">{{ line.printed === null ? 'as needed' : `${spaced(line.printed)} ${sheet.unit}` }}</td><td />
          </tr>
        </tbody>
      </table>
      <p v-for="caution in sheet.cautions" :key="caution" class="caution">{{ caution }}</p>
      <p v-for="cure in sheet.cures" :key="cure" class="cure">{{ cure }}</p>
      <div class="foot">
        <template v-for="(target, i) in sheet.targets" :key="i">
          <p><b>Divide<template v-if="target.name"> for {{ target.name }}</template>: {{ target.pieces }} × {{ spaced(target.piece) }} {{ sheet.unit }}</b>, about {{ spaced(target.baked) }} {{ sheet.unit }} baked<template v-if="target.least !== null">; sold by weight: none under {{ spaced(target.least) }} {{ sheet.unit }} baked, filling and topping included</template></p>
          <p v-if="target.pieces && (!target.pan || target.shaped.kind !== 'ball')">{{ shapeWords(target.shaped, units) }}</p>
          <p v-if="target.pan">{{ panTitle(target.pan, units) }}:
            <template v-for="(load, n) in target.loads" :key="n">{{ n ? ', ' : '' }}{{ load.pans }} {{ load.pans === 1 ? 'pan' : 'pans' }} of {{ load.pieces }}</template>
          </p>
          <p v-for="turns in target.turns" :key="turns.through" class="quiet">{{ turnsWords(turns, units) }}</p>
        </template>
        <p v-if="Number(sheet.remainder)">{{ spaced(sheet.remainder) }} {{ sheet.unit }} over</p>
        <p class="quiet">{{ plain(sheet.bench_loss * 100) }} % reckoned for what stays in the bowl and on the bench.</p>
      </div>
    </div>
  </SheetFrame>
</template>

<style scoped>
h1 { font-size: 1.7rem; overflow-wrap: anywhere }
table { width: 100%; border-collapse: collapse; margin-top: 10px }
td, th { padding: 6px 0; border-bottom: 1px solid var(--rim-faint); vertical-align: baseline; overflow-wrap: anywhere }
.stage th { text-align: left; font-family: var(--head) }
.stage th, .stage td { color: var(--rim); border-bottom: 2px solid var(--rim); padding-top: 14px }
.tick { width: 32px }
.tick span { display: inline-block; width: 16px; height: 16px; border: 1.6px solid var(--rim); border-radius: 5px; vertical-align: -2px }
.percent { text-align: right; color: var(--ink-2); width: 90px; white-space: nowrap }
.n { text-align: right; font-weight: 700; font-size: 1.12rem; width: 130px; white-space: nowrap }
.run { text-align: right; color: var(--ink-2); width: 92px; white-space: nowrap }
.all td { border-bottom: 0; border-top: 2px solid var(--rim); font-weight: 700 }
.passing td { color: var(--ink-2) }
.caution { border-left: 4px solid var(--stop); padding-left: 8px; margin: 6px 0 0 }
.cure { color: var(--crust); font-size: .92rem; margin-top: 5px }
.foot { border: 2px solid var(--rim); border-radius: 14px; padding: 10px 16px; margin-top: 16px; display: grid; gap: 2px; break-inside: avoid }
@media (max-width: 700px) { .percent { width: 64px } .n { width: 92px } .run { width: 62px } }
@media print {
  td, th { padding: 4px 0 }
  .small { font-size: 9.5pt }
  .small td, .small th { padding: 1px 0 }
  tr { break-inside: avoid }
}
</style>
