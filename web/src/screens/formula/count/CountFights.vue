<script setup lang="ts">
/** Pins that cannot hold together: which, and what each would be if it alone were let go. */
import { lowerFirst } from '@/screens/formula/lines/lines'
import { figureOf, labelOf } from '@/screens/formula/working/words'
import type { Count, Fight, Formula } from '@/api/client'
import { upper, type Units } from '@/base/format'
import Said from '@/design/Said.vue'

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
  return upper(all)
}
</script>

<template>
  <Said tone="stop" v-for="(fight, i) in fights" :key="i" class="fights">
    <p><strong>These pins fight</strong>{{ told(fight) }} {{ units.reference.relations[fight.relation]?.says }} Let one go:</p>
    <el-button v-for="a in fight.alternatives" :key="a.pin" @click="emit('release', a.pin)">
      {{ labelOf(a.pin, count, units.reference) }}
      <span v-if="a.gives !== null" class="worked">becomes {{ figure(a.pin, a.gives) }}</span>
      <span v-else class="quiet">another fight stays</span>
    </el-button>
  </Said>
</template>

<style scoped>
.fights { margin-top: 8px; display: grid; gap: 6px }
.el-button { white-space: normal; width: 100%; margin-top: 6px }
.el-button :deep(> span) { flex: 1; display: flex; flex-wrap: wrap; justify-content: space-between }
</style>
