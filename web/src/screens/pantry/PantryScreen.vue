<script setup lang="ts">
/** The pantry: what ships and what the kitchen added, what each is made of and weighs, and where it is used. */
import { useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import IngredientCard from './IngredientCard.vue'
import type { PantryItem } from '@/api/client'
import FindField from '@/design/FindField.vue'
import KeysDialog from '@/design/KeysDialog.vue'
import { useKeys } from '@/base/keys'
import { usePantry, useUnits } from '@/base/kitchen'
import { ROLES } from '@/screens/formula/lines/lines'
import { useFind } from '@/base/useFind'

const KEYS = [
  ['/', 'find'],
  ['N', 'new ingredient'],
  ['Tab, Enter', 'go to an ingredient, open it'],
  ['?', 'these keys'],
] as const

const route = useRoute()
const router = useRouter()
const cache = useQueryClient()
const pantry = usePantry()
const { units, error: unitsError } = useUnits()

const { find, holds } = useFind()
const role = computed(() => String(route.query.role ?? ''))
const shownItems = computed(() =>
  (pantry.data.value ?? []).filter(({ ingredient: i }) => (!role.value || i.role === role.value) && holds([i.name, ...i.also, ...i.also_de, ...i.allergens])),
)
const name = computed(() => (route.query.name === undefined ? undefined : String(route.query.name)))
const chosen = computed(() => pantry.data.value?.find((item) => item.ingredient.name === name.value))
const NEW: PantryItem = { version: 0, shipped: false, ingredient: { name: '', role: 'flavour', also: [], also_de: [], composition: null, allergens: [], may_contain: [], read_packet: false, bran: false, hydration: null, measures: [], source: '', own: true } }
const open = computed(() => (name.value === undefined ? undefined : (chosen.value ?? (name.value === '' ? NEW : undefined))))
/* An ingredient that a link opens is brought into view. */
const list = ref<HTMLElement>()
watch([chosen, list], () => void nextTick(() => list.value?.querySelector('.here')?.scrollIntoView({ block: 'nearest' })))
const to = (item: PantryItem) => ({ query: { ...route.query, name: item.ingredient.name } })
const ofRole = (one: string) => ({ query: { ...route.query, role: one || undefined } })

async function kept(named: string | undefined): Promise<void> {
  for (const queryKey of [['pantry'], ['formulas']]) await cache.invalidateQueries({ queryKey })
  await router.replace({ query: { ...route.query, name: named } })
}
const water = (item: PantryItem) => item.ingredient.composition?.water
const findField = ref<InstanceType<typeof FindField>>()
const showsKeys = ref(false)
useKeys({
  '/': () => findField.value?.focus(),
  n: () => void router.push({ query: { ...route.query, name: '' } }),
  '?': () => (showsKeys.value = true),
})
</script>

<template>
  <main class="page">
    <div class="page-head">
      <h1>Pantry</h1>
      <FindField ref="findField" v-model="find" label="Find an ingredient by any of its names" hint="Find by any name, or allergen" />
      <span class="spacer" />
      <RouterLink class="button go" :to="{ query: { ...route.query, name: '' } }">New ingredient <kbd>N</kbd></RouterLink>
    </div>
    <p v-if="pantry.error.value || unitsError" class="said stop" role="alert">{{ (pantry.error.value ?? unitsError)?.message }}</p>
    <p v-else-if="!pantry.data.value || !units" class="quiet">Fetching the pantry …</p>
    <div v-else class="two" :class="{ opened: open }">
      <section class="tray list" aria-label="Ingredients">
        <nav class="roles" aria-label="Role">
          <RouterLink v-for="one in ['', ...ROLES]" :key="one" class="chip" :class="{ here: role === one }" :to="ofRole(one)">{{ one || 'all' }}</RouterLink>
        </nav>
        <p v-if="!shownItems.length" class="said">Nothing found for “{{ find }}”.</p>
        <ul ref="list">
          <li v-for="item in shownItems" :key="item.ingredient.name" :class="{ here: item.ingredient.name === name }">
            <RouterLink :to="to(item)" :style="{ '--role': `var(--role-${item.ingredient.role})` }">
              <span class="dot" aria-hidden="true" />
              <span class="name">{{ item.ingredient.name }} <small v-if="item.ingredient.own" class="chip">own</small></span>
              <small class="quiet">{{ item.ingredient.role }}</small>
              <small class="quiet n">{{ water(item) === undefined ? '' : `${water(item)} % water` }}</small>
            </RouterLink>
          </li>
        </ul>
      </section>
      <IngredientCard v-if="open" :key="`${open.ingredient.name}:${open.version}`" :item="open" :known="pantry.data.value" :units="units" @kept="kept" />
      <section v-else class="tray none">
        <h2>{{ name ? 'Not in this pantry' : 'What each is made of, and what a measure of it weighs' }}</h2>
        <p>{{ pantry.data.value.length }} ingredients. Choose one to see its water, fat, protein, carbohydrate, sugars and salt in 100 g, what a cup or a spoon of it weighs, its allergens, its other names, and where each figure comes from.</p>
        <p class="quiet">Anything can be changed. Where a formula uses it, what that would change is shown before it is kept.</p>
      </section>
    </div>
    <KeysDialog v-model="showsKeys" :keys="KEYS" />
  </main>
</template>

<style scoped>
.two { display: grid; gap: 14px; grid-template-columns: minmax(320px, 430px) minmax(0, 1fr); align-items: start }
.list { padding-bottom: 6px }
.roles { display: flex; flex-wrap: wrap; gap: 6px; padding-bottom: 8px }
.roles a { text-decoration: none; padding: 5px 11px }
.roles .here { background: var(--rim); color: var(--on-rim); border-color: var(--rim) }
ul { list-style: none; margin: 0 -14px; padding: 0; max-height: 560px; overflow: auto }
li a { display: grid; grid-template-columns: 12px 1fr 76px 94px; gap: 8px; align-items: center; min-height: 40px; padding: 3px 14px; border-top: 1px solid var(--rim-faint); color: var(--ink); text-decoration: none }
li a:hover { background: var(--rim-faint) }
li.here a { background: var(--crust-soft) }
.dot { width: 10px; height: 10px; border-radius: 50%; background: var(--role) }
.name { overflow-wrap: anywhere }
.n { text-align: right }
.none { display: grid; gap: 10px; padding: 22px }
@media (max-width: 860px) {
  .two { grid-template-columns: minmax(0, 1fr) }
  .two.opened .list { order: 2 }
  li a { min-height: 46px }
  .roles a { padding: 9px 12px }
}
</style>
