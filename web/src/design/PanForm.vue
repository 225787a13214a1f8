<script setup lang="ts">
/** A pan's shape, name, inside measures and what it holds by water. */
import { computed } from 'vue'
import { MEASURE_LABELS, measureOf, panOf, withMeasure, type Shape } from './pans'
import type { Measured, Pan } from '@/api/client'
import { plain, type Kind, type Units } from '@/base/format'
import NumberBox from '@/design/NumberBox.vue'
import SelectField from '@/design/SelectField.vue'

export interface PanFormProps {
  pan: Pan
  units: Units
  /** What the server makes of it, once it has answered. */
  measured?: Measured | null
  /** Why a field is not right, by its name. */
  wrong?: (name: string) => string | undefined
}
const props = defineProps<PanFormProps>()
const emit = defineEmits<{ change: [pan: Pan] }>()

const rule = computed(() => props.units.reference.pan_shapes[props.pan.shape])
const shapes = computed(() => Object.entries(props.units.reference.pan_shapes).map(([value, { label }]) => ({ value: value as Shape, label })))
const kind = (name: string): Kind => (name === 'cups' ? 'count' : 'cm')
const deep = computed(() => rule.value?.measures.includes('depth_cm') ?? false)
const brim = computed(() => ('brim_ml' in props.pan ? (props.pan.brim_ml ?? null) : null))
const set = (name: string, value: number | null) => {
  if (value !== null || rule.value?.optional.includes(name) || name === 'brim_ml') emit('change', withMeasure(props.pan, name, value))
}
const off = computed(() => {
  const m = props.measured
  if (!m || m.measured_ml == null || m.off == null) return ''
  const share = Math.abs(m.off * 100)
  if (share < 1) return `By its measures ${plain(m.reckoned_ml)} ml: they agree.`
  return `By its measures ${plain(m.reckoned_ml)} ml, ${plain(share, 2)} % ${m.off > 0 ? 'more' : 'less'}. The water is used.`
})
</script>

<template>
  <div class="pan-form">
    <label class="label wide">Name<el-input :model-value="pan.name" maxlength="300" placeholder="What you call it" aria-label="Name" @input="emit('change', { ...pan, name: $event })" /></label>
    <label class="label wide">Shape
      <SelectField :value="pan.shape" :options="shapes" label="Shape" @choose="emit('change', panOf($event, units.reference, pan))" />
    </label>
    <label v-for="name in rule?.measures" :key="name" class="label">
      {{ MEASURE_LABELS[name] ?? name }}
      <NumberBox :value="measureOf(pan, name)" :kind="kind(name)" :units="units" :label="`${MEASURE_LABELS[name] ?? name} inside`" :wrong="wrong?.(name)" with-unit @change="set(name, $event)" />
    </label>
    <template v-if="rule?.optional.length">
      <p class="quiet wide small">Where the sides slope, the base; where they are straight, leave it open.</p>
      <label v-for="name in rule.optional" :key="name" class="label">
        {{ MEASURE_LABELS[name] ?? name }}
        <NumberBox :value="measureOf(pan, name)" kind="cm" :units="units" :label="`${MEASURE_LABELS[name] ?? name} inside`" :wrong="wrong?.(name)" with-unit @change="set(name, $event)" />
      </label>
    </template>
    <label v-if="deep" class="label wide water">Measured with water
      <span class="water-row"><NumberBox :value="brim" kind="ml" :units="units" label="Water to the brim, in grams or millilitres" :wrong="wrong?.('brim_ml')" with-unit @change="set('brim_ml', $event)" />
      <small class="quiet">{{ off || 'Stand it on the scale, set to nothing, fill to the brim: grams are ml.' }}</small></span>
    </label>
  </div>
</template>

<style scoped>
.pan-form { display: grid; grid-template-columns: repeat(auto-fill, minmax(104px, 1fr)); gap: 8px }
.wide { grid-column: 1 / -1 }
.small { font-size: .86rem; margin: 0 }
.water-row { display: flex; gap: 10px; align-items: center }
.water-row .el-input { flex: 0 0 130px }
</style>
