<script setup lang="ts">
/** What the timetable weighs, in the order of what counts, each with what it could be at best; and how far the looking has come. */
import { computed } from 'vue'
import type { DayFigure, Timetable } from '@/api/client'
import { minutesText } from '@/base/times'

export interface FigureStripProps {
  timetable: Timetable | null
  looking: boolean
  stale: boolean
  couldBe: number
}
const props = defineProps<FigureStripProps>()
const emit = defineEmits<{ stop: []; again: [] }>()

const NEAR = 0.5
const text = (one: DayFigure, value: number) => (one.unit === 'min' ? minutesText(value) : String(Math.round(value)))
const shown = computed(() => (props.timetable?.figures ?? []).filter((one) => one.value >= NEAR || ['late', 'lies', 'span', 'oven'].includes(one.name)))
const leftOut = computed(() => (props.timetable?.products ?? []).filter((one) => !one.cleared).length)
const says = computed(() => {
  if (!props.timetable) return props.looking ? 'Laying it out …' : ''
  if (props.timetable.proven) return 'As good as can be: proven'
  return props.looking ? `Looking for better: ${props.couldBe} % at most` : `At most ${props.couldBe} % better can be`
})
</script>

<template>
  <div class="strip" :class="{ stale }">
    <dl>
      <div v-for="one in shown" :key="one.name" :title="one.value - one.at_best >= NEAR ? `No timetable of this day can be under ${text(one, one.at_best)}` : 'No timetable of this day can be under this'">
        <dt>{{ one.label }}</dt>
        <dd :class="one.name === 'late' && (one.value >= 1 || leftOut) ? 'late' : 'worked'">{{ one.name === 'late' && one.value < 1 ? (leftOut ? `${leftOut} without a place` : 'nobody') : text(one, one.value) }}<small v-if="one.value - one.at_best >= NEAR" class="quiet"> ≥ {{ text(one, one.at_best) }}</small></dd>
      </div>
    </dl>
    <div class="far">
      <p class="says" role="status"><span v-if="looking" class="turning" aria-hidden="true" />{{ says }}</p>
      <el-button v-if="looking" text title="Stop looking; the best so far stays" @click="emit('stop')">Stop</el-button>
      <el-button v-else-if="timetable && !timetable.proven" text @click="emit('again')">Look again</el-button>
    </div>
  </div>
</template>

<style scoped>
.strip { display: flex; flex-wrap: wrap; gap: 4px 14px; align-items: center; min-height: 44px }
.far { display: flex; gap: 4px; align-items: center; margin-left: auto }
.stale dd { opacity: .5 }
dl { display: flex; flex-wrap: wrap; gap: 4px 18px; margin: 0 }
dt { font-size: .8rem; color: var(--ink-2) }
dd { margin: 0; font-weight: 700; white-space: nowrap }
dd small { font-weight: 400; font-size: .8rem }
.late { color: var(--stop) }
.says { font-size: .92rem; font-weight: 600; color: var(--rim) }
.turning { display: inline-block; width: 10px; height: 10px; border-radius: 50%; border: 3px solid var(--rim-soft); border-top-color: var(--crust); margin-right: 7px; animation: turn 1s linear infinite }
@keyframes turn { to { transform: rotate(1turn) } }
</style>
