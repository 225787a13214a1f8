<script setup lang="ts">
/** Move flour and liquid out of the dough into a stage of their own. The whole formula stays as it is. */
import { computed, ref, watch } from 'vue'
import type { Change, Formula, StageKind } from '@/api/client'
import NumberBox from '@/design/NumberBox.vue'
import type { Units } from '@/base/format'
import SelectField from '@/design/SelectField.vue'

export interface NewStageFormProps {
  formula: Formula
  units: Units
  /** The stage that is the dough itself. */
  main: number
}
const props = defineProps<NewStageFormProps>()
const emit = defineEmits<{ apply: [change: Change, says: string]; close: [] }>()

const kinds = computed(() => Object.values(props.units.reference.stages).filter((rule) => rule.hydration != null).map(({ kind, label }) => ({ value: kind, label })))
const kind = ref<StageKind>('poolish')
const rule = computed(() => props.units.reference.stages[kind.value])
const flourPercent = ref<number | null>(null)
const hydration = ref<number | null>(null)
const yeastPercent = ref<number | null>(0)
watch(rule, (now) => {
  flourPercent.value = now?.flour ?? null
  hydration.value = now?.hydration ?? null
  yeastPercent.value = now?.yeast ?? 0
}, { immediate: true })

const lines = computed(() => props.formula.stages[props.main]?.lines ?? [])
const named = (role: string, usual: string) => [{ value: '', label: usual }, ...[...new Set(lines.value.filter((line) => line.role === role && line.name).map((line) => line.name))].map((name) => ({ value: name, label: name }))]
const flour = ref('')
const liquid = ref('')
const does = { ferments: 'Ferment', cooks: 'Cook', soaks: 'Soak', mixes: 'Mix', late: 'Add' } as const

function make(): void {
  if (flourPercent.value === null || hydration.value === null || !rule.value) return
  const change: Change = {
    change: 'move_in', kind: kind.value, name: '', flour_percent: flourPercent.value, hydration: hydration.value,
    yeast_percent: yeastPercent.value ?? 0, flour: flour.value || null, liquid: liquid.value || null,
  }
  emit('apply', change, `${flourPercent.value} % of the flour is in the ${rule.value.label} now. The whole formula is the same.`)
  emit('close')
}
</script>

<template>
  <form class="new-stage said" @submit.prevent="make">
    <strong>{{ does[rule?.does ?? 'mixes'] }} part of the flour as a stage of its own</strong>
    <div class="fields">
      <label class="label">As<SelectField :value="kind" :options="kinds" label="What it is to be" @choose="kind = $event" /></label>
      <label class="label">Of all flour, %<NumberBox :value="flourPercent" kind="percent" :units="units" label="Flour in the stage, percent of all flour" @change="flourPercent = $event" /></label>
      <label class="label">Liquid on that flour, %<NumberBox :value="hydration" kind="percent" :units="units" label="Liquid in the stage, percent of its flour" @change="hydration = $event" /></label>
      <label v-if="rule?.does === 'ferments'" class="label">Yeast on that flour, as instant, %<NumberBox :value="yeastPercent" kind="percent" :units="units" label="Yeast in the stage as instant, percent of its flour" @change="yeastPercent = $event" /></label>
      <label v-if="named('flour', '').length > 2" class="label">Flour<SelectField :value="flour" :options="named('flour', 'the largest')" label="Which flour" @choose="flour = $event" /></label>
      <label v-if="named('liquid', '').length > 2" class="label">Liquid<SelectField :value="liquid" :options="named('liquid', 'water, else the largest')" label="Which liquid" @choose="liquid = $event" /></label>
    </div>
    <p v-if="rule?.low != null && rule.high != null" class="quiet">Usually {{ rule.low }}–{{ rule.high }} % liquid on its flour ({{ rule.source }}).</p>
    <div class="row">
      <el-button type="primary" native-type="submit" :disabled="!flourPercent || hydration === null">Move it</el-button>
      <el-button @click="emit('close')">Not now</el-button>
    </div>
  </form>
</template>

<style scoped>
.new-stage { display: grid; gap: 8px; margin: 6px 0 }
.fields { display: flex; flex-wrap: wrap; gap: 8px 12px; align-items: end }
.el-input { width: 96px }
.el-select { width: 170px }
p { margin: 0 }
</style>
