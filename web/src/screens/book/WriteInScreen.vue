<script setup lang="ts">
/** A bake that was not at the bench, written in with as much or as little as is known. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import OutcomeFields from './OutcomeFields.vue'
import { PHOTO_KINDS, sendPhoto } from './photos'
import ToldFields from './ToldFields.vue'
import { emptyTold, sentTold } from './told'
import { emptyOutcome } from './useOutcome'
import { api, ask } from '@/api/client'
import { useUnits } from '@/base/kitchen'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import ClockField from '@/design/ClockField.vue'
import LinkButton from '@/design/LinkButton.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import SelectField from '@/design/SelectField.vue'

const route = useRoute()
const router = useRouter()
const cache = useQueryClient()
const { units } = useUnits()
const formulas = useQuery({ queryKey: ['formulas', false], queryFn: () => ask(api.GET('/api/formulas', { params: { query: { archived: false } } })) })
const options = computed(() => (formulas.data.value ?? []).map((one) => ({ value: one.id, label: one.name || 'Formula without a name' })))
const formula = ref<number | null>(Number(route.query.formula) || null)
const blank = useQuery({
  queryKey: computed(() => ['book', 'blank', formula.value]),
  enabled: computed(() => formula.value !== null),
  queryFn: () => ask(api.GET('/api/book/blank', { params: { query: { formula_id: formula.value as number } } })),
})
const two = (n: number) => String(n).padStart(2, '0')
const now = new Date()
const date = ref(`${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`)
/** Minutes after midnight. */
const time = ref(7 * 60)
const isToCome = (at: Date) => at.getTime() > Date.now()
const begunAt = computed(() => new Date(`${date.value}T${two(Math.floor(time.value / 60) % 24)}:${two(Math.floor(time.value % 60))}`))
const told = reactive(emptyTold())
const outcome = ref(emptyOutcome())
watch(formula, () => Object.assign(told, { lines: {}, steps: {} }))
/** One bake, however often it is sent. */
const id = crypto.randomUUID()
const photos = ref<{ id: string; file: File; address: string }[]>([])
const field = ref<HTMLInputElement>()
function choose(event: Event): void {
  const files = [...((event.target as HTMLInputElement).files ?? [])]
  photos.value = [...photos.value, ...files.map((file) => ({ id: crypto.randomUUID(), file, address: URL.createObjectURL(file) }))]
}
const { refused, attempt } = useAttempt()
const sending = ref(false)
async function keep(): Promise<void> {
  sending.value = true
  await attempt(async () => {
    await ask(api.POST('/api/book/bakes', { body: { id, formula_id: formula.value as number, begun_at: begunAt.value.toISOString(), told: sentTold(told), outcome: outcome.value } }))
    for (const one of photos.value) await sendPhoto(id, one.id, one.file, false)
    await cache.invalidateQueries({ queryKey: ['book'] })
    await router.push({ name: 'book-bake', params: { id } })
    tell('It is in the book.')
  })
  sending.value = false
}
const sound = computed(() => formula.value !== null && !Number.isNaN(begunAt.value.getTime()))
</script>

<template>
  <main class="page write">
    <div class="page-head"><h1>Write in a bake</h1><span class="spacer" /><LinkButton text :to="{ name: 'book' }">The book</LinkButton></div>
    <div class="tellings"><RefusedNote v-if="refused" :refused="refused" @close="refused = null" /></div>
    <form v-if="units" class="columns" @submit.prevent="keep">
      <section class="tray" aria-labelledby="what-head">
        <div class="tray-head"><h2 id="what-head">What was baked</h2><span class="quiet">leave blank what is not known</span></div>
        <div class="part">
          <div class="when">
            <div class="label">Formula<SelectField :value="formula" :options="options" label="Formula" hint="choose a formula" @choose="formula = Number($event)" /></div>
            <div class="label">On<el-date-picker v-model="date" class="date" type="date" value-format="YYYY-MM-DD" format="ddd D MMM YYYY" :clearable="false" :disabled-date="isToCome" aria-label="On" /></div>
            <label class="label">Begun at<ClockField :value="time" label="Begun at" @change="time = $event ?? time" /></label>
          </div>
          <p v-if="blank.error.value" class="stop" role="alert">{{ blank.error.value.message }}</p>
          <p v-else-if="blank.data.value" class="quiet">As its count lies on the desk: {{ blank.data.value.pieces }} pieces.</p>
          <ToldFields v-model="told" :lines="blank.data.value?.lines ?? []" :steps="blank.data.value?.steps ?? []" :units="units" />
        </div>
      </section>
      <section class="tray" aria-labelledby="came-head">
        <div class="tray-head"><h2 id="came-head">What it came to</h2></div>
        <OutcomeFields v-model="outcome" :scales="blank.data.value?.scales ?? ['Crust', 'Crumb', 'Height', 'Flavour', 'Evenness']" :pieces="blank.data.value?.pieces ?? 0" :units="units" />
        <div class="photos">
          <input ref="field" class="visually-hidden" type="file" :accept="PHOTO_KINDS" multiple tabindex="-1" aria-label="Photos" @change="choose" />
          <el-button @click="field?.click()">Photos</el-button>
          <img v-for="one in photos" :key="one.id" :src="one.address" alt="A photo to be kept" />
        </div>
        <div class="dialog-foot"><el-button type="primary" native-type="submit" :disabled="!sound || sending" :loading="sending">It goes to the book</el-button></div>
      </section>
    </form>
  </main>
</template>

<style scoped>
.columns { display: grid; gap: 14px; grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr); align-items: start }
.part { display: grid; gap: 10px }
.when { display: grid; grid-template-columns: minmax(0, 1fr) 190px 90px; gap: 8px }
.date { --el-date-editor-width: 100%; width: 100% }
.photos { display: flex; flex-wrap: wrap; gap: 8px; align-items: center; margin-top: 10px }
.photos img { width: 64px; height: 64px; object-fit: cover; border-radius: 10px; border: 2px solid var(--rim-soft) }
.stop { color: var(--stop) }
@media (max-width: 900px) { .columns { grid-template-columns: minmax(0, 1fr) } .when { grid-template-columns: 1fr 1fr } .when > :first-child { grid-column: 1 / -1 } }
</style>
