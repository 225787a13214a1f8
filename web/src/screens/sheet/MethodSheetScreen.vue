<script setup lang="ts">
/** The method sheet: on screen as it comes out on paper, beside the weigh sheet. */
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { api, ask, Refused, type MethodSheet } from '@/api/client'
import LinkButton from '@/design/LinkButton.vue'
import Said from '@/design/Said.vue'

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
const problem = computed(() => (query.error.value instanceof Refused ? query.error.value : null))
const PAPERS = [['A4', 'A4'], ['Letter', 'Letter'], ['roll', '80 mm roll']] as const
const file = (paper: string) => `/api/formulas/${id.value}/method.pdf?paper=${paper}${revision.value ? `&revision=${revision.value}` : ''}`
const back = computed(() => (revision.value ? { name: 'formula', params: { id: id.value }, query: { side: 'method', revision: revision.value } } : { name: 'method', params: { id: id.value } }))
/** Decimals come as text, exactly as the scale shows them; only thousands are spaced. */
const spaced = (decimal: string) => decimal.replace(/\B(?=(\d{3})+(?!\d))(?<!\.\d*)/g, '\u202f')
const weighed = ({ name, printed }: MethodSheet['steps'][number]['goes_in'][number]) => (printed === null ? name : `${name} ${spaced(printed)}\u202f${sheet.value?.unit}`)
const print = () => window.print()
const sentence = (text: string) => (/[.!?]$/.test(text) ? text : `${text}.`)
const upper = (text: string) => text.slice(0, 1).toUpperCase() + text.slice(1)
</script>

<template>
  <main class="page sheet-page">
    <div class="page-head no-print">
      <LinkButton :to="back">Back to the method</LinkButton>
      <LinkButton text :to="{ name: 'sheet', params: { id }, query: route.query }">Weigh sheet</LinkButton>
      <span class="spacer" />
      <template v-if="sheet">
        <span class="quiet">PDF</span>
        <el-button tag="a" v-for="[paper, words] in PAPERS" :key="paper" :aria-label="`PDF, ${words}`" :href="file(paper)" target="_blank">{{ words }}</el-button>
        <el-button type="primary" @click="print">Print</el-button>
      </template>
    </div>
    <p v-if="query.isPending.value" class="quiet">Reckoning the sheet …</p>
    <Said tone="stop" v-else-if="query.error.value"><strong>{{ problem?.problem.title ?? 'The sheet cannot be shown' }}</strong>{{ query.error.value.message }}<div class="row"><LinkButton :to="back">Back to the method</LinkButton><el-button @click="query.refetch()">Try again</el-button></div></Said>
    <article v-else-if="sheet && page" class="paper">
      <h1>{{ page.name || 'Formula without a name' }}</h1>
      <p class="quiet">{{ page.kitchen }} · {{ page.edition }}<template v-if="sheet.way"> · {{ sheet.way }}</template> · {{ sheet.whole }}, {{ sheet.hands }} of it by hand<template v-if="sheet.begins"><br /><b>Begin at {{ sheet.begins }}, ready at {{ sheet.ready }}<template v-if="sheet.late">, {{ sheet.late }}</template></b></template><template v-if="sheet.mixes > 1"><br />Weights are those of one of {{ sheet.mixes }} mixes</template></p>
      <p v-for="line in sheet.water" :key="line" class="water">{{ line }}</p>
      <table>
        <thead><tr><th scope="col">{{ sheet.begins ? 'at' : 'from 0:00' }}</th><th scope="col">step</th><th scope="col">how long, how warm</th><th scope="col" class="was">as it was</th></tr></thead>
        <tbody>
          <tr v-for="step in sheet.steps" :key="step.number" :class="{ during: step.during }">
            <td class="when"><small v-if="step.day" class="quiet">{{ step.day }}<br /></small>{{ step.when }}</td>
            <td>
              <b class="what">{{ upper(step.label) }}</b>&ensp;<span v-if="step.strand" class="quiet">{{ step.strand }}</span>
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
    </article>
  </main>
</template>

<style scoped>
.sheet-page { max-width: 960px }
.paper { background: var(--tray); border: 2px solid var(--rim); border-radius: var(--radius); padding: 26px 32px }
.paper h1 { font-size: 1.7rem; overflow-wrap: anywhere }
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
@media (max-width: 700px) { .paper { padding: 12px } th:nth-child(1) { width: 62px } th:nth-child(3) { width: 92px } th.was, td.was { display: none } }
@media print {
  .sheet-page { padding: 0; max-width: none }
  .paper { border: 0; padding: 0 }
  .paper * { color: #18222f; border-color: #b9c8dc }
  td { padding: 2px 6px 2px 0; font-size: 9.5pt }
  tr { break-inside: avoid }
}
</style>
