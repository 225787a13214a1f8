<script setup lang="ts">
/** Three ways to a first formula: a recipe as it is, an outline, or the demo kitchen's formulas as examples. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useExamples } from './examples'
import { api, ask } from '@/api/client'
import { tourIsDue } from '@/base/firstTime'
import { plain } from '@/base/format'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import LinkButton from '@/design/LinkButton.vue'
import RefusedNote from '@/design/RefusedNote.vue'

const router = useRouter()
const cache = useQueryClient()
const { refused, attempt } = useAttempt()
const outlines = useQuery({ queryKey: ['outlines'], queryFn: () => ask(api.GET('/api/beginnings/outlines')), staleTime: Infinity })
const cards = computed(() =>
  (outlines.data.value ?? []).map(({ key, name, says, lines }) => ({
    key,
    name,
    says,
    lines: lines.filter((line) => line.low < line.high).map((line) => `${line.name}${line.stage && ` in the ${line.stage}`} ${plain(line.low)}–${plain(line.high)}`).join(', '),
  })),
)
const busy = ref(false)
/** One press, one formula. */
async function once(act: () => Promise<unknown>): Promise<void> {
  if (busy.value) return
  busy.value = true
  await attempt(act)
  busy.value = false
}
const { bringIn, remove } = useExamples()
const begin = (key: string) =>
  once(async () => {
    const state = await ask(api.POST('/api/beginnings/outlines', { params: { query: { key } } }))
    await cache.invalidateQueries({ queryKey: ['formulas'] })
    tourIsDue()
    await router.push({ name: 'formula', params: { id: state.head.id } })
  })
const examples = () =>
  once(async () => {
    const came = await bringIn()
    tourIsDue()
    await router.push({ name: 'formulas' })
    tell(`${came} formulas of the demo kitchen are here as examples.`, remove)
  })
</script>

<template>
  <div class="begin">
    <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
    <div class="ways">
      <section class="tray">
        <h2>A recipe as it is</h2>
        <p>In cups or in grams, pasted, typed or from a file. It becomes grams with how far off they may be.</p>
        <LinkButton type="primary" :to="{ name: 'take-in' }" @click="tourIsDue">Take in a recipe</LinkButton>
      </section>
      <section class="tray">
        <h2>From nothing</h2>
        <p>Start with the flour, pin how many pieces you want, and the rest is worked out.</p>
        <LinkButton :to="{ name: 'formula', params: { id: 'new' } }" @click="tourIsDue">New formula</LinkButton>
      </section>
      <section class="tray">
        <h2>Look at some</h2>
        <p>The formulas of the demo kitchen as examples. They can be removed in one go.</p>
        <el-button :disabled="busy" @click="examples">Bring in the examples</el-button>
      </section>
    </div>
    <section class="tray" aria-labelledby="outlines-head">
      <div class="tray-head"><h2 id="outlines-head">From an outline</h2><span class="quiet">what the trade usually does, % of flour: common practice, no source</span></div>
      <el-skeleton v-if="outlines.isPending.value" :rows="4" animated aria-label="Fetching the outlines" />
      <p v-else-if="outlines.error.value" class="quiet">{{ outlines.error.value.message }}</p>
      <ul v-else>
        <li v-for="card in cards" :key="card.key">
          <h3>{{ card.name }}</h3>
          <p>{{ card.says }}</p>
          <p class="quiet">{{ card.lines }}</p>
          <el-button size="small" :disabled="busy" :aria-label="`Begin with ${card.name}`" @click="begin(card.key)">Begin with it</el-button>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.begin { display: grid; gap: 14px }
.ways { display: grid; gap: 14px; grid-template-columns: repeat(auto-fit, minmax(min(260px, 100%), 1fr)) }
.ways .tray { display: grid; gap: 8px; grid-template-rows: auto 1fr auto; justify-items: start; padding: 16px 18px }
ul { list-style: none; margin: 4px 0 0; padding: 0; display: grid; gap: 2px 22px; grid-template-columns: repeat(auto-fill, minmax(min(300px, 100%), 1fr)) }
li { display: grid; gap: 2px; align-content: start; justify-items: start; border-top: 1px solid var(--rim-faint); padding: 9px 0 11px; grid-template-rows: auto auto 1fr auto }
h3 { font-size: 1.05rem }
li .el-button { margin-top: 5px }
</style>
