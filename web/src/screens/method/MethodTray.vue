<script setup lang="ts">
/** The method beside the formula: its ways, the strip of time and the steps; all else of it stands on its own page. */
import { ref, toRef } from 'vue'
import ReadMethod from './ReadMethod.vue'
import StepList from './StepList.vue'
import { useMethod } from './useMethod'
import WayTabs from './WayTabs.vue'
import type { Formula, Known } from '@/api/client'
import type { Units } from '@/base/format'
import { minutesText, spanText } from '@/base/times'
import LinkButton from '@/design/LinkButton.vue'
import Said from '@/design/Said.vue'
import TimeStrip from '@/drawings/TimeStrip.vue'
import type { Desk } from '@/screens/formula/desk/useDesk'

export interface MethodTrayProps {
  /** What lies on the desk, or the revision being read; it is edited in place. */
  desk: Desk
  /** Its number in the records; null before it is kept. */
  id: number | null
  known: Known
  units: Units
  target: number
  locked: boolean
}
const props = defineProps<MethodTrayProps>()
const emit = defineEmits<{ step: []; undo: []; lay: [formula: Formula, way: string]; page: [working: string] }>()

const open = ref(-1)
const reading = ref(false)
const { method, problem } = useMethod(toRef(props, 'desk'), toRef(props, 'known'), toRef(props, 'target'), ref(true))
</script>

<template>
  <section class="tray method" aria-labelledby="method-head">
    <div class="tray-head">
      <h2 id="method-head" class="visually-hidden">Method</h2>
      <slot name="head" />
      <LinkButton v-if="id !== null && !locked" text :to="{ name: 'method', params: { id } }">On a page of its own</LinkButton>
    </div>
    <WayTabs :formula="desk.formula" :count="desk.count" :locked="locked" @step="emit('step')" @undo="emit('undo')" />
    <template v-if="method">
      <p class="whole"><b class="worked">{{ minutesText(method.usual_min) }}</b> in all, {{ spanText(method.low_min, method.high_min) }}; {{ minutesText(method.hands_min) }} of it by hand in {{ method.touches }} goes</p>
      <TimeStrip :method="method" :open="open" brief @pick="open = $event" />
    </template>
    <Said v-if="problem" tone="stop">{{ problem.errors?.[0]?.detail ?? problem.detail }}</Said>
    <StepList v-model:open="open" :formula="desk.formula" :count="desk.count" :method="method" :units="units" :locked="locked" @working="emit('page', $event)" @step="emit('step')" @undo="emit('undo')" @read="reading = true" />
    <ReadMethod v-model="reading" :formula="desk.formula" :count="desk.count" :known="known" @read="(formula, way) => emit('lay', formula, way)" @undo="emit('undo')" />
  </section>
</template>

<style scoped>
.method { grid-column: span 2; display: grid; gap: 6px }
.whole { font-size: .95rem }
@media (max-width: 1180px) { .method { grid-column: 1 / -1 } }
@media (max-width: 760px) { .method { grid-column: auto } }
</style>
