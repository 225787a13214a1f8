<script setup lang="ts">
/** Aim a gauge: the figure wanted, and the line that gives way. */
import { computed, ref, watch } from 'vue'
import type { Change, Formula, Gauge } from '@/api/client'
import NumberBox from '@/design/NumberBox.vue'
import { shown, type Units } from '@/base/format'
import SelectField from '@/design/SelectField.vue'

export interface AimFormProps {
  gauge: Gauge
  label: string
  formula: Formula
  units: Units
}
const props = defineProps<AimFormProps>()
const emit = defineEmits<{ look: [title: string, change: Change] }>()

type Aimed = Extract<Change, { change: 'aim' }>['gauge']
const wanted = ref<number | null>(Math.round(props.gauge.value * 10) / 10)
/** Lines that may give way, the one that brings most first. */
const lines = computed(() =>
  [...props.gauge.brings]
    .filter((b) => b.gives)
    .sort((a, b) => b.percent - a.percent)
    .flatMap((b) => {
      const stage = props.formula.stages[b.stage]
      const line = stage?.lines[b.line]
      if (!stage || !line) return []
      return [{ value: `${b.stage}:${b.line}`, label: `${line.name}${props.formula.stages.length > 1 ? `, ${stage.name || 'stage'}` : ''}` }]
    }),
)
const chosen = ref('')
watch(lines, (now) => { if (!now.some((line) => line.value === chosen.value)) chosen.value = now[0]?.value ?? '' }, { immediate: true })

function look(): void {
  const [stage, line] = chosen.value.split(':').map(Number)
  if (wanted.value === null || stage === undefined || line === undefined) return
  emit('look', `${props.label} aimed at ${shown(wanted.value, 'percent', props.units)} %`, { change: 'aim', gauge: props.gauge.key as Aimed, wanted: wanted.value, stage, line })
}
</script>

<template>
  <form class="aim-form" @submit.prevent="look">
    <template v-if="lines.length">
      <label class="label">Wanted, %<NumberBox :value="wanted" kind="percent" :units="units" :label="`Wanted ${label.toLowerCase()}`" @change="wanted = $event" /></label>
      <label class="label grow">What gives way<SelectField :value="chosen" :options="lines" :label="`What gives way for ${label.toLowerCase()}`" @choose="chosen = $event" /></label>
      <el-button type="primary" native-type="submit" :disabled="wanted === null">See what it does</el-button>
    </template>
    <p v-else>No line brings any {{ label.toLowerCase() }} yet: add one first.</p>
  </form>
</template>

<style scoped>
.aim-form { background: var(--rim-faint); border-radius: 12px; padding: 9px 13px; display: flex; flex-wrap: wrap; gap: 8px; align-items: end; margin: 2px 0 8px }
.el-input { width: 90px }
.grow { flex: 1 1 150px }
</style>
