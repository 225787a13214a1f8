<script setup lang="ts">
/** How warm the kitchen is, and what it warms and cools with: the water for a dough, rises and baking go by it. */
import type { Climate } from '@/api/client'
import type { Kind, Units } from '@/base/format'
import ChoiceRow from '@/design/ChoiceRow.vue'
import NumberBox from '@/design/NumberBox.vue'

export interface WarmthSectionProps {
  climate: Climate
  units: Units
}
const props = defineProps<WarmthSectionProps>()
const emit = defineEmits<{ change: [climate: Climate] }>()

type Plain = { [K in keyof Climate]-?: NonNullable<Climate[K]> extends number ? K : never }[keyof Climate]
const FIELDS: { name: Plain; label: string; kind: Kind; needed?: number }[] = [
  { name: 'room_c', label: 'Counter', kind: 'celsius', needed: 22 },
  { name: 'warm_c', label: 'Warm spot', kind: 'celsius', needed: 28 },
  { name: 'fridge_c', label: 'Fridge', kind: 'celsius', needed: 5 },
  { name: 'tap_c', label: 'Cold tap', kind: 'celsius', needed: 12 },
  { name: 'flour_c', label: 'Flour, if not as the room', kind: 'celsius' },
  { name: 'tub_ml', label: 'The tub holds', kind: 'ml' },
  { name: 'machine_c_min', label: 'Machine warms, a minute', kind: 'celsius', needed: 0.6 },
  { name: 'hand_c_min', label: 'Hands warm, a minute', kind: 'celsius', needed: 0.2 },
  { name: 'oven_error_c', label: 'Oven is hotter than it says by', kind: 'celsius', needed: 0 },
]
const set = (name: Plain, value: number | null, needed?: number) => emit('change', { ...props.climate, [name]: value ?? needed ?? null })
const BOWLS = [{ value: 'none', label: 'warmed, or light' }, { value: 'steel', label: 'steel' }, { value: 'glass', label: 'glass' }] as const
const OVENS = [{ value: 'still', label: 'still air' }, { value: 'fan', label: 'fan' }] as const
const DIALS = [{ value: 'C', label: '°C' }, { value: 'F', label: '°F' }, { value: 'gas', label: 'gas mark' }] as const
</script>

<template>
  <div class="fields">
    <label v-for="field in FIELDS" :key="field.name" class="label">{{ field.label }}<NumberBox :value="climate[field.name] ?? null" :kind="field.kind" :units="units" :label="field.label" with-unit @change="set(field.name, $event, field.needed)" /></label>
    <div class="label">Oven<ChoiceRow label="Oven" :options="OVENS" :value="climate.oven_fan ? 'fan' : 'still'" @choose="emit('change', { ...climate, oven_fan: $event === 'fan' })" /></div>
    <div class="label">Its dial is in<ChoiceRow label="Its dial is in" :options="DIALS" :value="climate.heat_unit" @choose="emit('change', { ...climate, heat_unit: $event })" /></div>
    <div class="label">Bowl<ChoiceRow label="Bowl" :options="BOWLS" :value="climate.bowl" @choose="emit('change', { ...climate, bowl: $event })" /></div>
    <label v-if="climate.bowl !== 'none'" class="label">The bowl weighs<NumberBox :value="climate.bowl_weighs_g" kind="g" :units="units" label="The bowl weighs" with-unit @change="set('bowl_weighs_g', $event, 0)" /></label>
  </div>
</template>
