<script setup lang="ts">
/** What the formula comes to, under either view of it. */
import { computed } from 'vue'
import type { Whole } from '@/api/client'
import OpenWorking from '@/design/OpenWorking.vue'
import { shown, withUnit, type Units } from '@/base/format'

export interface FormulaTotalsProps {
  whole: Whole
  units: Units
}
const props = defineProps<FormulaTotalsProps>()
const emit = defineEmits<{ working: [opened: string] }>()

const gauge = (key: 'liquid' | 'water') => shown(props.whole.character.gauges[key]?.value ?? NaN, 'percent', props.units, 3)
const flourSays = computed(() => {
  const { base_g: base, flour_g: flour } = props.whole.formula
  return base < flour ? `flour, ${withUnit(base, 'g', props.units)} is 100 %` : 'flour as written'
})
</script>

<template>
  <div class="totals">
    <OpenWorking name="written_flour" @open="emit('working', $event)"><b>{{ withUnit(whole.formula.flour_g, 'g', units) }}</b>{{ flourSays }}</OpenWorking>
    <OpenWorking name="gauge:liquid" @open="emit('working', $event)"><b>{{ gauge('liquid') }}</b>liquid %</OpenWorking>
    <OpenWorking name="gauge:water" @open="emit('working', $event)"><b>{{ gauge('water') }}</b>true water %</OpenWorking>
    <OpenWorking name="total" @open="emit('working', $event)"><b>{{ shown(whole.formula.shown_total_percent, 'percent', units) }}</b>total %</OpenWorking>
  </div>
</template>

<style scoped>
.totals { display: flex; gap: 8px; margin-top: 8px }
.totals > * { flex: 1; border-radius: 10px; background: var(--rim-faint); padding: 4px; font-size: .8rem; color: var(--ink-2); display: grid; justify-items: center; text-align: center }
.totals b { font-size: 1.12rem; color: var(--crust) }
</style>
