<script setup lang="ts">
/** A bake in the book: as it was meant beside as it was, and what it came to. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import FiguresPart from './FiguresPart.vue'
import LayPart from './LayPart.vue'
import LinesPart from './LinesPart.vue'
import OutcomeFields from './OutcomeFields.vue'
import PhotosPart from './PhotosPart.vue'
import TellMore from './TellMore.vue'
import { useOutcome } from './useOutcome'
import { dayText, timeText } from './words'
import { api, ask } from '@/api/client'
import { takeOut } from '@/api/file'
import { useUnits } from '@/base/kitchen'
import { useAttempt } from '@/base/useAttempt'
import KeptHere from '@/design/KeptHere.vue'
import LinkButton from '@/design/LinkButton.vue'
import OtherWindow from '@/design/OtherWindow.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import Said from '@/design/Said.vue'
import PlannedReal from '@/drawings/PlannedReal.vue'

const route = useRoute()
const cache = useQueryClient()
const { units } = useUnits()
const id = computed(() => String(route.params.id))
const page = useQuery({ queryKey: computed(() => ['book', 'bake', id.value]), queryFn: () => ask(api.GET('/api/book/bakes/{bake_id}', { params: { path: { bake_id: id.value } } })) })
const entry = computed(() => page.data.value?.entry)
const record = computed(() => entry.value?.record)
const again = () => cache.invalidateQueries({ queryKey: ['book'] })
const outcome = useOutcome(() => void again())
watch(id, (now) => void outcome.open(now), { immediate: true })
const { refused, attempt } = useAttempt()
const changes = useQuery({
  queryKey: computed(() => ['bake', id.value, 'changes']),
  enabled: computed(() => Boolean(record.value?.changed.length && entry.value?.formula_id)),
  queryFn: async () => (await ask(api.GET('/api/bakes/{bake_id}', { params: { path: { bake_id: id.value } } }))).bake.changes,
})
const more = ref(false)
const ENDS: Record<string, string> = { stopped: 'stopped', thrown_away: 'thrown away' }
const subtitle = computed(() => {
  const own = record.value
  if (!own || !entry.value) return ''
  return [`${dayText(own.begun_s)}, ${timeText(own.begun_s)}${own.ended_s == null || own.written ? '' : ` to ${timeText(own.ended_s)}`}`, own.way, entry.value.revision && `revision ${entry.value.revision}`, own.written && 'written in by hand', ENDS[own.status]].filter(Boolean).join(' · ')
})
const pieces = computed(() => record.value?.targets.reduce((sum, one) => sum + one.pieces, 0) ?? 0)
const out = (ending: string) => attempt(() => takeOut(`/api/book/bakes/${id.value}/bake.${ending}`))
const KEEPING: Record<string, string> = { kept: 'kept', keeping: 'keeping …', away: 'not kept yet', behind: 'changed elsewhere' }
</script>

<template>
  <main class="page">
    <Said v-if="page.error.value && !page.data.value" tone="stop"><strong>This bake cannot be shown</strong>{{ page.error.value.message }}<div class="row"><el-button @click="page.refetch()">Try again</el-button><LinkButton :to="{ name: 'book' }">The book</LinkButton></div></Said>
    <el-skeleton v-else-if="!record || !units || !outcome.loaded.value" :rows="8" animated aria-label="Fetching the bake" />
    <template v-else>
      <div class="page-head">
        <div><h1>{{ record.name || 'Formula without a name' }}</h1><p class="quiet">{{ subtitle }}</p></div>
        <span class="spacer" />
        <span class="top quiet" role="status">{{ KEEPING[outcome.keeping.value] }}</span>
        <el-button @click="more = true">Tell more of it</el-button>
        <LinkButton v-if="entry?.formula_id" :to="{ name: 'bench', query: { again: id } }">Bake it again</LinkButton>
        <LinkButton :to="{ name: 'book', query: { with: id } }">Put beside …</LinkButton>
        <el-dropdown trigger="click" @command="out">
          <el-button>Out</el-button>
          <template #dropdown><el-dropdown-menu><a :href="`/api/book/bakes/${id}/card.pdf`" target="_blank" class="plain-item">Bake card (PDF)</a><el-dropdown-item command="json">File (JSON)</el-dropdown-item><el-dropdown-item command="csv">Table (CSV)</el-dropdown-item></el-dropdown-menu></template>
        </el-dropdown>
      </div>
      <div class="tellings">
        <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
        <OtherWindow v-if="outcome.keeping.value === 'behind'" what="bake" :ours="outcome.texts.value.ours" :theirs="outcome.texts.value.theirs" @mine="outcome.keepMine()" @theirs="outcome.takeTheirs()" both="Keep both: all scores and words" @both="outcome.keepJoined()" />
        <KeptHere v-if="outcome.keeping.value === 'away'" :why="outcome.why.value" />
      </div>
      <section class="tray times" aria-labelledby="times-head">
        <div class="tray-head"><h2 id="times-head">Times</h2><span class="quiet">planned above, as it was below; long waits drawn short</span></div>
        <PlannedReal :steps="record.steps" :begun-s="record.begun_s" :ended-s="record.ended_s ?? null" />
      </section>
      <div class="columns">
        <div class="was">
          <LinesPart :record="record" :units="units" />
          <FiguresPart :record="record" :units="units" />
        </div>
        <div class="came">
          <section class="tray" aria-labelledby="came-head">
            <div class="tray-head"><h2 id="came-head">What it came to</h2></div>
            <OutcomeFields v-model="outcome.outcome.value" :scales="page.data.value?.scales ?? []" :pieces="pieces" :several="record.targets.length > 1" :units="units" />
          </section>
          <PhotosPart :bake="id" :photos="page.data.value?.photos ?? []" :name="record.name" @changed="again()" />
          <section v-if="page.data.value?.habit || record.changed.length" class="tray next" aria-labelledby="next-head">
            <div class="tray-head"><h2 id="next-head">For the next revision</h2></div>
            <template v-if="page.data.value?.habit">
              <p><b>{{ page.data.value.habit.says }}</b></p>
              <LayPart v-if="page.data.value.habit.formula && entry?.formula_id" :formula-id="entry.formula_id" :formula="page.data.value.habit.formula" :says="`It lies on the desk. For the revision’s note: ${page.data.value.habit.note}.`" />
            </template>
            <template v-if="record.changed.length">
              <h3>This time</h3>
              <ul><li v-for="(line, n) in record.changed" :key="n">{{ line }}</li></ul>
              <LayPart v-if="changes.data.value?.formula && entry?.formula_id" :formula-id="entry.formula_id" :formula="changes.data.value.formula" label="Lay this on the desk" says="What was changed at the bench lies on the desk. Save it as a revision when you like it." />
            </template>
          </section>
          <section v-if="page.data.value?.tastings.length" class="tray" aria-labelledby="tasted-head">
            <div class="tray-head"><h2 id="tasted-head">Tasted blind</h2></div>
            <p v-for="one in page.data.value.tastings" :key="one.id"><RouterLink :to="{ name: 'taste', params: { id: one.id } }">{{ dayText(one.begun_at) }}</RouterLink> <template v-if="one.is_open">as {{ one.letter }}: {{ one.score == null ? 'no scores' : `${Number(one.score.toFixed(1))} of 5` }}, best for {{ one.liked }} of {{ one.tasters }}. {{ one.says }}</template><template v-else>by {{ one.tasters }} so far, not opened</template></p>
          </section>
        </div>
      </div>
      <TellMore v-model="more" :bake="id" :record="record" :units="units" @told="again()" />
    </template>
  </main>
</template>

<style scoped>
.times { margin-bottom: 14px }
.columns { display: grid; gap: 14px; grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr); align-items: start }
.was, .came { display: grid; gap: 14px }
.next { display: grid; gap: 8px }
.next ul { margin: 0; padding-left: 20px }
.plain-item { display: block; padding: 8px 16px; text-decoration: none }
.page-head .quiet { margin-top: 2px }
@media (max-width: 900px) { .columns { grid-template-columns: minmax(0, 1fr) } .came { order: -1 } }
</style>
