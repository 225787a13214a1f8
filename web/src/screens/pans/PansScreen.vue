<script setup lang="ts">
/** The shelf: the kitchen's pans drawn to one scale beside each other; one opened to measure, several held against each other. */
import { useQueryClient } from '@tanstack/vue-query'
import { useMediaQuery } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import ComparePans from './ComparePans.vue'
import PanCard from './PanCard.vue'
import { api, ask, type PanState, type ShelfPan } from '@/api/client'
import { plainCopy } from '@/base/copy'
import KeysDialog from '@/design/KeysDialog.vue'
import { panOf } from '@/design/pans'
import RefusedNote from '@/design/RefusedNote.vue'
import PanTop from '@/drawings/PanTop.vue'
import { measures, outline, plain } from '@/base/format'
import { useKeys } from '@/base/keys'
import { usePans, useUnits } from '@/base/kitchen'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import LinkButton from '@/design/LinkButton.vue'
import Said from '@/design/Said.vue'

const KEYS = [
  ['N', 'a new pan'],
  ['Enter', 'open the pan, on a drawing'],
  ['X', 'hold the pan against others, on a drawing'],
  ['Esc', 'close'],
  ['?', 'these keys'],
] as const
const MOST_COMPARED = 4

const route = useRoute()
const router = useRouter()
const cache = useQueryClient()
const { units, error: unitsError } = useUnits()
const showsArchived = computed(() => route.query.away === '1')
const here = usePans(false)
const away = usePans(true)
const pans = computed(() => (showsArchived.value ? away : here).data.value ?? [])
const error = computed(() => here.error.value ?? unitsError.value)
const { refused, attempt } = useAttempt()

/* What is open and what is compared is in the address. */
const show = (query: Record<string, string | undefined>) => router.replace({ query: { ...route.query, ...query } })
const all = computed(() => [...(here.data.value ?? []), ...(away.data.value ?? [])])
const fresh = ref<ShelfPan | null>(null)
const opened = computed(() => all.value.find((state) => String(state.id) === route.query.open) ?? null)
const compared = computed(() =>
  String(route.query.compare ?? '')
    .split(',')
    .flatMap((id) => all.value.find((state) => String(state.id) === id) ?? [])
    .slice(0, MOST_COMPARED),
)
/** One is beside the shelf at once, where there is room: the first, until another is opened. */
const hasRoom = useMediaQuery('(min-width: 1001px)')
const besideIt = computed(() => opened.value ?? (hasRoom.value ? (pans.value[0] ?? null) : null))
const isCompared = (state: PanState) => compared.value.some((one) => one.id === state.id)
function toggle(state: PanState): void {
  const ids = compared.value.map((one) => one.id)
  const next = ids.includes(state.id) ? ids.filter((id) => id !== state.id) : [...ids, state.id].slice(-MOST_COMPARED)
  fresh.value = null
  void show({ compare: next.length ? next.join(',') : undefined, open: undefined })
}
let cameFrom: HTMLElement | null = null
function open(state: PanState): void {
  cameFrom = document.activeElement as HTMLElement | null
  fresh.value = null
  void show({ open: String(state.id) })
}
function close(): void {
  fresh.value = null
  void show({ open: undefined })
  void nextTick(() => cameFrom?.focus())
}
function start(): void {
  if (!units.value) return
  cameFrom = document.activeElement as HTMLElement | null
  void show({ open: undefined })
  fresh.value = { pan: panOf('rectangle', units.value.reference), material: null, colour: '', sticks: false, owned: 1, note: '' }
}

/* Every change goes to the kitchen at once, with its undo. */
const again = () => cache.invalidateQueries({ queryKey: ['pans'] })
const path = (id: number) => ({ path: { pan_id: id } })
const keep = (shelved: ShelfPan) =>
  attempt(async () => {
    const before = fresh.value ? null : besideIt.value
    if (before) {
      const now = await ask(api.PUT('/api/pans/{pan_id}', { params: path(before.id), body: { shelved, version: before.version } }))
      await again()
      tell(`${shelved.pan.name || 'The pan'} is kept.`, () => void attempt(async () => {
        await ask(api.PUT('/api/pans/{pan_id}', { params: path(now.id), body: { shelved: plainCopy(before.shelved), version: now.version } }))
        await again()
      }))
    } else {
      const now = await ask(api.POST('/api/pans', { body: shelved }))
      await again()
      tell(`${shelved.pan.name || 'The pan'} is on the shelf.`, () => void attempt(async () => {
        await ask(api.DELETE('/api/pans/{pan_id}', { params: { ...path(now.id), query: { version: now.version } } }))
        await again()
      }))
    }
    close()
  })
const putAway = (state: PanState) =>
  attempt(async () => {
    const move = (archived: boolean) => ask(api.PUT('/api/pans/{pan_id}/archived', { params: { ...path(state.id), query: { archived } } }))
    await move(!state.archived)
    await again()
    close()
    tell(state.archived ? 'Back on the shelf.' : 'Put away. Counts that use it keep it.', () => void attempt(async () => {
      await move(state.archived)
      await again()
    }))
  })
const remove = (state: PanState) =>
  attempt(async () => {
    await ask(api.DELETE('/api/pans/{pan_id}', { params: { ...path(state.id), query: { version: state.version } } }))
    await again()
    close()
    tell('Removed. Counts that use it keep it.', () => void attempt(async () => {
      await ask(api.POST('/api/pans', { body: plainCopy(state.shelved) }))
      await again()
    }))
  })

/** One scale for the whole shelf, by its largest pan. */
const ROOM = 140
const scale = computed(() => ROOM / Math.max(20, ...pans.value.map((state) => outline(state.measured.solid)[0])))
const holds = (state: PanState) => (state.measured.volume_ml ? `${plain(state.measured.volume_ml)} ml` : `${plain(state.measured.area_cm2)} cm²`)
const PROMISE = { less: 'smaller than its name', more: 'larger than its name', kept: '', none: '' } as const

const showsKeys = ref(false)
useKeys({ n: start, '?': () => (showsKeys.value = true), Escape: close })
</script>

<template>
  <main class="page">
    <div class="page-head">
      <h1>Pans</h1>
      <span class="quiet">drawn to one scale; hold two or more against each other for the same dough</span>
      <span class="spacer" />
      <LinkButton :to="{ query: { ...route.query, away: showsArchived ? undefined : '1', open: undefined } }">{{ showsArchived ? 'The shelf' : `Put away (${away.data.value?.length ?? 0})` }}</LinkButton>
      <el-button type="primary" :disabled="!units" @click="start">New pan</el-button>
    </div>
    <Said tone="stop" v-if="error"><strong>The shelf cannot be shown</strong>{{ error.message }}<div class="row"><el-button @click="here.refetch()">Try again</el-button></div></Said>
    <el-skeleton v-else-if="!units || here.isPending.value" :rows="8" animated aria-label="Fetching the pans" />
    <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
    <div v-if="units && here.data.value" class="halves">
      <section class="tray" aria-labelledby="shelf-head">
        <h2 id="shelf-head" class="visually-hidden">{{ showsArchived ? 'Put away' : 'The shelf' }}</h2>
        <el-empty v-if="!pans.length" :description="showsArchived ? 'Nothing is put away.' : 'No pans yet. Start from a common size, or measure one of yours; inside, at the top and at the base.'"><template #image><span /></template></el-empty>
        <ul class="shelf">
          <li v-for="state in pans" :key="state.id" :class="{ open: !fresh && !(compared.length && !opened) && besideIt?.id === state.id, picked: isCompared(state) }">
            <button type="button" class="pan" :aria-label="`Open ${state.shelved.pan.name || 'the pan'}`" @click="open(state)" @keydown.x.prevent="toggle(state)">
              <span class="drawn"><PanTop :solid="state.measured.solid" :units="units" :scale="scale" :measured="false" /></span>
              <b>{{ state.shelved.pan.name || units.reference.pan_shapes[state.shelved.pan.shape]?.label }}<template v-if="state.shelved.owned !== 1"> × {{ state.shelved.owned }}</template></b>
              <span>{{ measures(state.shelved.pan, units) }}</span>
              <span class="quiet">{{ holds(state) }}<template v-if="state.measured.measured_ml != null">, by water</template><template v-if="state.shelved.sticks">, sticks</template></span>
              <span v-if="PROMISE[state.measured.promise_is]" class="warn">{{ PROMISE[state.measured.promise_is] }}</span>
            </button>
            <el-checkbox class="pick" :model-value="isCompared(state)" :aria-label="`Hold ${state.shelved.pan.name || 'the pan'} against others`" @change="toggle(state)">Hold against</el-checkbox>
          </li>
        </ul>
      </section>
      <PanCard v-if="fresh" key="new" :shelved="fresh" :state="null" :units="units" closes @keep="keep" @close="close" />
      <ComparePans v-else-if="compared.length && !opened" :pans="compared" :units="units" @open="open" />
      <PanCard v-else-if="besideIt" :key="besideIt.id" :shelved="besideIt.shelved" :state="besideIt" :units="units" :closes="opened !== null" @keep="keep" @away="putAway" @remove="remove" @close="close" />
    </div>
    <KeysDialog v-model="showsKeys" :keys="KEYS" />
  </main>
</template>

<style scoped>
.halves { display: grid; gap: 14px; grid-template-columns: minmax(0, 1.25fr) minmax(400px, 1fr); align-items: start }
.shelf { list-style: none; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(auto-fill, minmax(176px, 1fr)); gap: 8px }
li { border: 1.5px solid transparent; border-radius: 12px; display: grid; align-content: space-between }
li.open { border-color: var(--rim) }
li.picked { background: var(--crust-soft) }
.pan { display: grid; justify-items: center; gap: 1px; border: 0; background: none; cursor: pointer; padding: 8px 4px 2px; border-radius: 12px; text-align: center; line-height: 1.25; font-size: .92rem; width: 100% }
.pan:hover { background: var(--rim-faint) }
.drawn { display: grid; align-items: end; justify-items: center; min-height: 106px; margin-bottom: 4px }
.warn { color: var(--crust); font-weight: 600; font-size: .86rem }
.pick { justify-content: center }
.empty { padding: 30px 12px; text-align: center }
@media (max-width: 1000px) { .halves { grid-template-columns: minmax(0, 1fr) } .halves > :last-child { order: -1 } }
@media (max-width: 760px) { .shelf { grid-template-columns: repeat(2, minmax(0, 1fr)) } .pick { min-height: 44px } }
</style>
