<script setup lang="ts">
/** The kitchen's baking days: open one, begin one, or one like another. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { copied } from './useDay'
import { api, ask, type DayHead } from '@/api/client'
import { dateText, nextDate } from '@/base/dayTimes'
import { useKeys } from '@/base/keys'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import KeysDialog from '@/design/KeysDialog.vue'
import LinkButton from '@/design/LinkButton.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import Said from '@/design/Said.vue'

const KEYS = [
  ['N', 'new day'],
  ['Tab, Enter', 'go to a day, open it'],
  ['?', 'these keys'],
] as const
const SATURDAY = 6
const router = useRouter()
const cache = useQueryClient()
const days = useQuery({ queryKey: ['days'], queryFn: () => ask(api.GET('/api/days')) })
const { refused, attempt } = useAttempt()
const refresh = () => cache.invalidateQueries({ queryKey: ['days'] })
const path = (id: number) => ({ path: { day_id: id } })
const nameOf = (head: DayHead) => head.name || dateText(head.date)
const calendar = `${window.location.origin}/api/days/calendar.ics`

/** The same again, on the next day of that weekday. */
const again = (head: DayHead) =>
  attempt(async () => {
    const { day } = await ask(api.GET('/api/days/{day_id}', { params: path(head.id) }))
    const made = await ask(api.POST('/api/days', { body: copied(day, nextDate(new Date(`${head.date}T12:00:00`).getDay())) }))
    await refresh()
    await router.push({ name: 'day', params: { id: made.head.id } })
    tell(`Like ${nameOf(head)}: change what is otherwise.`)
  })
const drop = (head: DayHead) =>
  attempt(async () => {
    const { day } = await ask(api.GET('/api/days/{day_id}', { params: path(head.id) }))
    await ask(api.DELETE('/api/days/{day_id}', { params: { ...path(head.id), query: { version: head.version } } }))
    await refresh()
    tell(`Threw away ${nameOf(head)}.`, () => attempt(async () => ask(api.POST('/api/days', { body: day }))).then(refresh))
  })
const shows = ref(false)
useKeys({ n: () => void router.push({ name: 'day', params: { id: 'new' } }), '?': () => (shows.value = true) })
const started = nextDate(SATURDAY)
</script>

<template>
  <main class="page days">
    <div class="page-head"><h1>Days</h1><span class="spacer" /><LinkButton type="primary" :to="{ name: 'day', params: { id: 'new' } }">New day</LinkButton></div>
    <div class="tellings"><RefusedNote v-if="refused" :refused="refused" @close="refused = null" /></div>
    <Said v-if="days.error.value" tone="stop"><strong>The days cannot be shown</strong>{{ days.error.value.message }}<div class="row"><el-button @click="days.refetch()">Try again</el-button></div></Said>
    <el-skeleton v-else-if="!days.data.value" :rows="5" animated aria-label="Fetching the days" />
    <Said v-else-if="!days.data.value.length"><strong>No day yet</strong>A day brings several doughs together: what is to be ready when, who is there, one oven. It lays them out by the hour. The next would be {{ dateText(started) }}.<div class="row"><LinkButton type="primary" :to="{ name: 'day', params: { id: 'new' } }">New day</LinkButton></div></Said>
    <section v-else class="tray" aria-label="Days">
      <ul>
        <li v-for="head in days.data.value" :key="head.id">
          <RouterLink class="name" :to="{ name: 'day', params: { id: head.id } }">{{ nameOf(head) }}</RouterLink>
          <span>{{ dateText(head.date) }}</span>
          <span class="quiet products">{{ head.products.join(' · ') || 'nothing in it yet' }}</span>
          <el-button text :aria-label="`Another like ${nameOf(head)}`" @click="again(head)">Another like it</el-button>
          <el-button text :aria-label="`Throw away ${nameOf(head)}`" @click="drop(head)">Throw away</el-button>
        </li>
      </ul>
    </section>
    <p class="quiet calendar">Subscribe to the coming days in any calendar: <a :href="calendar">{{ calendar }}</a>. It follows every change.</p>
    <KeysDialog v-model="shows" :keys="KEYS" />
  </main>
</template>

<style scoped>
.days { max-width: 1100px }
ul { list-style: none; margin: 0; padding: 0 }
li { display: grid; grid-template-columns: minmax(140px, auto) 190px 1fr auto auto; gap: 6px 14px; align-items: center; min-height: 52px; border-top: 1px solid var(--rim-faint) }
li:first-child { border-top: 0 }
.name { font: 700 1.05rem var(--head) }
.calendar { margin-top: 14px; overflow-wrap: anywhere }
@media (max-width: 900px) { li { grid-template-columns: 1fr auto auto; padding: 8px 0 } .products { grid-column: 1 / -1 } }
</style>
