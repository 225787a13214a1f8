<script setup lang="ts">
/** The kitchen's formulas: find, open, make, copy, put away. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask, type FormulaHead, type FormulaState } from '@/api/client'
import { wasWelcomed } from '@/base/firstTime'
import { useKitchenState } from '@/base/kitchen'
import FormulaTable from './FormulaTable.vue'
import { nameOf } from './name'
import FindField from '@/design/FindField.vue'
import KeysDialog from '@/design/KeysDialog.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import { useKeys } from '@/base/keys'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import { useFind } from '@/base/useFind'
import { useExamples } from '@/screens/welcome/examples'
import LinkButton from '@/design/LinkButton.vue'
import Said from '@/design/Said.vue'

/** Only an empty kitchen needs it. */
const BeginPart = defineAsyncComponent(() => import('@/screens/welcome/BeginPart.vue'))

const KEYS = [
  ['/', 'find'],
  ['N', 'new formula'],
  ['T', 'take in a recipe'],
  ['Tab, Enter', 'go to a formula, open it'],
  ['?', 'these keys'],
] as const

const route = useRoute()
const router = useRouter()
const cache = useQueryClient()
const archived = computed(() => route.query.archived !== undefined)
const query = useQuery({
  queryKey: ['formulas', archived],
  queryFn: () => ask(api.GET('/api/formulas', { params: { query: { archived: archived.value } } })),
})

const { find, holds } = useFind()
const formulas = computed(() => (query.data.value ?? []).filter((head) => holds([head.name, ...head.styles])))
const refresh = () => cache.invalidateQueries({ queryKey: ['formulas'] })

const trying = useAttempt()
const { refused } = trying
const attempt = (act: () => Promise<unknown>) => trying.attempt(act).then(refresh)
const path = (id: number) => ({ path: { formula_id: id } })
const takeBack = (state: FormulaState) => () =>
  attempt(() => ask(api.DELETE('/api/formulas/{formula_id}', { params: { ...path(state.head.id), query: { version: state.version } } })))

const copy = (head: FormulaHead) =>
  attempt(async () => {
    const state = await ask(api.POST('/api/formulas/{formula_id}/copy', { params: path(head.id) }))
    tell(`Copied to ${state.head.name}.`, takeBack(state))
  })
const putAway = (head: FormulaHead, away: boolean) =>
  attempt(async () => {
    await ask(api.PUT('/api/formulas/{formula_id}/archived', { params: { ...path(head.id), query: { archived: away } } }))
    tell(away ? `Archived ${nameOf(head)}.` : `Brought back ${nameOf(head)}.`, () => putAway(head, !away))
  })
const { bringIn, remove: removeExamples } = useExamples()
const examples = computed(() => (query.data.value ?? []).filter((head) => head.example).length)
const dropExamples = () =>
  attempt(async () => {
    const { removed, kept } = await removeExamples()
    tell(`${removed} ${removed === 1 ? 'example is' : 'examples are'} gone.${kept ? ` ${kept} that you changed ${kept === 1 ? 'is' : 'are'} your own now.` : ''}`, () => attempt(bringIn))
  })

/* A page at a time; it is in the address like what is looked for. */
const PAGE = 50
const page = computed({
  get: () => Math.min(Math.max(1, Number(route.query.page ?? 1) || 1), Math.max(1, Math.ceil(formulas.value.length / PAGE))),
  set: (n: number) => void router.replace({ query: { ...route.query, page: n > 1 ? String(n) : undefined } }),
})
const onPage = computed(() => formulas.value.slice((page.value - 1) * PAGE, page.value * PAGE))

/* A kitchen that nobody has told anything yet begins with the welcome. */
const kitchen = useKitchenState()
const isFresh = computed(() => !archived.value && query.data.value?.length === 0)
watch([isFresh, kitchen.data], ([fresh, now]) => {
  if (fresh && now?.version === 1 && !wasWelcomed()) void router.replace({ name: 'welcome' })
}, { immediate: true })
const findField = ref<InstanceType<typeof FindField>>()
const showsKeys = ref(false)
useKeys({
  '/': () => findField.value?.focus(),
  t: () => void router.push({ name: 'take-in' }),
  n: () => void router.push({ name: 'formula', params: { id: 'new' } }),
  '?': () => (showsKeys.value = true),
})
</script>

<template>
  <main class="page">
    <div class="page-head">
      <h1>{{ archived ? 'Archived formulas' : 'Formulas' }}</h1>
      <FindField v-if="!isFresh" ref="findField" v-model="find" label="Find a formula by name or style" hint="Find by name or style" />
      <span class="spacer" />
      <LinkButton text :to="{ query: archived ? {} : { archived: '' } }">{{ archived ? 'Formulas in use' : 'Archived' }}</LinkButton>
      <template v-if="!isFresh">
        <LinkButton :to="{ name: 'take-in' }">Take in a recipe <kbd>T</kbd></LinkButton>
        <LinkButton type="primary" :to="{ name: 'formula', params: { id: 'new' } }">New formula <kbd>N</kbd></LinkButton>
      </template>
    </div>

    <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />

    <el-skeleton v-if="query.isPending.value" :rows="8" animated aria-label="Fetching the formulas" />
    <Said v-else-if="query.error.value" tone="stop">
      <strong>The formulas cannot be shown.</strong>{{ query.error.value.message }}
      <div class="row"><el-button @click="query.refetch()">Try again</el-button></div>
    </Said>
    <BeginPart v-else-if="isFresh" />
    <el-empty v-else-if="!query.data.value?.length" description="Nothing is archived."><template #image><span /></template></el-empty>
    <Said v-else-if="!formulas.length">Nothing found for “{{ find }}”. <el-button text @click="find = ''">Show all {{ query.data.value.length }}</el-button></Said>
    <template v-else>
      <Said v-if="examples && !archived" class="examples"><div class="row"><span>{{ examples === 1 ? 'One of these is an example' : `${examples} of these are examples` }} from the demo kitchen.</span>
        <el-popconfirm title="Remove the examples? Those that you changed stay." confirm-button-text="Remove them" cancel-button-text="Leave them" width="260" @confirm="dropExamples">
          <template #reference><el-button size="small">Remove the examples</el-button></template>
        </el-popconfirm></div>
      </Said>
      <div class="tray list">
        <FormulaTable :heads="onPage" :archived="archived" @copy="copy" @away="putAway($event, !archived)" />
      </div>
      <el-pagination v-model:current-page="page" class="pages" layout="prev, pager, next" :page-size="PAGE" :total="formulas.length" hide-on-single-page />
    </template>
    <KeysDialog v-model="showsKeys" :keys="KEYS" />
  </main>
</template>

<style scoped>
.list { padding: 4px 16px }
.examples .row { margin: 0; align-items: center; justify-content: space-between }
.examples { margin-bottom: 12px }
.pages { justify-content: center; margin-top: 10px }
</style>
