<script setup lang="ts">
/** Beside an empty page: what happens with a recipe, and those that were taken in before. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { api, ask, type TakingHead } from '@/api/client'
import RefusedNote from '@/design/RefusedNote.vue'
import { when } from '@/base/format'
import { tell } from '@/base/notice'
import FilePick from '@/design/FilePick.vue'
import { FILES } from './recipe/useFileIn'
import { useAttempt } from '@/base/useAttempt'
import Said from '@/design/Said.vue'

const emit = defineEmits<{ file: [file: File] }>()
const cache = useQueryClient()
const earlier = useQuery({ queryKey: ['takings'], queryFn: () => ask(api.GET('/api/takings')) })
const { refused, attempt } = useAttempt()
const refresh = () => cache.invalidateQueries({ queryKey: ['takings'] })
const nameOf = (head: TakingHead) => head.name || 'Recipe without a title'

async function drop(head: TakingHead): Promise<void> {
  await attempt(async () => {
    const params = { path: { taking_id: head.id } }
    const { taking } = await ask(api.GET('/api/takings/{taking_id}', { params }))
    await ask(api.DELETE('/api/takings/{taking_id}', { params: { ...params, query: { version: head.version } } }))
    tell(`Threw away ${nameOf(head)}.`, async () => {
      await ask(api.POST('/api/takings', { body: taking }))
      await refresh()
    })
  })
  await refresh()
}
</script>

<template>
  <section class="tray earlier" aria-labelledby="earlier-head">
    <h2 id="earlier-head">What happens with it</h2>
    <ol>
      <li>Cups, spoons, packets and pinches become grams, with how far off they may be. The text stays as it is.</li>
      <li>What moves the dough most is asked: how you fill a cup, which salt, which yeast. Answers are remembered.</li>
      <li>One step makes the formula: stages from the headings, the yield as the first pins of its count.</li>
    </ol>
    <FilePick drop :accept="FILES" @pick="emit('file', $event)"><b>Choose a file</b>, or drop it here: a saved web page or .json with a recipe in it (schema.org), a table (.csv), plain text, or a formula file of Pan Count. Nothing is fetched from the network.</FilePick>
    <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
    <Said tone="stop" v-if="earlier.error.value">{{ earlier.error.value.message }}</Said>
    <template v-if="earlier.data.value?.length">
      <h2>Taken in before</h2>
      <ul>
        <li v-for="head in earlier.data.value" :key="head.id">
          <RouterLink :to="{ name: 'take-in', params: { id: head.id } }">{{ nameOf(head) }}</RouterLink>
          <span class="quiet">{{ head.formula_id ? 'formula made' : 'open' }} · {{ when(head.changed_at) }}</span>
          <el-button text :aria-label="`Throw away ${nameOf(head)}`" @click="drop(head)">Throw away</el-button>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.earlier { display: grid; gap: 10px; align-content: start; padding: 16px 20px }
ol { margin: 0; padding-left: 20px; display: grid; gap: 6px }
ul { list-style: none; margin: 0; padding: 0 }
ul li { display: grid; grid-template-columns: 1fr auto auto; gap: 10px; align-items: center; border-top: 1px solid var(--rim-faint); min-height: 44px }
</style>
