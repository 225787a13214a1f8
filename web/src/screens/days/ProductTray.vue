<script setup lang="ts">
/** What is to be ready: each count with its way, how many, when; and how it comes out. Counts are put in as they are typed. */
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import AtField from './AtField.vue'
import { freeKey } from './useDay'
import { api, ask, type Day, type DayProduct, type Timetable, type TypedCount } from '@/api/client'
import { atText } from '@/base/dayTimes'
import type { Units } from '@/base/format'
import { minutesText } from '@/base/times'
import { useAttempt } from '@/base/useAttempt'
import NumberBox from '@/design/NumberBox.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import SelectField from '@/design/SelectField.vue'

export interface ProductTrayProps {
  /** The day as it is kept; it is edited in place. */
  day: Day
  /** Its number; null before it is kept. */
  dayId: number | null
  timetable: Timetable | null
  troubles: Readonly<Record<string, string>>
  units: Units
}
const props = defineProps<ProductTrayProps>()
const emit = defineEmits<{ step: [] }>()

const formulas = useQuery({ queryKey: ['formulas', false], queryFn: () => ask(api.GET('/api/formulas', { params: { query: { archived: false } } })) })
const desks = useQuery({
  queryKey: computed(() => ['day-ways', ...new Set(props.day.products.map((one) => one.formula_id))]),
  queryFn: async () => {
    const ids = [...new Set(props.day.products.map((one) => one.formula_id))]
    const found = await Promise.all(ids.map((formula_id) => ask(api.GET('/api/formulas/{formula_id}', { params: { path: { formula_id } } })).catch(() => null)))
    return new Map(found.flatMap((state) => (state ? [[state.head.id, state] as const] : [])))
  },
})
const waysOf = (one: DayProduct) => desks.data.value?.get(one.formula_id)?.formula.ways ?? []
const wayNow = (one: DayProduct) => one.way || desks.data.value?.get(one.formula_id)?.count.way || ''
const revisions = (one: DayProduct) => desks.data.value?.get(one.formula_id)?.head.latest_number ?? 0
const comes = (n: number) => props.timetable?.products[n]
const open = ref('')
const { refused, attempt } = useAttempt()

function change(one: DayProduct, what: Partial<DayProduct>): void {
  emit('step')
  Object.assign(one, what)
}
function remove(one: DayProduct): void {
  emit('step')
  props.day.products = props.day.products.filter((other) => other !== one)
}
const text = ref('')
const asked = ref<TypedCount[]>([])
function put(one: TypedCount, formula_id: number, name: string): void {
  emit('step')
  props.day.products = [...props.day.products, { key: freeKey(props.day.products), formula_id, revision: null, name, way: '', pieces: one.pieces, pans: one.pans, ready_min: null, fresh: false, from_min: null, pins: [], marks: [], not_yet: [] }]
}
async function add(): Promise<void> {
  if (!text.value.trim()) return
  await attempt(async () => {
    const read = await ask(api.POST('/api/days/read-counts', { body: { text: text.value } }))
    asked.value = read.filter((one) => one.means.length !== 1)
    for (const one of read) {
      const meant = one.means[0]
      if (one.means.length === 1 && meant) put(one, meant.formula_id, meant.name)
    }
    text.value = ''
  })
}
function choose(one: TypedCount, formula_id: number, name: string): void {
  put(one, formula_id, name)
  asked.value = asked.value.filter((other) => other !== one)
}
const options = computed(() => (formulas.data.value ?? []).map((head) => ({ value: head.id, label: head.name || 'Formula without a name' })))
const nameOf = (id: number) => options.value.find((one) => one.value === id)?.label ?? ''
const full = computed(() => props.day.products.length >= 12)
</script>

<template>
  <section class="tray" aria-labelledby="products-head">
    <div class="tray-head"><h2 id="products-head">What is to be ready</h2><label class="all label">all at<AtField :value="day.ready_min" :date="day.date" label="All ready at" hint="any time" @change="(emit('step'), (day.ready_min = $event))" /></label></div>
    <p v-if="!day.products.length" class="quiet">Nothing yet. Type what is to be baked, as you would say it.</p>
    <ul>
      <li v-for="(one, n) in day.products" :key="one.key" :class="{ open: open === one.key }">
        <div class="first">
          <button class="name" type="button" :aria-expanded="open === one.key" @click="open = open === one.key ? '' : one.key">{{ one.name || 'Formula without a name' }}</button>
          <NumberBox v-if="one.pans === null || one.pans === undefined" class="number" :value="one.pieces ?? comes(n)?.pieces ?? null" :worked="one.pieces == null" kind="count" :units="units" :label="`Pieces of ${one.name}`" @change="change(one, { pieces: $event === null ? null : Math.max(1, Math.round($event)) })" />
          <NumberBox v-else class="number" :value="one.pans" kind="count" :units="units" :label="`Pans of ${one.name}`" @change="change(one, { pans: $event === null ? null : Math.max(1, Math.round($event)) })" />
          <span class="unit quiet">{{ one.pans == null ? '' : one.pans === 1 ? 'pan' : 'pans' }}</span>
        </div>
        <p class="comes" role="status">
          <template v-if="troubles[one.key]"><b class="late">{{ troubles[one.key] }}</b></template>
          <template v-else-if="comes(n)">
            <b v-if="comes(n)?.ready_min == null" class="late">{{ comes(n)?.says }}</b>
            <template v-else><b class="worked">ready {{ atText(day.date, comes(n)?.ready_min ?? 0) }}</b><b v-if="(comes(n)?.late_min ?? 0) >= 1" class="late">, {{ minutesText(comes(n)?.late_min ?? 0) }} late</b><span v-else-if="(comes(n)?.lies_min ?? 0) > 29" class="quiet">, lies {{ minutesText(comes(n)?.lies_min ?? 0) }}</span><span v-if="(comes(n)?.beyond_min ?? 0) >= 5" class="late">, {{ minutesText(comes(n)?.beyond_min ?? 0) }} over-risen</span></template><span v-if="one.way && comes(n)?.way" class="quiet">, {{ comes(n)?.way.toLowerCase() }}</span>
          </template>
        </p>
        <div v-if="open === one.key" class="more">
          <label v-if="waysOf(one).length > 1" class="label wide">Way<SelectField :value="wayNow(one)" :options="waysOf(one).map((way) => ({ value: way.key, label: way.name || 'Way' }))" :label="`Way of ${one.name}`" @choose="change(one, { way: $event, pins: [] })" /></label>
          <label class="label">Ready<AtField :value="one.ready_min" :worked="day.ready_min" :date="day.date" :label="`${one.name} ready at`" hint="any time" @change="change(one, { ready_min: $event })" /></label>
          <label class="label">Not before<AtField :value="one.from_min" :date="day.date" :label="`${one.name} not before`" full @change="change(one, { from_min: $event })" /></label>
          <label class="label">Counted in<SelectField :value="one.pans == null ? 'pieces' : 'pans'" :options="[{ value: 'pieces', label: 'pieces' }, { value: 'pans', label: 'pans' }]" :label="`${one.name} counted in`" @choose="change(one, $event === 'pans' ? { pans: 1, pieces: null } : { pans: null })" /></label>
          <label v-if="revisions(one)" class="label">Formula<SelectField :value="one.revision ?? 0" :options="[{ value: 0, label: 'as on the desk' }, ...Array.from({ length: revisions(one) }, (_, k) => ({ value: revisions(one) - k, label: `revision ${revisions(one) - k}` }))]" :label="`Which ${one.name}`" @choose="change(one, { revision: $event || null })" /></label>
          <el-checkbox class="wide" :model-value="one.fresh" @change="change(one, { fresh: Boolean($event) })">As fresh as can be</el-checkbox>
          <RouterLink :to="{ name: 'method', params: { id: one.formula_id } }">Its method</RouterLink>
          <RouterLink v-if="dayId !== null" :to="{ name: 'bench', query: { day: dayId, product: one.key } }">Begin at the bench</RouterLink>
          <el-button text :aria-label="`Take out ${one.name}`" @click="remove(one)">Take out</el-button>
        </div>
      </li>
    </ul>
    <form class="add" @submit.prevent="add"><el-input v-model="text" aria-label="What else is to be baked" placeholder="24 buns, 2 pans of squares" :disabled="full" /><el-button native-type="submit" :disabled="full">Add</el-button></form>
    <p v-if="full" class="quiet">Twelve is all that one day takes.</p>
    <div v-for="one in asked" :key="one.text" class="asked" role="status">
      <template v-if="one.means.length"><span>“{{ one.text }}” may be:</span><el-button v-for="meant in one.means" :key="meant.formula_id" @click="choose(one, meant.formula_id, meant.name)">{{ meant.name }}</el-button></template>
      <template v-else><span>No formula goes by “{{ one.text }}”. Which is it?</span><SelectField :value="null" :options="options" :label="`Formula of ${one.text}`" hint="choose" @choose="choose(one, $event, nameOf($event))" /></template>
      <el-button text @click="asked = asked.filter((other) => other !== one)">Leave it</el-button>
    </div>
    <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
  </section>
</template>

<style scoped>
ul { list-style: none; margin: 0; padding: 0 }
li { border-top: 1px solid var(--rim-faint); padding: 5px 0 }
.first { display: grid; grid-template-columns: 1fr 62px auto; gap: 6px; align-items: center }
.name { background: none; border: 0; padding: 0; min-height: 34px; text-align: left; font: 650 1rem var(--body); color: var(--rim); cursor: pointer; text-decoration: underline; text-decoration-thickness: 1px; text-underline-offset: 3px }
.comes { font-size: .88rem; margin: 0 }
.late { color: var(--stop) }
.more { display: grid; grid-template-columns: 1fr 1fr; gap: 8px; padding: 8px 0; align-items: end }
.wide { grid-column: 1 / -1 }
.all { grid-template-columns: auto 76px; align-items: center }
.add { display: grid; grid-template-columns: 1fr auto; gap: 8px; margin-top: 8px }
.asked { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; margin-top: 8px; border: 2px solid var(--crust); border-radius: 10px; padding: 6px 8px }
</style>
