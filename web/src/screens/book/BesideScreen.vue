<script setup lang="ts">
/** Two to four bakes side by side: what differs first, what it came to under it, photos under each other. The address says which. */
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import BunScore from './BunScore.vue'
import { photoAddress } from './photos'
import { cellText, dayText, grams } from './words'
import { beginTasting } from './tastings'
import { api, ask, type BesideRow } from '@/api/client'
import { useUnits } from '@/base/kitchen'
import { useAttempt } from '@/base/useAttempt'
import LinkButton from '@/design/LinkButton.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import Said from '@/design/Said.vue'

const route = useRoute()
const router = useRouter()
const { units } = useUnits()
const bakes = computed(() => [...new Set(String(route.query.bakes ?? '').split(',').filter((one) => /^[0-9a-f-]{36}$/.test(one)))].slice(0, 4))
const page = useQuery({
  queryKey: computed(() => ['book', 'beside', bakes.value]),
  enabled: computed(() => bakes.value.length >= 2),
  queryFn: () => ask(api.GET('/api/book/beside', { params: { query: { bake: bakes.value } } })),
})
const all = ref(false)
const PARTS = [['dough', 'In the dough'], ['beside', 'Beside the dough'], ['figures', 'Figures'], ['steps', 'Steps'], ['came_to', 'What it came to']] as const
const parts = computed(() => PARTS.map(([key, title]) => {
  const rows = (page.data.value?.rows ?? []).filter((row) => row.part === key)
  return { key, title, rows: all.value ? rows : rows.filter((row) => row.differs || key === 'came_to'), alike: rows.filter((row) => !row.differs && key !== 'came_to').length }
}).filter((one) => one.rows.length || one.alike))
const cell = (row: BesideRow, n: number) => row.cells[n]
const words = [['words', 'In words'], ['wrong', 'Went wrong'], ['next_time', 'Next time']] as const
const { refused, attempt } = useAttempt()
const taste = () => attempt(async () => void (await router.push({ name: 'taste', params: { id: await beginTasting(bakes.value) } })))
</script>

<template>
  <main class="page">
    <div class="page-head"><h1>Side by side</h1><span class="spacer" /><el-switch v-model="all" active-text="Show what is alike too" aria-label="Show what is alike too" /><el-button :disabled="bakes.length < 2" @click="taste">Taste them blind</el-button><LinkButton text :to="{ name: 'book', query: { with: bakes.join(',') } }">Choose others</LinkButton></div>
    <div class="tellings"><RefusedNote v-if="refused" :refused="refused" @close="refused = null" /></div>
    <Said v-if="bakes.length < 2"><strong>Choose two to four bakes</strong>They are chosen in the book’s list.<div class="row"><LinkButton type="primary" :to="{ name: 'book' }">The book</LinkButton></div></Said>
    <Said v-else-if="page.error.value" tone="stop"><strong>They cannot be put side by side</strong>{{ page.error.value.message }}<div class="row"><el-button @click="page.refetch()">Try again</el-button></div></Said>
    <el-skeleton v-else-if="!page.data.value || !units" :rows="8" animated aria-label="Fetching the bakes" />
    <section v-else class="tray scroll" tabindex="0" aria-label="Bakes side by side">
      <table>
        <thead><tr><th scope="col">&nbsp;</th><th v-for="bake in page.data.value.bakes" :key="bake.id" scope="col"><RouterLink :to="{ name: 'book-bake', params: { id: bake.id } }">{{ bake.name }}</RouterLink><small class="quiet">{{ dayText(bake.begun_at) }}{{ bake.way ? `, ${bake.way}` : '' }}{{ bake.revision ? `, revision ${bake.revision}` : '' }}</small></th></tr></thead>
        <tbody v-for="part in parts" :key="part.key">
          <tr><th class="part" :colspan="page.data.value.bakes.length + 1" scope="rowgroup">{{ part.title }}<small v-if="!all && part.alike" class="quiet">{{ part.rows.length ? `${part.alike} more alike` : 'all alike' }}</small></th></tr>
          <tr v-for="row in part.rows" :key="row.name" :class="{ differs: row.differs }">
            <th scope="row">{{ row.name }}</th>
            <td v-for="(bake, n) in page.data.value.bakes" :key="bake.id">
              <template v-if="cell(row, n)?.was == null"><span class="quiet">–</span></template>
              <BunScore v-else-if="row.unit === 'score'" :score="Number(cell(row, n)?.was)" />
              <template v-else><b>{{ cellText(Number(cell(row, n)?.was), row.unit, units) }}</b><small v-if="row.unit === 'percent' && cell(row, n)?.g != null" class="quiet aside">{{ grams(Number(cell(row, n)?.g), units) }}</small><small v-if="!cell(row, n)?.measured" class="quiet aside">meant</small></template>
            </td>
          </tr>
          <template v-if="part.key === 'came_to'">
            <tr v-for="[key, label] in words.filter(([key]) => page.data.value?.bakes.some((bake) => bake.outcome[key]))" :key="key"><th scope="row">{{ label }}</th><td v-for="bake in page.data.value.bakes" :key="bake.id" class="words">{{ bake.outcome[key] || '–' }}</td></tr>
            <tr v-if="page.data.value.bakes.some((bake) => bake.changed.length)"><th scope="row">Done otherwise</th><td v-for="bake in page.data.value.bakes" :key="bake.id" class="words">{{ bake.changed.join(' ') || '–' }}</td></tr>
          </template>
        </tbody>
        <tbody>
          <tr v-if="page.data.value.bakes.some((bake) => bake.photos.length)"><th scope="row">Photos</th><td v-for="bake in page.data.value.bakes" :key="bake.id" class="photos"><img v-for="photo in bake.photos.slice(0, 4)" :key="photo.id" :src="photoAddress(photo.id)" :alt="photo.caption || `${bake.name}, photo`" loading="lazy" :class="{ square: photo.square }" /></td></tr>
        </tbody>
      </table>
    </section>
    <p class="quiet foot">What differed, not why.</p>
  </main>
</template>

<style scoped>
.scroll { overflow-x: auto }
table { width: 100%; border-collapse: collapse; min-width: 560px }
th, td { padding: 6px 10px; border-top: 1px solid var(--rim-faint); text-align: left; vertical-align: top; font-weight: 400 }
thead th { border-top: 0; font: 700 1.05rem var(--head) }
thead small { display: block; font: 400 .85rem var(--body) }
tbody th:first-child { width: 210px; color: var(--ink-2) }
.part { font: 700 1rem var(--head); color: var(--rim) !important; border-top: 2px solid var(--rim-soft); padding-top: 12px }
.part small { font: 400 .85rem var(--body); margin-left: 10px }
.differs th { color: var(--ink); font-weight: 600 }
.differs td { background: color-mix(in srgb, var(--dough) 32%, transparent) }
.photos img { display: block; width: min(100%, 300px); border-radius: 12px; border: 2px solid var(--rim-soft); margin-bottom: 6px }
.photos .square { aspect-ratio: 1; object-fit: cover }
.aside { margin-left: 8px }
.words { white-space: pre-line }
.foot { margin-top: 8px }
</style>
