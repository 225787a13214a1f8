<script setup lang="ts">
/** The pantry: what ships and what the kitchen added, what each is made of and weighs, and where it is used. */
import { useQueryClient } from '@tanstack/vue-query'
import { useMediaQuery } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import IngredientCard from './IngredientCard.vue'
import PantryList from './PantryList.vue'
import type { PantryItem } from '@/api/client'
import FindField from '@/design/FindField.vue'
import KeysDialog from '@/design/KeysDialog.vue'
import { useKeys } from '@/base/keys'
import { usePantry, useUnits } from '@/base/kitchen'
import { ROLES } from '@/screens/formula/lines/lines'
import { useFind } from '@/base/useFind'
import LinkButton from '@/design/LinkButton.vue'
import Said from '@/design/Said.vue'

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
/** One is beside the list at once, where there is room: the first that is shown, until another is chosen. */
const hasRoom = useMediaQuery('(min-width: 861px)')
const open = computed(() => {
  if (name.value === undefined) return hasRoom.value ? shownItems.value[0] : undefined
  return chosen.value ?? (name.value === '' ? NEW : undefined)
})
const to = (item: PantryItem) => ({ query: { ...route.query, name: item.ingredient.name } })
const ofRole = (one: string) => ({ query: { ...route.query, role: one || undefined } })

async function kept(named: string | undefined): Promise<void> {
  for (const queryKey of [['pantry'], ['formulas']]) await cache.invalidateQueries({ queryKey })
  await router.replace({ query: { ...route.query, name: named } })
}
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
      <LinkButton type="primary" :to="{ query: { ...route.query, name: '' } }">New ingredient <kbd>N</kbd></LinkButton>
    </div>
    <Said tone="stop" v-if="pantry.error.value || unitsError">{{ (pantry.error.value ?? unitsError)?.message }}</Said>
    <el-skeleton v-else-if="!pantry.data.value || !units" :rows="10" animated aria-label="Fetching the pantry" />
    <div v-else class="two" :class="{ opened: open }">
      <section class="tray list" aria-label="Ingredients">
        <nav class="roles" aria-label="Role">
          <RouterLink v-for="one in ['', ...ROLES]" :key="one" class="chip" :class="{ here: role === one }" :to="ofRole(one)">{{ one || 'all' }}</RouterLink>
        </nav>
        <Said v-if="!shownItems.length">Nothing found for “{{ find }}”.</Said>
        <PantryList v-else :items="shownItems" :chosen="open?.ingredient.name" :to="to" />
      </section>
      <IngredientCard v-if="open" :key="`${open.ingredient.name}:${open.version}`" :item="open" :known="pantry.data.value" :units="units" @kept="kept" />
      <section v-else-if="name" class="tray"><el-empty description="There is nothing by that name in this pantry."><template #image><span /></template></el-empty></section>
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
@media (max-width: 860px) {
  .two { grid-template-columns: minmax(0, 1fr) }
  .two.opened .list { order: 2 }
  .roles a { padding: 9px 12px }
}
</style>
