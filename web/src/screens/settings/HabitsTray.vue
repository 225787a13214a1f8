<script setup lang="ts">
/** How this kitchen measures: the answers it gave when a recipe was taken in, and its own cups as weighed. */
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask, type Habits, type WeighedCup } from '@/api/client'
import { when, withUnit } from '@/base/format'
import { useCups, useUnits } from '@/base/kitchen'
import { tell } from '@/base/notice'

export interface HabitsTrayProps {
  habits: Habits
}
const props = defineProps<HabitsTrayProps>()
const emit = defineEmits<{
  /** An answer was changed; null leaves it open. */
  change: [key: keyof Habits, value: string | null]
}>()

const cache = useQueryClient()
const { units } = useUnits()
const cups = useCups()
const questions = computed(() => Object.values(units.value?.reference.questions ?? {}))
const answer = (key: string) => props.habits[key as keyof Habits] ?? ''
const label = (cup: WeighedCup) => units.value?.reference.measures[cup.weighing.measure]?.label ?? cup.weighing.measure
const refresh = () => cache.invalidateQueries({ queryKey: ['cups'] })

async function forget(cup: WeighedCup): Promise<void> {
  await ask(api.DELETE('/api/cups/{cup_id}', { params: { path: { cup_id: cup.id } } }))
  await refresh()
  tell(`Forgot that ${label(cup)} of ${cup.weighing.ingredient}.`, async () => {
    await ask(api.POST('/api/cups', { body: cup.weighing }))
    await refresh()
  })
}
</script>

<template>
  <section v-if="units" class="tray habits answers">
    <h2>How this kitchen measures</h2>
    <label v-for="question in questions" :key="question.key" class="label">{{ question.asks }}
      <select class="field" :value="answer(question.key)" @change="emit('change', question.key as keyof Habits, ($event.target as HTMLSelectElement).value || null)">
        <option value="">not said yet</option>
        <option v-for="(words, option) in question.options" :key="option" :value="option">{{ words }}</option>
      </select>
    </label>
  </section>
  <section v-if="units" class="tray habits">
    <h2>Your cups and spoons, weighed</h2>
    <p v-if="!cups.data.value?.length" class="quiet">None yet. Weigh one where a recipe is taken in, and it narrows every line that is measured so.</p>
    <ul v-else>
      <li v-for="cup in cups.data.value" :key="cup.id">
        <span><b>{{ cup.weighing.ingredient }}</b>, one {{ label(cup) }}{{ cup.weighing.way ? `, ${cup.weighing.way}` : '' }}: <b class="worked">{{ withUnit(cup.weighing.weight_g / cup.weighing.count, 'g', units) }}</b><br /><small class="quiet">{{ cup.weighing.count }} came to {{ withUnit(cup.weighing.weight_g, 'g', units) }} · {{ when(cup.weighed_at) }}</small></span>
        <button type="button" class="button bare" :aria-label="`Forget this ${label(cup)} of ${cup.weighing.ingredient}`" @click="forget(cup)">Forget</button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.habits { display: grid; gap: 12px; align-content: start }
.answers { grid-template-columns: repeat(auto-fit, minmax(min(230px, 100%), 1fr)); grid-column: span 2 }
.answers h2 { grid-column: 1 / -1 }
@media (max-width: 860px) { .answers { grid-column: auto } }
ul { list-style: none; margin: 0; padding: 0 }
li { display: flex; justify-content: space-between; align-items: center; gap: 10px; border-top: 1px solid var(--rim-faint); padding: 6px 0 }
</style>
