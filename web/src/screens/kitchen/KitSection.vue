<script setup lang="ts">
/** The kit: bowl, sheets and oven, pot, griddle, fridge shelf, and how evenly this baker divides. What is open limits nothing. */
import { computed } from 'vue'
import type { Kit } from '@/api/client'
import NumberBox from '@/design/NumberBox.vue'
import { type Kind, type Units } from '@/base/format'

export interface KitSectionProps {
  kit: Kit
  units: Units
  /** Only what is asked of a newcomer: bowl, oven and sheets. */
  brief?: boolean
}
const props = defineProps<KitSectionProps>()
const emit = defineEmits<{ change: [kit: Kit] }>()

type Plain = { [K in keyof Kit]-?: NonNullable<Kit[K]> extends number ? K : never }[keyof Kit]
const GROUPS: { title: string; says: string; fields: { name: Plain; label: string; kind: Kind; needed?: number }[] }[] = [
  { title: 'Mixer’s bowl', says: 'By what it holds to the brim, it takes about 0.37 g of dough to a ml, of a stiff one 0.25; or say the most dough yourself.', fields: [{ name: 'bowl_ml', label: 'Holds', kind: 'ml' }, { name: 'bowl_g', label: 'Most dough', kind: 'g' }, { name: 'mixers', label: 'Mixers', kind: 'count', needed: 1 }] },
  { title: 'Oven', says: 'How many shelves bake at once, and the room on one for pans beside each other.', fields: [{ name: 'shelves', label: 'Shelves', kind: 'count', needed: 1 }, { name: 'oven_length_cm', label: 'Shelf, long', kind: 'cm' }, { name: 'oven_width_cm', label: 'Shelf, deep', kind: 'cm' }, { name: 'ovens', label: 'Ovens', kind: 'count', needed: 1 }] },
  { title: 'Pot for baths', says: 'What it holds sets the bath; how wide it is, how many go in at once.', fields: [{ name: 'pot_cm', label: 'Across', kind: 'cm' }, { name: 'pot_ml', label: 'Holds', kind: 'ml' }, { name: 'pots', label: 'Pots', kind: 'count', needed: 1 }] },
  { title: 'Fridge', says: 'The shelf that is free for dough.', fields: [{ name: 'fridge_length_cm', label: 'Wide', kind: 'cm' }, { name: 'fridge_width_cm', label: 'Deep', kind: 'cm' }, { name: 'fridge_shelves', label: 'Shelves', kind: 'count', needed: 1 }] },
  { title: 'Dividing', says: 'Two pieces of three are within this of what you aim for (the standard deviation). It sets how much to aim over a label.', fields: [{ name: 'spread_g', label: 'Pieces stray by', kind: 'g', needed: 0 }] },
]
const set = (name: Plain, value: number | null, needed?: number) => emit('change', { ...props.kit, [name]: value ?? needed ?? null })

const sheet = computed(() => props.kit.sheet ?? null)
const SHEET = { shape: 'sheet', name: 'Sheet', length_cm: 44, width_cm: 33, depth_cm: 2 } as const
function setSheet(name: 'length_cm' | 'width_cm', value: number | null): void {
  emit('change', { ...props.kit, sheet: value === null ? null : { ...SHEET, ...sheet.value, [name]: value } })
}
const setGriddle = (value: number | null) => emit('change', { ...props.kit, griddle: value === null ? null : { shape: 'griddle', name: 'Griddle', diameter_cm: value } })
</script>

<template>
  <div class="groups">
    <fieldset v-for="group in brief ? GROUPS.slice(0, 2) : GROUPS" :key="group.title">
      <legend>{{ group.title }}</legend>
      <div class="fields">
        <label v-for="field in group.fields" :key="field.name" class="label">{{ field.label }}<NumberBox :value="kit[field.name] ?? null" :kind="field.kind" :units="units" :label="`${group.title}: ${field.label}`" with-unit @change="set(field.name, $event, field.needed)" /></label>
      </div>
      <p class="quiet small">{{ group.says }}</p>
    </fieldset>
    <fieldset>
      <legend>Sheets</legend>
      <div class="fields">
        <label class="label">Long<NumberBox :value="sheet?.length_cm ?? null" kind="cm" :units="units" label="Sheets: long" with-unit @change="setSheet('length_cm', $event)" /></label>
        <label class="label">Wide<NumberBox :value="sheet?.width_cm ?? null" kind="cm" :units="units" label="Sheets: wide" with-unit @change="setSheet('width_cm', $event)" /></label>
        <label class="label">How many<NumberBox :value="kit.sheets" kind="count" :units="units" label="Sheets: how many" @change="set('sheets', $event, 1)" /></label>
      </div>
      <p class="quiet small">Pieces that lie apart are laid out on one, with their baked width and the gap.</p>
    </fieldset>
    <fieldset v-if="!brief">
      <legend>Griddle</legend>
      <div class="fields"><label class="label">Across<NumberBox :value="kit.griddle?.diameter_cm ?? null" kind="cm" :units="units" label="Griddle: across" with-unit @change="setGriddle" /></label><label class="label">Griddles<NumberBox :value="kit.griddles" kind="count" :units="units" label="Griddles" @change="set('griddles', $event, 1)" /></label></div>
      <p class="quiet small">For flatbreads without a pan of their own.</p>
    </fieldset>
  </div>
</template>

<style scoped>
.groups { display: grid; gap: 10px 22px; grid-template-columns: repeat(auto-fit, minmax(min(280px, 100%), 1fr)) }
fieldset { border: 0; margin: 0; padding: 0; min-width: 0 }
legend { font: 650 1rem var(--head); padding: 0 }
.fields { display: grid; grid-template-columns: repeat(auto-fit, minmax(88px, 1fr)); gap: 8px }
.small { font-size: .86rem; margin: 4px 0 0 }
</style>
