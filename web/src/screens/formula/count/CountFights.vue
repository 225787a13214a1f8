<script setup lang="ts">
/** Pins that cannot hold together: which, and what each would be if it alone were let go. */
import { lowerFirst } from '@/screens/formula/lines/lines'
import { figureOf, labelOf } from '@/screens/formula/working/workings'
import type { Count, Fight, Formula } from '@/api/client'
import type { Units } from '@/base/format'

export interface CountFightsProps {
  fights: readonly Fight[]
  formula: Formula
  count: Count
  units: Units
}
const props = defineProps<CountFightsProps>()
const emit = defineEmits<{ release: [pin: string] }>()

const figure = (name: string, value: number) => figureOf(name, value, props.formula, props.count, props.units)
function told(fight: Fight): string {
  const pins = fight.alternatives.map((a) => `${lowerFirst(labelOf(a.pin, props.count, props.units.reference))} ${figure(a.pin, a.pinned)}`)
  const all = `${pins.slice(0, -1).join(', ')}${pins.length > 1 ? ' and ' : ''}${pins.at(-1)} cannot all hold.`
  return all.charAt(0).toUpperCase() + all.slice(1)
}
</script>

<template>
  <div v-for="(fight, i) in fights" :key="i" class="said stop fights" role="alert">
    <p><strong>These pins fight</strong>{{ told(fight) }} {{ units.reference.relations[fight.relation]?.says }} Let one go:</p>
    <button v-for="a in fight.alternatives" :key="a.pin" type="button" class="button" @click="emit('release', a.pin)">
      {{ labelOf(a.pin, count, units.reference) }}
      <span v-if="a.gives !== null" class="worked">becomes {{ figure(a.pin, a.gives) }}</span>
      <span v-else class="quiet">another fight stays</span>
    </button>
  </div>
</template>

<style scoped>
.fights { margin-top: 8px; display: grid; gap: 6px }
.button { white-space: normal; justify-content: space-between; flex-wrap: wrap }
</style>
