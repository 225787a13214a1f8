<script setup lang="ts">
/** One ingredient, to be read and changed; what a change would do to formulas is shown before it is kept. */
import { computed, ref } from 'vue'
import AllergenTicks from './AllergenTicks.vue'
import MeasureTable from './MeasureTable.vue'
import { api, ask, type Ingredient, type PantryItem, type Use } from '@/api/client'
import { plainCopy } from '@/base/copy'
import NumberBox from '@/design/NumberBox.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import { plain, type Units } from '@/base/format'
import { tell } from '@/base/notice'
import { ROLES } from '@/screens/formula/lines/lines'
import { useAnswer } from '@/base/useAnswer'
import { useAttempt } from '@/base/useAttempt'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'

export interface IngredientCardProps {
  item: PantryItem
  known: readonly PantryItem[]
  units: Units
}
const props = defineProps<IngredientCardProps>()
const emit = defineEmits<{
  /** The pantry changed; the ingredient to go on with, or none. */
  kept: [name: string | undefined]
}>()

const draft = ref<Ingredient>(plainCopy(props.item.ingredient))
const isNew = computed(() => !props.item.ingredient.name)
const changed = computed(() => JSON.stringify(draft.value) !== JSON.stringify(props.item.ingredient))
const { refused, attempt } = useAttempt()
const wrong = (place: string) => refused.value?.problem.errors?.find((e) => e.pointer.endsWith(place))?.detail

const HOLDS = [
  ['water', 'Water'],
  ['fat', 'Fat'],
  ['protein', 'Protein'],
  ['carbohydrate', 'Carbohydrate'],
  ['sugars', 'of it sugars'],
  ['salt', 'Salt'],
] as const

const holds = (key: (typeof HOLDS)[number][0]) => draft.value.composition?.[key] ?? null
function setHolds(key: (typeof HOLDS)[number][0], value: number | null): void {
  draft.value.composition = { water: 0, fat: 0, protein: 0, carbohydrate: 0, sugars: 0, salt: 0, ...draft.value.composition, [key]: value ?? 0 }
  if (!/yours/.test(draft.value.source)) draft.value.source = 'yours'
}
const sum = computed(() => {
  const c = draft.value.composition
  return c ? c.water + c.fat + c.protein + c.carbohydrate : 0
})
const words = (field: 'also' | 'also_de') =>
  computed({
    get: () => draft.value[field].join(', '),
    set: (text: string) => (draft.value[field] = [...new Set(text.split(',').map((word) => word.trim().slice(0, 40)).filter(Boolean))].slice(0, 40)),
  })
const also = words('also')
const alsoDe = words('also_de')
const WARNS = [
  { field: 'allergens', says: 'Contains' },
  { field: 'may_contain', says: 'May contain, as its packet warns' },
] as const
/* Where it is used, and what the draft would make of each. */
const sound = computed(() => draft.value.name.trim() !== '')
const { answer: uses } = useAnswer<Use[]>([draft], sound, () => ask(api.POST('/api/pantry/uses', { body: draft.value })))
const moved = computed(() => (uses.value ?? []).filter((u) => Math.abs((u.true_water_now ?? 0) - (u.true_water_then ?? 0)) > 0.005))
const asking = ref(false)
const percent = (value: number | null | undefined) => (value == null ? '–' : `${plain(value, 4)} %`)

async function put(ingredient: Ingredient, version: number): Promise<number> {
  const kept = await ask(api.PUT('/api/pantry', { body: { ingredient: { ...ingredient, own: false }, version } }))
  return kept.item.version
}
const drop = (name: string, version: number) => ask(api.DELETE('/api/pantry', { params: { query: { name, version } } }))
const keep = () =>
  attempt(async () => {
    asking.value = false
    const before = plainCopy(props.item)
    const version = await put(draft.value, props.item.version)
    const name = draft.value.name.trim()
    const also = moved.value.length ? ` ${moved.value.length} ${moved.value.length === 1 ? 'formula was' : 'formulas were'} reckoned again.` : ''
    tell(`Kept ${name}.${also}`, async () => {
      await (before.version ? put(before.ingredient, version) : drop(name, version))
      emit('kept', before.ingredient.name || undefined)
    })
    emit('kept', name)
  })
const goBack = () =>
  attempt(async () => {
    const before = plainCopy(props.item)
    await drop(before.ingredient.name, before.version)
    tell(before.shipped ? `${before.ingredient.name} is as it was shipped.` : `Removed ${before.ingredient.name}.`, async () => {
      await put(before.ingredient, 0)
      emit('kept', before.ingredient.name)
    })
    emit('kept', before.shipped ? before.ingredient.name : undefined)
  })
/** Asked anew: what is on the screen may be the answer to the figure before the last. */
const askFirst = () =>
  attempt(async () => {
    uses.value = await ask(api.POST('/api/pantry/uses', { body: draft.value }))
    if (moved.value.length) asking.value = true
    else await keep()
  })
</script>

<template>
  <section class="tray card" :aria-label="draft.name || 'New ingredient'">
    <div class="tray-head">
      <h2 v-if="!isNew">{{ item.ingredient.name }}</h2>
      <label v-else class="label">Name<el-input v-model="draft.name" maxlength="300" aria-label="Name" /></label>
      <span class="row">
        <el-button text v-if="item.version" @click="goBack">{{ item.shipped ? 'As shipped' : 'Remove' }}</el-button>
        <el-button type="primary" :disabled="!changed || !sound" @click="askFirst">Keep</el-button>
      </span>
    </div>
    <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
    <Said tone="now" v-if="asking" role="alertdialog" aria-label="What it would change">
      <strong>Keeping it changes {{ moved.length }} {{ moved.length === 1 ? 'formula' : 'formulas' }}.</strong>
      <table>
        <thead><tr><th>True water of</th><th class="n">now</th><th class="n">then</th></tr></thead>
        <tbody><tr v-for="use in moved" :key="use.formula_id"><td>{{ use.name }}</td><td class="n">{{ percent(use.true_water_now) }}</td><td class="n worked">{{ percent(use.true_water_then) }}</td></tr></tbody>
      </table>
      <div class="row"><el-button type="primary" @click="keep">Keep and reckon again</el-button><el-button @click="asking = false">Not now</el-button></div>
    </Said>

    <div class="fields">
      <label class="label">In the dough it is<SelectField :value="draft.role" :options="ROLES.map((role) => ({ value: role, label: role }))" label="In the dough it is" @choose="draft.role = $event" /></label>
      <label v-if="draft.role === 'leaven'" class="label">A starter’s hydration, %<NumberBox :value="draft.hydration" kind="percent" :units="units" label="Hydration of the starter" :wrong="wrong('/hydration')" @change="draft.hydration = $event" /></label>
      <label class="label wide">Also called, comma between<el-input :model-value="also" aria-label="Also called, comma between" @change="also = $event" /></label>
      <label class="label wide">In German<el-input :model-value="alsoDe" aria-label="In German" @change="alsoDe = $event" /></label>
    </div>

    <h3>In 100 g</h3>
    <div class="holds">
      <label v-for="[key, label] in HOLDS" :key="key" class="label">{{ label }}<NumberBox :value="holds(key)" kind="percent" :units="units" :label="`${label} in 100 g`" :wrong="wrong(`/composition/${key}`)" @change="setHolds(key, $event)" /></label>
    </div>
    <p class="quiet"><template v-if="draft.composition">They come to {{ plain(sum, 3) }} g; the rest is ash{{ sum < 90 ? ', alcohol or what nobody said' : '' }}. Salt is sodium × 2.5, without what soda brings. </template>Source: {{ draft.source || 'not said' }}.</p>

    <h3>A measure weighs</h3>
    <MeasureTable v-model="draft.measures" :units="units" :wrong="wrong" />

    <h3>Allergens</h3>
    <AllergenTicks v-for="{ field, says } in WARNS" :key="field" v-model="draft[field]" :says="says" />
    <el-checkbox v-model="draft.read_packet">Makers differ: only its packet tells what else it brings</el-checkbox>
    <el-checkbox v-if="draft.role === 'flour' || draft.role === 'leaven'" v-model="draft.bran">Wholemeal or rye: it drinks, and feels stiffer than its water says</el-checkbox>
    <p class="quiet">From the recipe alone; always read the label of what you have in your hand, and check your local rules.</p>

    <h3>Used in</h3>
    <p v-if="!uses?.length" class="quiet">No formula uses it.</p>
    <ul v-else>
      <li v-for="use in uses" :key="use.formula_id"><RouterLink :to="{ name: 'formula', params: { id: use.formula_id } }">{{ use.name || 'Formula without a name' }}</RouterLink> <span class="quiet">{{ use.archived ? 'archived, ' : '' }}true water {{ percent(use.true_water_now) }}</span></li>
    </ul>
  </section>
</template>

<style scoped>
.card { display: grid; gap: 9px; align-content: start }
h3 { font: 700 .95rem var(--body); color: var(--rim); margin-top: 6px }
.row { display: flex; flex-wrap: wrap; gap: 8px }
.fields { display: flex; flex-wrap: wrap; gap: 8px 12px }
.wide { flex: 1 1 200px }
.holds { display: grid; gap: 8px 12px; grid-template-columns: repeat(auto-fill, minmax(110px, 1fr)) }
table { border-collapse: collapse; width: 100% }
th { text-align: left; font-size: .82rem; font-weight: 500; color: var(--ink-2); padding: 2px 6px 2px 0 }
td { padding: 3px 6px 3px 0 }
.n { text-align: right }
ul { margin: 0; padding: 0; list-style: none }
li { min-height: 30px }
</style>
