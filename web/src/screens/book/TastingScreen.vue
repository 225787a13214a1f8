<script setup lang="ts">
/** Tasted blind, each on their own device: letters and scales, until it is opened. */
import { useDebounceFn, useIntervalFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import BunScore from './BunScore.vue'
import ScoreField from './ScoreField.vue'
import { dayText, timeText } from './words'
import { api, ask, Refused, type Tasted, type TastingState } from '@/api/client'
import { browserStore } from '@/base/storage'
import { useAttempt } from '@/base/useAttempt'
import LinkButton from '@/design/LinkButton.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import Said from '@/design/Said.vue'

const LOOK_MS = 4000
const route = useRoute()
const id = computed(() => String(route.params.id))
/** This device's taster, made once. */
const taster = browserStore.getItem('pancount:taster') ?? crypto.randomUUID()
browserStore.setItem('pancount:taster', taster)
const state = ref<TastingState | null>(null)
const error = ref<Refused | null>(null)
const mine = ref<Tasted>({ who: '', scores: {}, likes: null, words: '' })
const kept = ref<'' | 'keeping …' | 'kept' | 'not kept yet'>('')
const { refused, attempt } = useAttempt()
let seen = ''

async function look(first = false): Promise<void> {
  try {
    const now = await ask(api.GET('/api/tastings/{tasting_id}', { params: { path: { tasting_id: id.value }, query: { taster } } }))
    error.value = null
    if (first && now.mine) mine.value = now.mine
    if (first) seen = JSON.stringify(mine.value)
    state.value = now
  } catch (caught) {
    if (!(caught instanceof Refused)) throw caught
    if (first || !caught.isAway) error.value = caught
  }
}
watch(id, () => void look(true), { immediate: true })
async function send(): Promise<void> {
  const sent = JSON.stringify(mine.value)
  await attempt(async () => {
    state.value = await ask(api.PUT('/api/tastings/{tasting_id}/tasters/{taster}', { params: { path: { tasting_id: id.value, taster } }, body: mine.value }))
    seen = sent
    kept.value = JSON.stringify(mine.value) === sent ? 'kept' : 'keeping …'
  })
  if (refused.value) kept.value = 'not kept yet'
}
const sendSoon = useDebounceFn(send, 400)
watch(mine, () => {
  if (!state.value || JSON.stringify(mine.value) === seen) return
  kept.value = 'keeping …'
  void sendSoon()
}, { deep: true })
useIntervalFn(() => {
  if (kept.value === 'not kept yet' && refused.value?.isAway) void send()
  else if (!state.value?.is_open) void look()
}, LOOK_MS)
type Letter = TastingState['letters'][number]
function score(letter: Letter, scale: string, value: number | null): void {
  const own = { ...(mine.value.scores?.[letter] ?? {}) }
  if (value === null) delete own[scale]
  else own[scale] = value
  mine.value = { ...mine.value, scores: { ...mine.value.scores, [letter]: own } }
}
/** Who lays them out is told which is which, and tastes no more. */
const layOut = () => attempt(async () => {
  state.value = await ask(api.POST('/api/tastings/{tasting_id}/tasters/{taster}/lay-out', { params: { path: { tasting_id: id.value, taster } } }))
})
const asked = ref(false)
const open = () => attempt(async () => {
  state.value = await ask(api.POST('/api/tastings/{tasting_id}/open', { params: { path: { tasting_id: id.value } } }))
  asked.value = false
})
const nameOf = (letter: string) => state.value?.opened.find((one) => one.letter === letter)
const address = window.location.href
</script>

<template>
  <main class="page taste">
    <div class="page-head"><h1>Tasted blind</h1><span class="spacer" /><span class="top quiet" role="status">{{ kept }}</span><LinkButton text :to="{ name: 'book' }">The book</LinkButton></div>
    <Said v-if="error && !state" tone="stop"><strong>This tasting cannot be shown</strong>{{ error.message }}<div class="row"><el-button @click="look(true)">Try again</el-button></div></Said>
    <el-skeleton v-else-if="!state" :rows="6" animated aria-label="Fetching the tasting" />
    <template v-else-if="!state.is_open">
      <p>Score each before you talk about it. Others open <a :href="address">this address</a> on their own phone. <template v-if="!state.lays_out">Somebody who does not taste lays them out as {{ state.letters.join(', ') }}.<el-button v-if="!state.mine" text @click="layOut">I lay them out</el-button></template></p>
      <div class="tellings"><RefusedNote v-if="refused" :refused="refused" @close="refused = null" /></div>
      <section v-if="state.lays_out" class="tray" aria-labelledby="lay-head">
        <div class="tray-head"><h2 id="lay-head">To lay out</h2><span class="quiet">you know which is which, and do not taste</span></div>
        <p v-for="one in state.opened" :key="one.letter" class="lay"><b>{{ one.letter }}</b><span>{{ one.name }}, {{ dayText(one.begun_at) }} {{ timeText(one.begun_at) }}</span></p>
      </section>
      <template v-else>
      <label class="label who">Who tastes<el-input v-model="mine.who" maxlength="40" aria-label="Who tastes" /></label>
      <div class="letters">
        <section v-for="letter in state.letters" :key="letter" class="tray" :aria-label="letter">
          <h2 class="letter">{{ letter }}</h2>
          <ScoreField v-for="scale in state.scales" :key="scale" :label="scale" :value="mine.scores?.[letter]?.[scale] ?? null" @choose="score(letter, scale, $event)" />
          <el-button :type="mine.likes === letter ? 'primary' : undefined" :aria-pressed="mine.likes === letter" class="best" @click="mine.likes = mine.likes === letter ? null : letter">{{ mine.likes === letter ? 'I like this best' : 'I like this best?' }}</el-button>
        </section>
      </div>
      <label class="label">In words<el-input v-model="mine.words" maxlength="300" aria-label="In words" /></label>
      </template>
      <div class="foot"><span class="quiet">{{ state.tasters }} {{ state.tasters === 1 ? 'has' : 'have' }} tasted.</span><span class="spacer" /><el-button @click="asked = true">Open it …</el-button></div>
      <Said v-if="asked" tone="now"><strong>Once it is open, nobody tastes blind any more</strong>{{ state.tasters }} {{ state.tasters === 1 ? 'person has' : 'people have' }} tasted so far.<div class="row"><el-button type="primary" @click="open">Open it</el-button><el-button @click="asked = false">Not yet</el-button></div></Said>
    </template>
    <template v-else>
      <div class="letters">
        <section v-for="one in state.says?.letters ?? []" :key="one.letter" class="tray" :aria-label="one.letter">
          <h2 class="letter">{{ one.letter }}</h2>
          <p><RouterLink class="bake" :to="{ name: 'book-bake', params: { id: nameOf(one.letter)?.bake ?? '' } }">{{ nameOf(one.letter)?.name }}</RouterLink><br /><span class="quiet">{{ dayText(nameOf(one.letter)?.begun_at ?? '') }}</span></p>
          <p v-for="(mean, scale) in one.means" :key="scale" class="mean"><span>{{ scale }}</span><BunScore :score="mean" /></p>
          <p class="mean"><b>Liked best by</b><b>{{ one.liked }} of {{ state.tasters }}</b></p>
        </section>
      </div>
      <Said>{{ state.says?.says }}</Said>
      <section class="tray" aria-labelledby="sheets-head"><div class="tray-head"><h2 id="sheets-head">Who said what</h2></div><p v-for="(sheet, n) in state.sheets" :key="n"><b>{{ sheet.who || 'Somebody' }}</b>{{ sheet.likes ? ` likes ${sheet.likes} best.` : ' did not say which is best.' }} {{ sheet.words }}</p></section>
      <LinkButton :to="{ name: 'beside', query: { bakes: state.opened.map((one) => one.bake).join(',') } }">Side by side</LinkButton>
    </template>
  </main>
</template>

<style scoped>
.taste { display: grid; gap: 12px; max-width: 1000px }
.letters { display: grid; gap: 12px; grid-template-columns: repeat(auto-fit, minmax(min(320px, 100%), 1fr)) }
.letter { font-size: 2.4rem; text-align: center }
.best { width: 100%; margin-top: 8px; min-height: 48px }
.lay { display: flex; gap: 14px; align-items: baseline; min-height: 44px }
.lay b { font: 700 1.6rem var(--head); color: var(--rim) }
.who { max-width: 320px }
.foot { display: flex; align-items: center; gap: 10px }
.taste > .el-button { justify-self: start }
.bake { font: 700 1.1rem var(--head) }
.mean { display: flex; justify-content: space-between; min-height: 30px; align-items: center }
</style>
