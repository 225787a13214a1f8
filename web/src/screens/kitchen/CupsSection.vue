<script setup lang="ts">
/** The kitchen's own cups and spoons, as they were weighed. */
import { useQueryClient } from '@tanstack/vue-query'
import { api, ask, type WeighedCup } from '@/api/client'
import { when, withUnit, type Units } from '@/base/format'
import { useCups } from '@/base/kitchen'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import RefusedNote from '@/design/RefusedNote.vue'

export interface CupsSectionProps {
  units: Units
}
const props = defineProps<CupsSectionProps>()

const cache = useQueryClient()
const cups = useCups()
const label = (cup: WeighedCup) => props.units.reference.measures[cup.weighing.measure]?.label ?? cup.weighing.measure
const refresh = () => cache.invalidateQueries({ queryKey: ['cups'] })
const { refused, attempt } = useAttempt()

const forget = (cup: WeighedCup) =>
  attempt(async () => {
    await ask(api.DELETE('/api/cups/{cup_id}', { params: { path: { cup_id: cup.id } } }))
    await refresh()
    tell(`Forgot that ${label(cup)} of ${cup.weighing.ingredient}.`, () => attempt(async () => {
      await ask(api.POST('/api/cups', { body: cup.weighing }))
      await refresh()
    }))
  })
</script>

<template>
  <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
  <p v-if="!cups.data.value?.length" class="quiet">None yet. Weigh one where a recipe is taken in, and it narrows every line that is measured so.</p>
  <ul v-else>
    <li v-for="cup in cups.data.value" :key="cup.id">
      <span><b>{{ cup.weighing.ingredient }}</b>, one {{ label(cup) }}{{ cup.weighing.way ? `, ${cup.weighing.way}` : '' }}: <b class="worked">{{ withUnit(cup.weighing.weight_g / cup.weighing.count, 'g', units) }}</b><br /><small class="quiet">{{ cup.weighing.count }} came to {{ withUnit(cup.weighing.weight_g, 'g', units) }} · {{ when(cup.weighed_at) }}</small></span>
      <el-button text :aria-label="`Forget this ${label(cup)} of ${cup.weighing.ingredient}`" @click="forget(cup)">Forget</el-button>
    </li>
  </ul>
</template>

<style scoped>
ul { list-style: none; margin: 0; padding: 0 }
li { display: flex; justify-content: space-between; align-items: center; gap: 10px; border-top: 1px solid var(--rim-faint); padding: 6px 0 }
</style>
