<script setup lang="ts">
/** What would help, or what else would be good: each one press, and undone by one. */
import type { Offer } from '@/api/client'
import { minutesText } from '@/base/times'
import Said from '@/design/Said.vue'

export interface OfferListProps {
  offers: readonly Offer[]
  kind: 'reliefs' | 'others'
  /** What the day asks for is being asked anew, so these may not fit it. */
  stale: boolean
  looking: boolean
}
defineProps<OfferListProps>()
const emit = defineEmits<{ take: [offer: Offer] }>()
</script>

<template>
  <Said v-if="kind === 'reliefs'" tone="stop">
    <strong>Not everything can be ready as you wish.</strong>
    <template v-if="offers.length">These wishes fight. Let one of them go:</template>
    <template v-else-if="looking">What would help is being worked out …</template>
    <template v-else>No single wish that could be let go would help.</template>
    <ul>
      <li v-for="offer in offers" :key="offer.wish"><el-button :disabled="stale" @click="emit('take', offer)">{{ offer.wish }}</el-button> <span>{{ offer.gives }}<template v-if="offer.late_min && !offer.gives.includes('late')">, {{ minutesText(offer.late_min) }} late</template></span></li>
    </ul>
  </Said>
  <section v-else-if="offers.length" class="others" aria-label="Other good timetables">
    <h3>Other good timetables</h3>
    <ul>
      <li v-for="offer in offers" :key="offer.wish"><el-button :disabled="stale" @click="emit('take', offer)">{{ offer.wish }}</el-button> <span class="quiet">{{ offer.gives }}</span></li>
    </ul>
  </section>
</template>

<style scoped>
ul { list-style: none; margin: 6px 0 0; padding: 0 !important; display: grid; gap: 6px }
li { display: flex; flex-wrap: wrap; gap: 4px 12px; align-items: center }
li :deep(.el-button) { white-space: normal; height: auto; min-height: 36px; text-align: left }
h3 { font-size: 1rem; color: var(--rim) }
</style>
