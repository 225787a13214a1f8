<script setup lang="ts">
/** The day in order: what needs hands when, the next thing large. For the phone in the pocket, and whoever reads rather than looks. */
import { computed } from 'vue'
import { blocksOf } from '@/drawings/dayRows'
import type { Timetable } from '@/api/client'
import { clockOnly, dayName, dayOf } from '@/base/dayTimes'
import { minutesText } from '@/base/times'

export interface DayListProps {
  timetable: Timetable
  date: string
  open: number
  now: number | null
}
const props = defineProps<DayListProps>()
const emit = defineEmits<{ pick: [block: number] }>()

const lines = computed(() =>
  blocksOf(props.timetable).map((one) => {
    const gap = props.timetable.giving.find((own) => own.before === one.block && own.steps.length > 0 && own.after !== one.block)
    const happened = one.doings.every((own) => own.happened)
    return { ...one, happened, then: gap ? `${gap.label}, ${minutesText(gap.ends_min - gap.begins_min)}` : '' }
  }),
)
const next = computed(() => lines.value.find((one) => !one.happened && (props.now === null || one.from >= props.now - 1))?.block ?? -1)
const isNewDay = (n: number) => n === 0 || dayOf(lines.value[n]?.from ?? 0) !== dayOf(lines.value[n - 1]?.from ?? 0)
</script>

<template>
  <ol class="list">
    <template v-for="(one, n) in lines" :key="one.block">
      <li v-if="isNewDay(n)" class="day">{{ dayName(date, dayOf(one.from)) }}</li>
      <li :class="{ next: one.block === next, open: one.block === open, happened: one.happened }">
        <button type="button" :aria-current="one.block === next ? 'step' : undefined" @click="emit('pick', one.block)">
          <b class="at">{{ clockOnly(one.from) }}</b>
          <span class="what"><b>{{ timetable.products[one.product]?.name }}</b> {{ one.label }}<small v-if="one.then" class="quiet"> then {{ one.then }}</small></span>
          <span class="quiet">{{ minutesText(one.to - one.from) }}</span>
        </button>
      </li>
    </template>
  </ol>
</template>

<style scoped>
.list { list-style: none; margin: 0; padding: 0 }
.day { font: 700 1.05rem var(--head); color: var(--rim); padding: 10px 0 2px; border-bottom: 2px solid var(--rim) }
button { display: grid; grid-template-columns: 62px 1fr auto; gap: 8px; width: 100%; min-height: 46px; align-items: center; text-align: left; background: none; border: 0; border-bottom: 1px solid var(--rim-faint); cursor: pointer; padding: 4px 0 }
.at { color: var(--crust); font-size: 1.1rem }
.next button { background: var(--crust-soft); border-radius: 10px; padding: 12px 10px; font-size: 1.25rem }
.next .at { font-size: 1.6rem }
.open button { outline: 2px solid var(--crust); border-radius: 8px }
.happened { opacity: .55 }
small { display: block }
</style>
