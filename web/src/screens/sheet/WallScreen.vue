<script setup lang="ts">
/** A day on paper: by time for the wall, the evening before, and all that is to be weighed. */
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { spaced } from './decimals'
import SheetFrame from './SheetFrame.vue'
import { api, ask } from '@/api/client'
import { clockOnly, dateText, dayName, dayOf } from '@/base/dayTimes'
import { minutesText } from '@/base/times'

const route = useRoute()
const id = computed(() => Number(route.params.id))
const query = useQuery({ queryKey: ['wall', id], gcTime: 0, retry: false, queryFn: () => ask(api.GET('/api/days/{day_id}/papers', { params: { path: { day_id: id.value } } })) })
const page = computed(() => query.data.value)
const papers = computed(() => page.value?.papers)
const pdf = (paper: string) => `/api/days/${id.value}/wall.pdf?paper=${paper}`
const day = (at: number) => dayName(page.value?.date ?? '', dayOf(at))
const isNewDay = (n: number) => n === 0 || dayOf(papers.value?.lines[n]?.begins_min ?? 0) !== dayOf(papers.value?.lines[n - 1]?.begins_min ?? 0)
/** Lines to weigh, by dough and bowl. */
const bowls = computed(() => {
  const found: { key: string; dough: string; bowl: string; lines: NonNullable<typeof papers.value>['mise']['lines'] }[] = []
  for (const line of papers.value?.mise.lines ?? []) {
    const key = `${line.product} ${line.bowl}`
    const last = found.at(-1)
    if (last?.key === key) last.lines.push(line)
    else found.push({ key, dough: line.dough, bowl: line.bowl, lines: [line] })
  }
  return found
})
</script>

<template>
  <SheetFrame :ready="Boolean(papers && page)" :error="query.error.value" :back="{ to: { name: 'day', params: { id } }, label: 'Back to the day' }" :other="{ to: { name: 'days' }, label: 'All days' }" :pdf="pdf" @again="query.refetch()">
    <template #files><el-button tag="a" :href="`/api/days/${id}/day.ics`">Calendar</el-button></template>
    <template v-if="papers && page">
      <h1>{{ page.name || dateText(page.date) }}</h1>
      <p class="quiet">{{ page.kitchen }} · {{ dateText(page.date) }}</p>
      <p class="ready"><span v-for="one in papers.products" :key="one.name"><b>{{ one.name }}</b> {{ one.pieces || '' }} <template v-if="one.ready_min !== null && one.ready_min !== undefined">ready {{ day(one.ready_min) }} {{ clockOnly(one.ready_min) }}</template><b v-if="one.late_min >= 1" class="late"> {{ minutesText(one.late_min) }} late</b></span></p>
      <table class="wall">
        <thead class="visually-hidden"><tr><th scope="col">at</th><th scope="col">dough</th><th scope="col">what</th></tr></thead>
        <tbody>
          <template v-for="(line, n) in papers.lines" :key="n">
            <tr v-if="isNewDay(n)" class="day"><td colspan="3">{{ day(line.begins_min) }}</td></tr>
            <tr :class="{ heat: line.is_heat }">
              <td class="when">{{ clockOnly(line.begins_min) }}</td>
              <td><b>{{ line.name }}</b><small v-if="papers.bakers.length > 1" class="quiet"><br />{{ papers.bakers[line.baker] }}</small></td>
              <td>{{ line.what }} <span class="quiet">{{ line.detail }}</span><div v-if="line.caution" class="caution">{{ line.caution }}</div></td>
            </tr>
          </template>
        </tbody>
      </table>
      <p v-for="line in papers.says" :key="line" class="quiet">{{ line }}</p>
      <template v-if="papers.evening.length">
        <h2>The evening before</h2>
        <ul class="plain"><li v-for="(one, n) in papers.evening" :key="n"><b class="when">{{ clockOnly(one.at_min) }}</b> <b>{{ one.name }}</b> {{ one.what }}</li></ul>
      </template>
      <h2>To weigh, in all</h2>
      <table class="mise"><thead class="visually-hidden"><tr><th scope="col">what</th><th scope="col">how much</th><th scope="col">for</th></tr></thead><tbody><tr v-for="one in papers.mise.in_all" :key="one.name"><td>{{ one.name }}</td><td class="grams">{{ spaced(one.printed) }}&#x202f;{{ papers.mise.unit }}</td><td class="quiet">{{ one.doughs.join(', ') }}</td></tr></tbody></table>
      <h2>Bowl by bowl</h2>
      <div class="bowls">
        <section v-for="one in bowls" :key="one.key"><h3>{{ one.dough }}: {{ one.bowl }}</h3><ul class="plain"><li v-for="(line, n) in one.lines" :key="n">{{ line.name }} <b>{{ spaced(line.printed) }}&#x202f;{{ papers.mise.unit }}</b><span v-if="line.mixes > 1" class="quiet"> in each of {{ line.mixes }} mixes</span><span v-if="line.note" class="quiet"> {{ line.note }}</span></li></ul></section>
      </div>
      <p v-for="line in papers.mise.troubles" :key="line" class="quiet">{{ line }}</p>
    </template>
  </SheetFrame>
</template>

<style scoped>
.ready { display: grid; grid-template-columns: repeat(auto-fill, minmax(260px, 1fr)); gap: 2px 16px; margin: 8px 0 }
table { width: 100%; border-collapse: collapse }
.wall td:nth-child(2) { width: 30% }
td { border-bottom: 1px solid var(--rim-faint); padding: 5px 10px 5px 0; vertical-align: top; overflow-wrap: anywhere }
.when { font-weight: 700; font-size: 1.15rem; white-space: nowrap; color: var(--rim); width: 72px }
.heat .when { color: var(--crust) }
.day td { font: 700 1.15rem var(--head); color: var(--rim); border-bottom: 2px solid var(--rim); padding-top: 12px }
.caution { border-left: 4px solid var(--stop); padding-left: 8px; font-size: .88rem }
.grams { font-weight: 700; text-align: right; white-space: nowrap }
.mise td:first-child { width: 34% }
h2 { margin-top: 16px }
h3 { font-size: 1rem; color: var(--rim) }
.plain { list-style: none; margin: 4px 0; padding: 0; display: grid; gap: 3px }
.bowls { display: grid; grid-template-columns: repeat(auto-fill, minmax(240px, 1fr)); gap: 10px 20px; margin-top: 6px }
.late { color: var(--stop) }
@media print { tr, section { break-inside: avoid } td { padding: 2px 8px 2px 0 } }
</style>
