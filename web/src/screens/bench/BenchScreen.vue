<script setup lang="ts">
/** All bakes under way, the next thing of each; what was baked lately; and beginning another. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useLive, useNow, learnTime } from './useLive'
import { clockOf, spanText, untilText } from './words'
import { keepsOffline } from './offline'
import { api, ask, Refused, type Beginning } from '@/api/client'
import { when } from '@/base/format'
import LinkButton from '@/design/LinkButton.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'

const route = useRoute()
const router = useRouter()
const client = useQueryClient()
const now = useNow(500)
keepsOffline()
const bench = useQuery({
  queryKey: ['bench'],
  queryFn: async () => {
    const asked = Date.now()
    const page = await ask(api.GET('/api/bench'))
    learnTime(page.now_s, asked)
    return page
  },
  refetchInterval: (query) => (query.state.data?.bakes.some((one) => one.card === null) ? 800 : 10_000),
})
const over = useQuery({ queryKey: ['bakes'], queryFn: () => ask(api.GET('/api/bakes')) })
const formulas = useQuery({ queryKey: ['formulas', false], queryFn: () => ask(api.GET('/api/formulas', { params: { query: { archived: false } } })) })
const again = () => void client.invalidateQueries({ queryKey: ['bench'] })
useLive(again, again)
const options = computed(() => (formulas.data.value ?? []).map((one) => ({ value: one.id, label: one.name || 'Formula without a name' })))
const ENDS: Record<string, string> = { done: 'done', stopped: 'stopped', thrown_away: 'thrown away' }
const refused = ref<Refused | null>(null)
const beginning = ref(false)

async function begin(from: Omit<Beginning, 'id'>): Promise<void> {
  if (beginning.value) return
  beginning.value = true
  refused.value = null
  try {
    const made = await ask(api.POST('/api/bakes', { body: { id: crypto.randomUUID(), ...from } }))
    await router.push({ name: 'bake', params: { id: made.head.id } })
  } catch (caught) {
    if (!(caught instanceof Refused)) throw caught
    refused.value = caught
  } finally {
    beginning.value = false
  }
}
// A link from a formula, a day or an earlier bake says what is begun.
watch(() => route.query, (query) => {
  const one = (name: string): string => (typeof query[name] === 'string' ? query[name] : '')
  const from = one('formula') ? { formula_id: Number(one('formula')) } : one('day') ? { day: { day_id: Number(one('day')), product: one('product') } } : one('again') ? { again: one('again') } : null
  if (!from) return
  void router.replace({ name: 'bench' }).then(() => begin(from))
}, { immediate: true })
</script>

<template>
  <main class="page">
    <div class="page-head"><h1>Bench</h1></div>
    <Said v-if="bench.error.value && !bench.data.value" tone="stop"><strong>The bench cannot be shown</strong>{{ bench.error.value.message }}<div class="row"><el-button @click="bench.refetch()">Try again</el-button></div></Said>
    <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
    <div class="halves">
      <section class="tray" aria-labelledby="way-head">
        <div class="tray-head"><h2 id="way-head">Under way</h2></div>
        <el-skeleton v-if="!bench.data.value && !bench.error.value" :rows="3" animated aria-label="Fetching the bench" />
        <p v-else-if="!bench.data.value?.bakes.length" class="quiet empty">Nothing is being baked. Choose a formula, and its sheet and method come to the bench as they are now.</p>
        <ul class="bakes">
          <li v-for="one in bench.data.value?.bakes ?? []" :key="one.head.id">
            <RouterLink :to="{ name: 'bake', params: { id: one.head.id } }">
              <b class="name">{{ one.head.name || 'Formula without a name' }}</b>
              <span class="quiet">{{ one.head.pieces }} pieces, begun {{ clockOf(Date.parse(one.head.begun_at) / 1000) }}<template v-if="one.head.status === 'paused'">, put away</template></span>
              <span class="next">{{ one.card ? one.card.next || 'All of it is done' : '…' }}</span>
              <span v-for="timer in one.card?.timers.slice(0, 2) ?? []" :key="timer.key" class="timer" :class="{ late: timer.rings_s <= now }">{{ timer.name }} <b>{{ timer.rings_s > now ? untilText(timer.rings_s - now) : `rang ${spanText(now - timer.rings_s)} ago` }}</b></span>
            </RouterLink>
          </li>
        </ul>
      </section>
      <div class="side">
        <section class="tray" aria-labelledby="begin-head">
          <div class="tray-head"><h2 id="begin-head">Begin a bake</h2></div>
          <SelectField :value="null" :options="options" label="What is baked" hint="choose a formula" :disabled="beginning" @choose="begin({ formula_id: Number($event) })" />
          <p class="quiet">With the count that lies on its desk. From a day, begin it there.</p>
        </section>
        <section class="tray" aria-labelledby="over-head">
          <div class="tray-head"><h2 id="over-head">Baked lately</h2></div>
          <ul class="over">
            <li v-for="one in (over.data.value ?? []).slice(0, 12)" :key="one.id"><RouterLink :to="{ name: 'bake', params: { id: one.id } }">{{ one.name || 'Formula without a name' }}</RouterLink><span class="quiet">{{ when(one.begun_at) }}, {{ ENDS[one.status] }}</span><el-button v-if="one.formula_id" text :aria-label="`Bake ${one.name} again`" @click="begin({ again: one.id })">Again</el-button></li>
            <li v-if="over.data.value && !over.data.value.length" class="quiet">None yet.</li>
          </ul>
        </section>
        <LinkButton text :to="{ name: 'days' }">Baking days</LinkButton>
      </div>
    </div>
  </main>
</template>

<style scoped>
.halves { display: grid; gap: 14px; grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr); align-items: start }
.side { display: grid; gap: 14px; justify-items: stretch }
ul { list-style: none; margin: 0; padding: 0 }
.bakes { display: grid; gap: 10px }
.bakes a { display: grid; gap: 4px 14px; grid-template-columns: 1fr auto; border: 2px solid var(--rim-soft); border-radius: 14px; padding: 12px 14px; text-decoration: none; color: var(--ink) }
.bakes a:hover { border-color: var(--rim) }
.name { font: 700 1.3rem var(--head); color: var(--rim) }
.next { font-size: 1.25rem; font-weight: 650; grid-column: 1 / -1; color: var(--crust) }
.timer { grid-column: 1 / -1; display: flex; justify-content: space-between; font-size: 1.1rem }
.late { color: var(--stop) }
.over li { display: grid; grid-template-columns: 1fr auto auto; gap: 8px; align-items: center; min-height: 44px; border-bottom: 1px solid var(--rim-faint) }
.empty { padding: 20px 0 }
@media (max-width: 900px) { .halves { grid-template-columns: minmax(0, 1fr) } }
</style>
