<script setup lang="ts">
/** The kitchen's own figures: what its bakes say, the trade's beside it, taken with one press, and its working. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import FigureCard from './FigureCard.vue'
import { api, ask, type KitchensFigure } from '@/api/client'
import { useUnits } from '@/base/kitchen'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import LinkButton from '@/design/LinkButton.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'

const route = useRoute()
const router = useRouter()
const cache = useQueryClient()
const { units } = useUnits()
const id = computed(() => Number(route.params.id) || null)
const key = computed(() => ['book', 'learned', id.value])
const page = useQuery({ queryKey: key, queryFn: () => ask(api.GET('/api/book/learned', { params: { query: id.value ? { formula_id: id.value } : {} } })) })
const options = computed(() => (page.data.value?.formulas ?? []).map((one) => ({ value: one.formula_id, label: `${one.name || 'Formula without a name'} (${one.bakes} bakes)` })))
const { refused, attempt } = useAttempt()
/** Where a figure is used: what is fetched again once it is taken. */
const elsewhere = () => Promise.all([['kitchen'], ['formula'], ['formulas']].map((queryKey) => cache.invalidateQueries({ queryKey })))
const asked = (figure: KitchensFigure) => ({ body: { figure: figure.key, formula_id: figure.where === 'formula' ? id.value : null } })
async function back(figure: KitchensFigure): Promise<void> {
  await ask(api.POST('/api/book/learned/give-back', asked(figure)))
  await Promise.all([page.refetch(), elsewhere()])
}
const take = (figure: KitchensFigure) => attempt(async () => {
  const made = await ask(api.POST('/api/book/learned/take', asked(figure)))
  if (figure.where === 'kitchen' && id.value) await page.refetch()
  else cache.setQueryData(key.value, made)
  await elsewhere()
  tell(`${figure.label}: it is gone by from now on.`, () => attempt(() => back(figure)))
})
const giveBack = (figure: KitchensFigure) => attempt(async () => {
  await back(figure)
  tell(`${figure.label}: what stood in before does again.`)
})
const leaveOut = (figure: KitchensFigure, bake: string, reason: string) => attempt(async () => {
  await ask(api.PUT('/api/book/bakes/{bake_id}/left-out', { params: { path: { bake_id: bake } }, body: { figure: figure.key, reason } }))
  await page.refetch()
})
const open = ref('')
const groups = computed(() => [
  { key: 'formula', title: page.data.value?.name ?? '', says: 'used in its count, its method and its days', figures: page.data.value?.formula ?? [] },
  { key: 'kitchen', title: 'The kitchen', says: 'used everywhere', figures: page.data.value?.kitchen ?? [] },
])
</script>

<template>
  <main class="page learned">
    <div class="page-head">
      <h1>What it learned</h1><span class="spacer" />
      <SelectField class="formula" :value="id" :options="options" label="Formula" hint="choose a formula" @choose="router.push({ name: 'learned', params: { id: String($event) } })" />
      <LinkButton v-if="id" :to="{ name: 'formula', params: { id } }">Its count</LinkButton><LinkButton text :to="{ name: 'book' }">The book</LinkButton>
    </div>
    <p class="quiet">What stood in without the book counts as three bakes, each of yours as one, and one that lies far off hardly counts. A figure is used once you take it. It says what is, never why.</p>
    <div class="tellings"><RefusedNote v-if="refused" :refused="refused" @close="refused = null" /></div>
    <Said v-if="page.error.value" tone="stop"><strong>The figures cannot be shown</strong>{{ page.error.value.message }}<div class="row"><el-button @click="page.refetch()">Try again</el-button></div></Said>
    <el-skeleton v-else-if="!page.data.value || !units" :rows="8" animated aria-label="Fetching the figures" />
    <template v-else>
      <Said v-if="!id && options.length"><strong>Choose a formula</strong>Losses, rises and handwork belong to one each.</Said>
      <Said v-else-if="!page.data.value.kitchen.length && !page.data.value.formula.length"><strong>Nothing to learn from yet</strong>Weigh the dough before you divide it, weigh a few pieces baked, note how warm the dough is: each says something.<div class="row"><LinkButton :to="{ name: 'book' }">The book</LinkButton></div></Said>
      <template v-for="group in groups" :key="group.key">
        <section v-if="group.figures.length" class="tray" :aria-label="group.title">
          <div class="tray-head"><h2>{{ group.title }}</h2><span class="quiet">{{ group.says }}</span></div>
          <FigureCard v-for="figure in group.figures" :key="figure.key" :figure="figure" :units="units" :open="open === figure.key" @toggle="open = open === figure.key ? '' : figure.key" @take="take(figure)" @back="giveBack(figure)" @leave="(bake, reason) => leaveOut(figure, bake, reason)" />
        </section>
        <Said v-else-if="group.key === 'formula' && id"><strong>{{ group.title }} says nothing yet</strong>Its bakes were not weighed or timed.</Said>
      </template>
      <p class="quiet cups">What your own cups and spoons weigh is told <RouterLink :to="{ name: 'kitchen', hash: '#cups' }">with the kitchen</RouterLink>, and used as soon as they are weighed.</p>
    </template>
  </main>
</template>

<style scoped>
.learned { max-width: 1180px }
.formula { width: 300px }
.tray { margin-top: 14px }
.cups { margin-top: 12px }
</style>
