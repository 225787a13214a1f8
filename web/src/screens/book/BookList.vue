<script setup lang="ts">
/** Bakes as a list: photo, when, how it came out, the figures that one looks for. */
import BunScore from './BunScore.vue'
import { photoAddress } from './photos'
import { dayText, grams, share, signed, timeText } from './words'
import type { BookHead } from '@/api/client'
import type { Units } from '@/base/format'

export interface BookListProps {
  bakes: readonly BookHead[]
  chosen: readonly string[]
  units: Units
}
const props = defineProps<BookListProps>()
const emit = defineEmits<{ choose: [bake: string] }>()
const ENDS: Record<string, string> = { stopped: 'stopped', thrown_away: 'thrown away', running: 'at the bench again', paused: 'at the bench again' }
const facts = (one: BookHead): string[] =>
  [
    one.numbers.piece_g == null ? '' : `${one.numbers.pieces} × ${grams(one.numbers.piece_g, props.units)}`,
    one.numbers.bake_loss == null ? '' : `${share(one.numbers.bake_loss)} baking loss`,
    Math.abs(one.numbers.water_added_g) >= 1 ? `${signed(Math.round(one.numbers.water_added_g), 'g')} water` : '',
    one.way,
    one.written ? 'written in' : '',
    ENDS[one.status] ?? '',
  ].filter(Boolean)
</script>

<template>
  <section class="tray" aria-label="Bakes">
    <ul>
      <li v-for="one in bakes" :key="one.id" :class="{ on: chosen.includes(one.id) }">
        <el-checkbox :model-value="chosen.includes(one.id)" :disabled="!chosen.includes(one.id) && chosen.length >= 4" :aria-label="`Choose ${one.name}, ${dayText(one.begun_at)}`" @change="emit('choose', one.id)" />
        <RouterLink class="pic" :to="{ name: 'book-bake', params: { id: one.id } }" tabindex="-1" aria-hidden="true"><img v-if="one.photo" :src="photoAddress(one.photo, true)" alt="" loading="lazy" /><span v-else class="none" /></RouterLink>
        <div class="what">
          <RouterLink class="name" :to="{ name: 'book-bake', params: { id: one.id } }">{{ one.name || 'Formula without a name' }}</RouterLink>
          <span class="quiet">{{ facts(one).join(' · ') }}</span>
          <span v-if="one.words" class="words">{{ one.words }}</span>
        </div>
        <span class="when"><b>{{ dayText(one.begun_at) }}</b><small class="quiet">{{ timeText(one.begun_at) }}{{ one.revision ? `, revision ${one.revision}` : '' }}</small></span>
        <BunScore v-if="one.numbers.score != null" class="score" :score="one.numbers.score" /><span v-else class="score quiet">no scores</span>
      </li>
      <li v-if="!bakes.length" class="quiet empty">Nothing like that in the book.</li>
    </ul>
  </section>
</template>

<style scoped>
ul { list-style: none; margin: 0; padding: 0 }
li { display: grid; grid-template-columns: 28px 64px minmax(0, 1fr) 150px 130px; gap: 4px 12px; align-items: center; min-height: 76px; border-top: 1px solid var(--rim-faint); padding: 5px 0 }
li:first-child { border-top: 0 }
.on { background: var(--crust-soft); margin-inline: calc(-1 * var(--side)); padding-inline: var(--side) }
.pic img, .none { display: block; width: 64px; height: 64px; object-fit: cover; border-radius: 10px; border: 1px solid var(--rim-soft) }
.none { border-style: dashed; border-color: var(--rim-faint) }
.what { display: grid; gap: 1px; min-width: 0 }
.name { font: 700 1.05rem var(--head) }
.words { overflow: hidden; text-overflow: ellipsis; white-space: nowrap }
.when { display: grid }
.score { justify-self: end }
.empty { display: block; padding: 20px 0; min-height: 0 }
@media (max-width: 760px) { li { grid-template-columns: 28px 64px minmax(0, 1fr) } .when { grid-column: 3; display: flex; gap: 8px } .score { grid-column: 3; justify-self: start } }
</style>
