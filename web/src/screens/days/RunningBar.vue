<script setup lang="ts">
/** The day is running: what time it is, what would move from what was told, and what that costs, before it is taken. */
import { computed } from 'vue'
import AtField from './AtField.vue'
import type { Day, Timetable } from '@/api/client'
import { atText } from '@/base/dayTimes'
import { minutesText } from '@/base/times'
import Said from '@/design/Said.vue'

export interface RunningBarProps {
  day: Day
  timetable: Timetable | null
  /** The timetable that the baker goes by, as it was when it was taken; null where that was not in this window. */
  before: Timetable | null
  looking: boolean
  stale: boolean
}
const props = defineProps<RunningBarProps>()
const emit = defineEmits<{ now: [at: number | null]; take: []; stop: [] }>()

const moved = computed(() => props.timetable?.moved ?? [])
const LEAST = 1
const costs = computed(() => {
  const now = props.timetable?.figures ?? []
  const was = new Map((props.before?.figures ?? []).map((one) => [one.name, one.value]))
  return now.flatMap((one) => {
    const old = was.get(one.name)
    if (old === undefined || Math.abs(one.value - old) < LEAST) return []
    const by = one.unit === 'min' ? minutesText(Math.abs(one.value - old)) : String(Math.abs(Math.round(one.value - old)))
    return [`${one.label.toLowerCase()} ${by} ${one.value > old ? 'more' : 'less'}`]
  })
})
const late = computed(() => (props.timetable?.products ?? []).filter((one) => one.late_min >= LEAST).map((one) => `${one.name} ${minutesText(one.late_min)} late`))
const nameOf = (n: number) => props.timetable?.products[n]?.name ?? ''
</script>

<template>
  <Said tone="now" class="running">
    <div class="line">
      <strong>The day is running.</strong>
      <label class="label now">Now<AtField :value="day.now_min" :date="day.date" label="What time it is" full @change="emit('now', $event)" /></label>
      <el-button text @click="emit('stop')">Not yet: plan it anew</el-button>
    </div>
    <template v-if="timetable">
      <p v-if="!moved.length">Nothing moves from what you were told.</p>
      <template v-else>
        <p><b>{{ moved.length }} {{ moved.length === 1 ? 'thing moves' : 'things move' }}.</b> {{ [...late, ...costs].join('; ') || 'It costs nothing.' }}</p>
        <ul><li v-for="one in moved" :key="`${one.product}.${one.step}`">{{ nameOf(one.product) }}, {{ one.label }}: <s>{{ atText(day.date, one.from_min) }}</s> <b class="worked">{{ atText(day.date, one.to_min) }}</b></li></ul>
        <div class="row"><el-button type="primary" :disabled="looking || stale" @click="emit('take')">Take it</el-button></div>
      </template>
    </template>
  </Said>
</template>

<style scoped>
.line { display: flex; flex-wrap: wrap; gap: 10px; align-items: center }
.now { grid-template-columns: auto 110px; align-items: center }
ul { display: grid; grid-template-columns: repeat(auto-fill, minmax(320px, 1fr)); gap: 0 24px; margin: 4px 0 !important; max-height: 132px; overflow-y: auto }
</style>
