<script setup lang="ts">
/** The method sheet: on screen as it comes out on paper, beside the weigh sheet. */
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { spaced } from './decimals'
import SheetFrame from './SheetFrame.vue'
import { api, ask, type MethodSheet } from '@/api/client'
import { upper } from '@/base/format'

const route = useRoute()
const id = computed(() => Number(route.params.id))
const revision = computed(() => (route.query.revision ? Number(route.query.revision) : undefined))
const query = useQuery({
  queryKey: ['method-sheet', id, revision],
  gcTime: 0,
  retry: false,
  queryFn: () => ask(api.GET('/api/formulas/{formula_id}/method', { params: { path: { formula_id: id.value }, query: { revision: revision.value } } })),
})
const page = computed(() => query.data.value)
const sheet = computed(() => page.value?.sheet)
const pdf = (paper: string) => `/api/formulas/${id.value}/method.pdf?paper=${paper}${revision.value ? `&revision=${revision.value}` : ''}`
const back = computed(() => (revision.value ? { name: 'formula', params: { id: id.value }, query: { side: 'method', revision: revision.value } } : { name: 'method', params: { id: id.value } }))
const weighed = ({ name, printed }: MethodSheet['steps'][number]['goes_in'][number]) => (printed === null ? name : `${name} ${spaced(printed)}\u202f${sheet.value?.unit}`)
const sentence = (text: string) => (/[.!?]$/.test(text) ? text : `${text}.`)
</script>

<template>
  <SheetFrame :ready="Boolean(sheet && page)" :error="query.error.value" :back="{ to: back, label: 'Back to the method' }" :other="{ to: { name: 'sheet', params: { id }, query: route.query }, label: 'Weigh sheet' }" :pdf="pdf" @again="query.refetch()">
    <template v-if="sheet && page">
      <h1>{{ page.name || 'Formula without a name' }}</h1>
      <p class="quiet">{{ page.kitchen }} · {{ page.edition }}<template v-if="sheet.way"> · {{ sheet.way }}</template> · {{ sheet.whole }}, {{ sheet.hands }} of it by hand<template v-if="sheet.begins"><br /><b>Begin at {{ sheet.begins }}, ready at {{ sheet.ready }}<template v-if="sheet.late">, {{ sheet.late }}</template></b></template><template v-if="sheet.mixes > 1"><br />Weights are those of one of {{ sheet.mixes }} mixes</template></p>
      <p v-for="line in sheet.water" :key="line" class="water">{{ line }}</p>
      <table>
        <thead><tr><th scope="col">{{ sheet.begins ? 'at' : 'from 0:00' }}</th><th scope="col">step</th><th scope="col">how long, how warm</th><th scope="col" class="was">as it was</th></tr></thead>
        <tbody>
          <tr v-for="step in sheet.steps" :key="step.number" :class="{ during: step.during }">
            <td class="when"><small v-if="step.day" class="quiet">{{ step.day }}<br /></small>{{ step.when }}</td>
            <td>
              <b class="what">{{ upper(step.label) }}</b>&ensp;<span v-if="step.strand" class="quiet">{{ step.strand }}&ensp;</span>
              <span v-if="step.goes_in.length" class="goes"><span v-for="(one, n) in step.goes_in" :key="n">{{ n ? ', ' : '' }}{{ weighed(one) }}<small v-if="one.says" class="quiet">{{ ` ${one.says}` }}</small></span></span>
              <div v-if="step.text || step.check">{{ step.text ? sentence(step.text) : '' }} <span class="quiet">{{ step.check }}</span></div>
              <div v-if="step.caution" class="caution">{{ step.caution }}</div>
            </td>
            <td>{{ step.lasts }}<b v-if="step.heat" class="heat">{{ step.heat }}</b></td>
            <td class="was" />
          </tr>
        </tbody>
      </table>
      <p v-for="line in sheet.says" :key="line" class="quiet">{{ line }}</p>
    </template>
  </SheetFrame>
</template>

<style scoped>
.water { border: 2px solid var(--rim); border-radius: 12px; padding: 6px 12px; margin: 8px 0; font-weight: 700 }
table { width: 100%; border-collapse: collapse; table-layout: fixed }
th { text-align: left; font-weight: 400; font-size: .85rem; color: var(--ink-2); border-bottom: 2px solid var(--rim) }
th:nth-child(1) { width: 92px } th:nth-child(3) { width: 156px } th.was { width: 130px }
td { border-bottom: 1px solid var(--rim-faint); padding: 5px 8px 5px 0; vertical-align: top; overflow-wrap: anywhere }
.when { font-weight: 700; color: var(--rim) }
.what { font-family: var(--head); color: var(--rim) }
.goes { font-weight: 700 }
.heat { display: block }
.was { border-left: 1px dotted var(--rim-soft) }
.during td { background: color-mix(in srgb, var(--rim-faint) 45%, transparent) }
.caution { border-left: 4px solid var(--stop); padding-left: 8px; font-size: .9rem }
@media (max-width: 700px) { th:nth-child(1) { width: 62px } th:nth-child(3) { width: 92px } th.was, td.was { display: none } }
@media print {
  td { padding: 2px 6px 2px 0; font-size: 9.5pt }
  tr { break-inside: avoid }
}
</style>
