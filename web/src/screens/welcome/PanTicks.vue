<script setup lang="ts">
/** Pans ticked from the common ones, with how many there are of each. */
import { computed } from 'vue'
import { measures, type Units } from '@/base/format'

export interface PanTicksProps {
  units: Units
}
const props = defineProps<PanTicksProps>()
/** How many of each, by its place among the common ones. */
const owned = defineModel<Record<number, number>>({ required: true })

const groups = computed(() => {
  const found = new Map<string, { n: number; name: string; size: string }[]>()
  props.units.reference.common_pans.forEach(({ pan }, n) => {
    const label = props.units.reference.pan_shapes[pan.shape]?.label ?? pan.shape
    found.set(label, [...(found.get(label) ?? []), { n, name: pan.name ?? label, size: measures(pan, props.units) }])
  })
  return [...found].map(([label, pans]) => ({ label, pans }))
})
function tick(n: number, on: boolean): void {
  const { [n]: _, ...others } = owned.value
  owned.value = on ? { ...others, [n]: 1 } : others
}
const count = (n: number, many: number | undefined) => (owned.value = { ...owned.value, [n]: many ?? 1 })
</script>

<template>
  <div class="groups">
    <section v-for="group in groups" :key="group.label" :aria-label="group.label">
      <h3>{{ group.label }}</h3>
      <div v-for="pan in group.pans" :key="pan.n" class="pan">
        <el-checkbox :model-value="pan.n in owned" @change="tick(pan.n, $event === true)">{{ pan.name }} <small class="quiet">{{ pan.size }}</small></el-checkbox>
        <el-input-number v-if="pan.n in owned" size="small" :model-value="owned[pan.n]" :min="1" :max="99" :step-strictly="true" :aria-label="`How many of ${pan.name}`" @change="count(pan.n, $event)" />
      </div>
    </section>
  </div>
</template>

<style scoped>
.groups { display: grid; gap: 10px 28px; grid-template-columns: repeat(auto-fill, minmax(min(300px, 100%), 1fr)) }
h3 { font-size: 1rem; text-transform: capitalize; border-bottom: 2px solid var(--rim-faint); padding-bottom: 2px }
.pan { display: flex; justify-content: space-between; align-items: center; min-height: 42px; gap: 8px }
.pan .el-input-number { width: 112px; flex: none }
</style>
