<script setup lang="ts">
/** Today: when it begins or is to be ready, and how warm the kitchen is; the whole of the way beside it. */
import { computed } from 'vue'
import type { Climate, Count, Method } from '@/api/client'
import { DAY, minutesText, NEAR_MIN, spanText } from '@/base/times'
import type { Units } from '@/base/format'
import ClockField from '@/design/ClockField.vue'
import NumberBox from '@/design/NumberBox.vue'
import OpenWorking from '@/design/OpenWorking.vue'

export interface TodayBarProps {
  /** The desk's own; it is edited in place. */
  count: Count
  method: Method | null
  climate: Climate
  units: Units
}
const props = defineProps<TodayBarProps>()
const emit = defineEmits<{ working: [opened: string] }>()

const WARM = [
  { name: 'room_c', label: 'Counter' },
  { name: 'warm_c', label: 'Warm spot' },
  { name: 'fridge_c', label: 'Fridge' },
  { name: 'flour_c', label: 'Flour' },
] as const
const today = computed(() => props.count.today)
const usual = (name: (typeof WARM)[number]['name']) => props.climate[name] ?? today.value.room_c ?? props.climate.room_c
const firstDay = computed(() => Math.floor((props.method?.begins_min ?? 0) / DAY))
const spare = computed(() => {
  const minutes = props.method?.spare_min
  if (minutes == null) return ''
  if (Math.abs(minutes) < NEAR_MIN) return 'just so'
  return minutes > 0 ? `${minutesText(minutes)} to spare` : `${minutesText(-minutes)} too long for that`
})
</script>

<template>
  <div class="today">
    <label class="label">Begin<ClockField :value="today.begins_min" :worked="method?.begins_min" :first-day="firstDay" label="Begin at" @change="today.begins_min = $event" /></label>
    <label class="label">Ready<ClockField :value="today.ready_min" :worked="method?.ready_min" :first-day="firstDay" label="Ready at" @change="today.ready_min = $event" /></label>
    <label v-for="{ name, label } in WARM" :key="name" class="label">{{ label }}<NumberBox :value="today[name] ?? usual(name)" :worked="today[name] == null" kind="celsius" :units="units" :label="`${label} today`" with-unit @change="today[name] = $event" /></label>
    <div v-if="method" class="whole" role="status"><dl class="figures">
      <div><dt>The whole</dt><dd><OpenWorking name="method:whole" :label="`The whole of it: ${minutesText(method.usual_min)}.`" @open="emit('working', $event)">{{ minutesText(method.usual_min) }}</OpenWorking> <small class="quiet">{{ spanText(method.low_min, method.high_min) }}</small></dd></div>
      <div><dt>By hand</dt><dd class="worked">{{ minutesText(method.hands_min) }} <small class="quiet">in {{ method.touches }} goes</small></dd></div>
      <div v-if="spare"><dt>By the clock</dt><dd class="worked" :class="{ late: (method.spare_min ?? 0) < -NEAR_MIN }">{{ spare }}</dd></div>
    </dl></div>
  </div>
</template>

<style scoped>
.today { display: flex; flex-wrap: wrap; gap: 8px 12px; align-items: end }
.today > .label { flex: 0 1 104px }
.whole { margin: 0 0 2px auto }
.figures { display: flex; flex-wrap: wrap; gap: 4px 22px; margin: 0 }
dt { font-size: .85rem; color: var(--ink-2) }
dd { margin: 0; font-weight: 700; font-size: 1.12rem; white-space: nowrap }
dd small { font-weight: 400 }
.late { color: var(--stop) }
@media (max-width: 760px) { .today > .label { flex: 1 1 29% } .whole { margin-left: 0 } }
</style>
