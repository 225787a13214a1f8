<script setup lang="ts">
/** Who is there, and when not; what the kitchen has and how warm it is that day. */
import { computed } from 'vue'
import AtField from './AtField.vue'
import type { Absence, Climate, Day, Kit } from '@/api/client'
import { dayName } from '@/base/dayTimes'
import type { Units } from '@/base/format'
import ClockField from '@/design/ClockField.vue'
import NumberBox from '@/design/NumberBox.vue'
import SelectField from '@/design/SelectField.vue'

export interface PeopleTrayProps {
  /** The day as it is kept; it is edited in place. */
  day: Day
  kit: Kit
  climate: Climate
  units: Units
}
const props = defineProps<PeopleTrayProps>()
const emit = defineEmits<{ step: [] }>()

const EVERY = 9
const BOTH = 9
const WHY = [{ value: 'asleep', label: 'asleep' }, { value: 'away', label: 'away' }] as const
const WARM = [{ name: 'room_c', label: 'Counter' }, { name: 'warm_c', label: 'Warm spot' }, { name: 'fridge_c', label: 'Fridge' }] as const
const HAS = [{ name: 'ovens', label: 'Ovens' }, { name: 'shelves', label: 'Oven shelves' }, { name: 'sheets', label: 'Sheets' }] as const
const days = computed(() => [{ value: EVERY, label: 'every day' }, ...[-3, -2, -1, 0].map((day) => ({ value: day, label: dayName(props.day.date, day) }))])
const whose = computed(() => [{ value: BOTH, label: 'both' }, ...props.day.bakers.map((name, n) => ({ value: n, label: name || `baker ${n + 1}` }))])
function change(one: Absence, what: Partial<Absence>): void {
  emit('step')
  Object.assign(one, what)
}
function add(): void {
  emit('step')
  props.day.absences = [...props.day.absences, { why: 'away', baker: null, begins_min: 14 * 60, ends_min: 15 * 60, day: -1 }]
}
function remove(one: Absence): void {
  emit('step')
  props.day.absences = props.day.absences.filter((other) => other !== one)
}
function second(): void {
  emit('step')
  if (props.day.bakers.length > 1) {
    props.day.bakers = props.day.bakers.slice(0, 1)
    props.day.absences = props.day.absences.filter((one) => one.baker !== 1).map((one) => ({ ...one, baker: null }))
  } else props.day.bakers = [...props.day.bakers, '']
}
</script>

<template>
  <section class="tray" aria-labelledby="people-head">
    <div class="tray-head"><h2 id="people-head">Hands, and the kitchen</h2><el-button text @click="second">{{ day.bakers.length > 1 ? 'One pair of hands' : 'A second pair of hands' }}</el-button></div>
    <div v-if="day.bakers.length > 1" class="names"><el-input v-for="(name, n) in day.bakers" :key="n" :model-value="name" :aria-label="`Name of baker ${n + 1}`" :placeholder="`Baker ${n + 1}`" maxlength="60" @input="(typed: string) => (day.bakers[n] = typed)" /></div>
    <ul>
      <li v-for="(one, n) in day.absences" :key="n" :class="{ two: day.bakers.length > 1 }">
        <SelectField v-if="day.bakers.length > 1" :value="one.baker ?? BOTH" :options="whose" :label="`Who is not there, ${n + 1}`" @choose="change(one, { baker: $event === BOTH ? null : $event })" />
        <SelectField :value="one.why" :options="WHY" :label="`Why not there, ${n + 1}`" @choose="change(one, { why: $event })" />
        <SelectField :value="one.day ?? EVERY" :options="days" :label="`On which day, ${n + 1}`" @choose="change(one, { day: $event === EVERY ? null : $event })" />
        <ClockField :value="one.begins_min" :label="`Not there from, ${n + 1}`" @change="$event !== null && change(one, { begins_min: $event })" />
        <ClockField :value="one.ends_min" :label="`Not there until, ${n + 1}`" @change="$event !== null && change(one, { ends_min: $event })" />
        <el-button text :aria-label="`Remove absence ${n + 1}`" @click="remove(one)">×</el-button>
      </li>
    </ul>
    <el-button text :disabled="day.absences.length >= 20" @click="add">Away for a while</el-button>
    <div class="fields">
      <label class="label">Nothing before<AtField :value="day.starts_min" :date="day.date" label="Nothing before" full @change="(emit('step'), (day.starts_min = $event))" /></label>
      <label v-for="{ name, label } in WARM" :key="name" class="label">{{ label }}<NumberBox :value="day[name] ?? climate[name]" :worked="day[name] == null" kind="celsius" :units="units" :label="`${label} that day`" with-unit @change="(emit('step'), (day[name] = $event))" /></label>
      <label v-for="{ name, label } in HAS" :key="name" class="label">{{ label }}<NumberBox :value="day[name] ?? kit[name] ?? 1" :worked="day[name] == null" kind="count" :units="units" :label="`${label} that day`" @change="(emit('step'), (day[name] = $event === null ? null : Math.max(1, Math.round($event))))" /></label>
    </div>
  </section>
</template>

<style scoped>
ul { list-style: none; margin: 0 0 6px; padding: 0; display: grid; gap: 6px; max-width: 640px }
li { display: grid; grid-template-columns: 1fr 1fr 66px 66px 30px; gap: 5px; align-items: center }
li.two { grid-template-columns: 1fr 1fr 1fr 60px 60px 30px }
.names { display: grid; grid-template-columns: 1fr 1fr; gap: 8px; margin-bottom: 8px }
.fields { display: grid; grid-template-columns: repeat(auto-fill, minmax(104px, 1fr)); gap: 8px; margin-top: 8px; align-items: end }
</style>
