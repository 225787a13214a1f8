<script setup lang="ts">
/** The book: every bake, found by words, formula, ingredient, score and month; as a list, a calendar, charts. */
import { useDebounceFn } from '@vueuse/core'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, defineAsyncComponent, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import BookCalendar from './BookCalendar.vue'
import BookList from './BookList.vue'
import { useBook, VIEWS } from './useBook'
import { monthText } from './words'
import { beginTasting } from './tastings'
import { api, ask } from '@/api/client'
import { takeOut } from '@/api/file'
import { useKeys } from '@/base/keys'
import { useUnits } from '@/base/kitchen'
import { useAttempt } from '@/base/useAttempt'
import ChoiceRow from '@/design/ChoiceRow.vue'
import FindField from '@/design/FindField.vue'
import KeysDialog from '@/design/KeysDialog.vue'
import LinkButton from '@/design/LinkButton.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'

/** The charts come with what draws them, only where they are looked at. */
const BookCharts = defineAsyncComponent(() => import('./BookCharts.vue'))
const KEYS = [['/', 'find'], ['W', 'write in a bake'], ['L', 'what it learned'], ['?', 'these keys']] as const
const PAGE = 60
const MORE_MS = 1000
const router = useRouter()
const { sought, view, chosen, offset, set } = useBook()
const { units } = useUnits()
const page = useQuery({
  queryKey: computed(() => ['book', 'list', sought.value, offset.value]),
  queryFn: () => ask(api.GET('/api/book', { params: { query: { ...sought.value, offset: offset.value } } })),
  placeholderData: keepPreviousData,
  refetchInterval: (query) => (query.state.data?.more ? MORE_MS : false),
})
const words = ref(sought.value.words ?? '')
watch(words, useDebounceFn(() => set({ words: words.value || undefined, from: undefined }), 250))
const ingredient = ref(sought.value.ingredient ?? '')
const find = useTemplateRef<InstanceType<typeof FindField>>('find')
const ALL = ''
const formulas = computed(() => [{ value: ALL, label: 'All formulas' }, ...(page.data.value?.formulas ?? []).map((one) => ({ value: String(one.formula_id), label: `${one.name || 'Formula without a name'} (${one.bakes})` }))])
const months = computed(() => [{ value: ALL, label: 'All months' }, ...(page.data.value?.months ?? []).map((one) => ({ value: one.month, label: `${monthText(one.month)} (${one.bakes})` }))])
const SCORES = [{ value: ALL, label: 'Any score' }, ...[2, 3, 4, 5].map((n) => ({ value: String(n), label: n === 5 ? '5 of 5' : `${n} and over` }))]
const isSought = computed(() => Object.keys(sought.value).length > 0)
const clear = () => {
  words.value = ingredient.value = ''
  void set({ words: undefined, formula: undefined, ingredient: undefined, score: undefined, month: undefined, from: undefined })
}
function choose(bake: string): void {
  const now = chosen.value.includes(bake) ? chosen.value.filter((one) => one !== bake) : [...chosen.value, bake].slice(0, 4)
  void set({ with: now.join(',') || undefined })
}
const { refused, attempt } = useAttempt()
const taste = () => attempt(async () => void (await router.push({ name: 'taste', params: { id: await beginTasting(chosen.value) } })))
const out = (ending: string) => attempt(() => takeOut(`/api/book/bakes.${ending}`))
const shows = ref(false)
useKeys({ '/': () => find.value?.focus(), w: () => void router.push({ name: 'write-in' }), l: () => void router.push({ name: 'learned' }), '?': () => (shows.value = true) })
</script>

<template>
  <main class="page">
    <div class="page-head">
      <h1>Book</h1>
      <FindField ref="find" v-model="words" label="Find in all words" hint="Find: scorched, 1½, Brötchen" />
      <span class="spacer" />
      <LinkButton :to="{ name: 'learned', params: sought.formula_id ? { id: sought.formula_id } : {} }">What it learned</LinkButton>
      <el-dropdown trigger="click" @command="out"><el-button>Out</el-button><template #dropdown><el-dropdown-menu><el-dropdown-item command="json">All bakes (JSON)</el-dropdown-item><el-dropdown-item command="csv">All bakes (CSV)</el-dropdown-item></el-dropdown-menu></template></el-dropdown>
      <LinkButton type="primary" :to="{ name: 'write-in', query: sought.formula_id ? { formula: sought.formula_id } : {} }">Write in a bake</LinkButton>
    </div>
    <div class="tellings"><RefusedNote v-if="refused" :refused="refused" @close="refused = null" /></div>
    <div class="sought">
      <SelectField :value="String(sought.formula_id ?? ALL)" :options="formulas" label="Formula" @choose="set({ formula: $event || undefined, from: undefined })" />
      <el-input v-model="ingredient" class="ingredient" placeholder="With an ingredient" aria-label="With an ingredient" clearable @change="set({ ingredient: ingredient.trim() || undefined, from: undefined })" />
      <SelectField :value="String(sought.least_score ?? ALL)" :options="SCORES" label="Score" @choose="set({ score: $event || undefined, from: undefined })" />
      <SelectField :value="sought.month ?? ALL" :options="months" label="Month" @choose="set({ month: $event || undefined, from: undefined })" />
      <ChoiceRow class="views" label="Shown as" :options="VIEWS" :value="view" @choose="set({ view: $event === 'list' ? undefined : $event })" />
    </div>
    <Said v-if="page.error.value && !page.data.value" tone="stop"><strong>The book cannot be shown</strong>{{ page.error.value.message }}<div class="row"><el-button @click="page.refetch()">Try again</el-button></div></Said>
    <el-skeleton v-else-if="!page.data.value || !units" :rows="6" animated aria-label="Fetching the book" />
    <Said v-else-if="!page.data.value.total && !isSought && !page.data.value.more"><strong>No bake yet</strong>What is done at the bench comes in by itself when it ends. One baked elsewhere is written in in a minute.<div class="row"><LinkButton type="primary" :to="{ name: 'write-in' }">Write in a bake</LinkButton><LinkButton :to="{ name: 'bench' }">The bench</LinkButton></div></Said>
    <template v-else>
      <p class="quiet found" role="status">{{ page.data.value.total }} {{ page.data.value.total === 1 ? 'bake' : 'bakes' }}{{ isSought ? ' found' : '' }}{{ page.data.value.more ? ', and more are coming in' : '' }}<el-button v-if="isSought" text size="small" @click="clear">Show all</el-button></p>
      <BookList v-if="view === 'list'" :bakes="page.data.value.bakes" :chosen="chosen" :units="units" @choose="choose" />
      <BookCalendar v-else-if="view === 'calendar'" :sought="sought" :months="page.data.value.months" @month="set({ month: $event })" />
      <BookCharts v-else :sought="sought" :units="units" />
      <el-pagination v-if="view === 'list' && page.data.value.total > PAGE" class="pages" layout="prev, pager, next" :total="page.data.value.total" :page-size="PAGE" :current-page="Math.floor(offset / PAGE) + 1" @current-change="set({ from: $event > 1 ? String(($event - 1) * PAGE) : undefined })" />
    </template>
    <div v-if="chosen.length" class="chosen" role="region" aria-label="Chosen bakes">
      <span><b>{{ chosen.length }}</b> chosen{{ chosen.length < 2 ? '; choose one to three more' : '' }}</span>
      <span class="spacer" />
      <el-button text @click="set({ with: undefined })">None</el-button>
      <el-button :disabled="chosen.length < 2" @click="taste">Taste them blind</el-button>
      <el-button type="primary" :disabled="chosen.length < 2" @click="router.push({ name: 'beside', query: { bakes: chosen.join(',') } })">Side by side</el-button>
    </div>
    <KeysDialog v-model="shows" :keys="KEYS" />
  </main>
</template>

<style scoped>
.sought { display: grid; gap: 8px; grid-template-columns: minmax(160px, 1.3fr) minmax(150px, 1fr) 150px 190px minmax(240px, 1fr); margin-bottom: 8px; align-items: center }
.found { min-height: 32px; display: flex; align-items: center; gap: 6px }
.pages { margin-top: 10px; justify-content: center }
.chosen { position: sticky; bottom: 10px; display: flex; flex-wrap: wrap; gap: 8px; align-items: center; background: var(--tray); border: 2px solid var(--crust); border-radius: var(--radius); padding: 8px 14px; margin-top: 12px; box-shadow: 0 8px 24px rgb(16 22 30 / 18%); z-index: 20 }
@media (max-width: 1000px) { .sought { grid-template-columns: 1fr 1fr } .views { grid-column: 1 / -1 } }
</style>
