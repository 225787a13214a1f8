<script setup lang="ts">
/** The kitchen's formulas: find, open, make, copy, put away. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, ask, type FormulaHead, type FormulaState } from '@/api/client'
import FindField from '@/design/FindField.vue'
import KeysDialog from '@/design/KeysDialog.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import { plain, when } from '@/base/format'
import { useKeys } from '@/base/keys'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import { useFind } from '@/base/useFind'

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
const nameOf = (head: FormulaHead) => head.name || 'Formula without a name'
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
      <FindField ref="findField" v-model="find" label="Find a formula by name or style" hint="Find by name or style" />
      <span class="spacer" />
      <RouterLink class="button bare" :to="{ query: archived ? {} : { archived: '' } }">{{ archived ? 'Formulas in use' : 'Archived' }}</RouterLink>
      <RouterLink class="button" :to="{ name: 'take-in' }">Take in a recipe <kbd>T</kbd></RouterLink>
      <RouterLink class="button go" :to="{ name: 'formula', params: { id: 'new' } }">New formula <kbd>N</kbd></RouterLink>
    </div>

    <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />

    <p v-if="query.isPending.value" class="quiet">Fetching the formulas …</p>
    <div v-else-if="query.error.value" class="said stop" role="alert">
      <strong>The formulas cannot be shown.</strong>{{ query.error.value.message }}
      <div class="row"><button type="button" class="button" @click="query.refetch()">Try again</button></div>
    </div>
    <div v-else-if="!query.data.value?.length" class="tray empty">
      <h2>{{ archived ? 'Nothing is archived' : 'No formulas yet' }}</h2>
      <p v-if="!archived">Take in a recipe as it is, in cups or in grams; or start with the flour, pin how many pieces you want, and the rest is worked out.</p>
    </div>
    <p v-else-if="!formulas.length" class="said">Nothing found for “{{ find }}”. <button type="button" class="button bare" @click="find = ''">Show all {{ query.data.value.length }}</button></p>
    <div v-else class="tray list">
      <table>
        <thead>
          <tr><th>Name</th><th>Style</th><th class="n">Liquid %</th><th class="n">True water %</th><th>Last changed</th><th><span class="visually-hidden">What can be done</span></th></tr>
        </thead>
        <tbody>
          <tr v-for="head in formulas" :key="head.id">
            <td class="name"><RouterLink :to="{ name: 'formula', params: { id: head.id } }">{{ nameOf(head) }}</RouterLink></td>
            <td class="styles"><span v-for="style in head.styles" :key="style" class="chip">{{ style }}</span> <span v-if="head.unsaved" class="chip draft">draft</span></td>
            <td class="n liquid">{{ head.liquid_percent == null ? '–' : plain(head.liquid_percent, 3) }}<span class="on-phone quiet"> liquid %</span></td>
            <td class="n water">{{ head.true_water_percent == null ? '–' : plain(head.true_water_percent, 3) }}<span class="on-phone quiet"> true water %</span></td>
            <td class="quiet">{{ when(head.changed_at) }}</td>
            <td class="acts">
              <template v-if="!archived">
                <RouterLink class="button bare" :to="{ name: 'sheet', params: { id: head.id } }" :aria-label="`Weigh sheet of ${nameOf(head)}`">Sheet</RouterLink>
                <button type="button" class="button bare" :aria-label="`Copy ${nameOf(head)}`" @click="copy(head)">Copy</button>
              </template>
              <button type="button" class="button bare" :aria-label="`${archived ? 'Bring back' : 'Archive'} ${nameOf(head)}`" @click="putAway(head, !archived)">{{ archived ? 'Bring back' : 'Archive' }}</button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <KeysDialog v-model="showsKeys" :keys="KEYS" />
  </main>
</template>

<style scoped>
.list { padding: 4px 16px }
table { width: 100%; border-collapse: collapse }
th { text-align: left; font-size: .82rem; font-weight: 500; color: var(--ink-2); padding: 7px 8px }
td { border-top: 1px solid var(--rim-faint); padding: 6px 8px; height: 54px }
th:first-child, td:first-child { padding-left: 0 }
.n { text-align: right }
.n { padding-right: 40px }
.liquid, .water { font-size: 1.15rem; font-weight: 700 }
.name a { font: 700 1.12rem var(--head); color: var(--ink); text-decoration: none; display: block; padding: 8px 0; overflow-wrap: anywhere }
.name a:hover { color: var(--rim); text-decoration: underline }
.styles { line-height: 1.9 }
.styles .chip { margin-right: 5px }
.acts { white-space: nowrap; text-align: right }
.empty { display: grid; gap: 8px; padding: 40px; justify-items: center; text-align: center }
.on-phone { display: none }
@media (max-width: 760px) {
  thead { display: none }
  tr { display: grid; grid-template-columns: 1fr auto; border-top: 1px solid var(--rim-faint); padding: 6px 0 }
  td { border: 0; padding: 2px 0; height: auto }
  .on-phone { display: inline; font-size: .8rem; font-weight: 400 }
  .styles, .acts { grid-column: 1 / -1 }
  .acts { text-align: left; margin-left: -9px }
  .acts .button { min-height: 44px }
}
</style>
