<script setup lang="ts">
/** Move flour and liquid out of the dough into a stage of their own. The whole formula stays as it is. */
import { computed, ref, watch } from 'vue'
import type { Change, Formula, StageKind } from '@/api/client'
import NumberField from '@/design/NumberField.vue'
import type { Units } from '@/base/format'

export interface NewStageFormProps {
  formula: Formula
  units: Units
  /** The stage that is the dough itself. */
  main: number
}
const props = defineProps<NewStageFormProps>()
const emit = defineEmits<{ apply: [change: Change, says: string]; close: [] }>()

const kinds = computed(() => Object.values(props.units.reference.stages).filter((rule) => rule.hydration != null))
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
const named = (role: string) => [...new Set(lines.value.filter((line) => line.role === role && line.name).map((line) => line.name))]
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
      <label class="label">As<select v-model="kind" class="field" aria-label="What it is to be"><option v-for="one in kinds" :key="one.kind" :value="one.kind">{{ one.label }}</option></select></label>
      <label class="label">Of all flour, %<NumberField class="box" :value="flourPercent" kind="percent" :units="units" label="Flour in the stage, percent of all flour" @change="flourPercent = $event" /></label>
      <label class="label">Liquid on that flour, %<NumberField class="box" :value="hydration" kind="percent" :units="units" label="Liquid in the stage, percent of its flour" @change="hydration = $event" /></label>
      <label v-if="rule?.does === 'ferments'" class="label">Yeast on that flour, as instant, %<NumberField class="box" :value="yeastPercent" kind="percent" :units="units" label="Yeast in the stage as instant, percent of its flour" @change="yeastPercent = $event" /></label>
      <label v-if="named('flour').length > 1" class="label">Flour<select v-model="flour" class="field"><option value="">the largest</option><option v-for="name in named('flour')" :key="name">{{ name }}</option></select></label>
      <label v-if="named('liquid').length > 1" class="label">Liquid<select v-model="liquid" class="field"><option value="">water, else the largest</option><option v-for="name in named('liquid')" :key="name">{{ name }}</option></select></label>
    </div>
    <p v-if="rule?.low != null && rule.high != null" class="quiet">Usually {{ rule.low }}–{{ rule.high }} % liquid on its flour ({{ rule.source }}).</p>
    <div class="row">
      <button type="submit" class="button go" :disabled="!flourPercent || hydration === null">Move it</button>
      <button type="button" class="button" @click="emit('close')">Not now</button>
    </div>
  </form>
</template>

<style scoped>
.new-stage { display: grid; gap: 8px; margin: 6px 0 }
.fields { display: flex; flex-wrap: wrap; gap: 8px 12px; align-items: end }
.box { width: 84px; background: var(--tray) }
p { margin: 0 }
</style>
