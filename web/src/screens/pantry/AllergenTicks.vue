<script setup lang="ts">
/** Allergens to tick. Element Plus's tags that can be checked are no checkboxes to a screen reader or a keyboard; here they are. */
import type { Ingredient } from '@/api/client'

export interface AllergenTicksProps {
  /** What ticking one says. */
  says: string
}
defineProps<AllergenTicksProps>()
const chosen = defineModel<Ingredient['allergens']>({ required: true })

const ALLERGENS = ['wheat', 'rye', 'barley', 'oats', 'milk', 'egg', 'almonds', 'walnuts', 'hazelnuts', 'pecans', 'pistachios', 'cashews', 'macadamias', 'brazil nuts', 'pine nuts', 'peanuts', 'sesame', 'soya', 'sulphites', 'mustard', 'celery', 'lupin', 'fish', 'crustaceans', 'molluscs'] as const
const toggle = (one: (typeof ALLERGENS)[number]) => (chosen.value = chosen.value.includes(one) ? chosen.value.filter((a) => a !== one) : [...chosen.value, one])
</script>

<template>
  <div>
    <p class="quiet">{{ says }}</p>
    <div class="allergens" role="group" :aria-label="says">
      <el-check-tag v-for="one in ALLERGENS" :key="one" role="checkbox" tabindex="0" type="primary" :aria-checked="chosen.includes(one)" :checked="chosen.includes(one)" @change="toggle(one)" @keydown.space.prevent="toggle(one)" @keydown.enter.prevent="toggle(one)">{{ one }}</el-check-tag>
    </div>
  </div>
</template>

<style scoped>
.allergens { display: flex; flex-wrap: wrap; gap: 6px; margin-top: 4px }
.allergens .el-check-tag { min-height: var(--touch-small); padding: 4px 12px; font-weight: 400; font-size: .95rem; border: 1px solid var(--rim-soft); background: none; border-radius: 99px; color: var(--ink-2); display: inline-flex; align-items: center }
.allergens .is-checked { background: var(--rim); border-color: var(--rim); color: var(--on-rim); font-weight: 650 }
</style>
