<script setup lang="ts">
/** A month of bakes, day by day. */
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import type { SoughtFor } from './useBook'
import { monthText } from './words'
import { api, ask, type BookPage, type BookPoint } from '@/api/client'

export interface BookCalendarProps {
  sought: SoughtFor
  months: BookPage['months']
}
const props = defineProps<BookCalendarProps>()
const emit = defineEmits<{ month: [month: string] }>()
const month = computed(() => props.sought.month ?? props.months[0]?.month ?? new Date().toISOString().slice(0, 7))
const points = useQuery({
  queryKey: computed(() => ['book', 'points', { ...props.sought, month: month.value }]),
  queryFn: () => ask(api.GET('/api/book/points', { params: { query: { ...props.sought, month: month.value } } })),
})
const WEEK = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const
const days = computed(() => {
  const [year = 2000, own = 1] = month.value.split('-').map(Number)
  const first = new Date(year, own - 1, 1)
  const ahead = (first.getDay() + 6) % 7
  const has = new Map<number, BookPoint[]>()
  for (const one of points.data.value ?? []) {
    // Where this device's clock is another than the kitchen's, a bake at the edge of the month stays in it.
    const at = new Date(one.begun_at)
    const day = at.getMonth() === own - 1 ? at.getDate() : at < first ? 1 : new Date(year, own, 0).getDate()
    has.set(day, [...(has.get(day) ?? []), one])
  }
  const length = new Date(year, own, 0).getDate()
  return [...Array<null>(ahead).fill(null), ...Array.from({ length }, (_, n) => ({ day: n + 1, bakes: has.get(n + 1) ?? [] }))]
})
function step(by: number): void {
  const [year = 2000, own = 1] = month.value.split('-').map(Number)
  const at = new Date(year, own - 1 + by, 15)
  emit('month', `${at.getFullYear()}-${String(at.getMonth() + 1).padStart(2, '0')}`)
}
</script>

<template>
  <section class="tray" aria-labelledby="month-head">
    <div class="tray-head"><el-button aria-label="The month before" @click="step(-1)">‹</el-button><h2 id="month-head" aria-live="polite">{{ monthText(month) }}</h2><el-button aria-label="The month after" @click="step(1)">›</el-button></div>
    <ol class="week" aria-hidden="true"><li v-for="day in WEEK" :key="day" class="quiet">{{ day }}</li></ol>
    <ol class="days">
      <li v-for="(one, n) in days" :key="n" :class="{ none: !one, baked: one?.bakes.length }">
        <template v-if="one">
          <span class="day">{{ one.day }}</span>
          <RouterLink v-for="bake in one.bakes.slice(0, 4)" :key="bake.bake" :to="{ name: 'book-bake', params: { id: bake.bake } }" :title="bake.name">{{ bake.name || 'Formula without a name' }}<b v-if="bake.numbers.score != null" class="score">{{ bake.numbers.score.toFixed(1) }}</b></RouterLink>
          <small v-if="one.bakes.length > 4" class="quiet">and {{ one.bakes.length - 4 }} more</small>
        </template>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol { list-style: none; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(7, minmax(0, 1fr)); gap: 4px }
.week li { text-align: center }
.days li { min-height: 74px; border: 1px solid var(--rim-faint); border-radius: 8px; padding: 3px 6px; display: grid; align-content: start; gap: 2px; font-size: .85rem }
.days .none { border-color: transparent }
.baked { border-color: var(--rim-soft); background: color-mix(in srgb, var(--dough) 40%, transparent) }
.score { margin-left: 6px }
.day { font-weight: 650; color: var(--ink-2) }
.days a { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; min-height: 22px; line-height: 22px; text-decoration: none }
@media (max-width: 760px) { .days a { white-space: normal; line-height: 1.2 } .days li { padding: 2px; min-height: 54px } }
</style>
