<script setup lang="ts">
/** One quantity of the count: pinned by the baker, or worked out. */
import { computed } from 'vue'
import type { Worked } from '@/api/client'
import NumberField from '@/design/NumberField.vue'
import OpenWorking from '@/design/OpenWorking.vue'
import type { Kind, Units } from '@/base/format'

export interface CountRowProps {
  /** Its full name: "flour_g", "pieces.0". */
  name: string
  label: string
  kind: Kind
  units: Units
  worked: Worked | undefined
  /** The pinned value; undefined where it is not pinned. */
  pin: number | undefined
  /** The unit, where the kind does not tell it. */
  unit?: string
  /** A step between two others: smaller. */
  small?: boolean
  wrong?: string
  fights?: boolean
}
const props = defineProps<CountRowProps>()
const emit = defineEmits<{
  /** Pin at this value, or let go with null. */
  pin: [value: number | null]
  working: []
}>()

const isPinned = computed(() => props.pin !== undefined)
const value = computed(() => props.pin ?? props.worked?.value)
/** What stands in for a pin, where something does. */
const standsIn = computed(() => {
  if (isPinned.value) return ''
  return props.worked?.source === 'usual' ? 'usual' : props.worked?.source === 'learned' ? 'as your bakes say' : props.worked?.source === 'written' ? 'as written' : props.worked?.source === 'limit' ? 'up to the limit' : ''
})
const toggle = () => emit('pin', isPinned.value ? null : (props.worked?.value ?? null))
</script>

<template>
  <li class="row" :class="{ small, fights }">
    <button
      type="button"
      class="pin"
      role="switch"
      :aria-checked="isPinned"
      :aria-label="`Pin ${label}`"
      :title="isPinned ? 'Pinned. Press to let go.' : 'Press to pin this value.'"
      @click="toggle"
    >
      <svg viewBox="0 0 24 24" aria-hidden="true"><circle cx="12" cy="12" r="10" /><circle v-if="isPinned" class="dot" cx="12" cy="12" r="3" /></svg>
    </button>
    <span class="name">{{ label }}<small v-if="standsIn" class="quiet">{{ standsIn }}</small></span>
    <NumberField
      class="value"
      :data-quantity="name"
      :value="value"
      :kind="kind"
      :units="units"
      :label="label"
      :worked="!isPinned"
      :wrong="wrong"
      with-unit
      @change="emit('pin', $event)"
      @working="emit('working')"
    />
    <span class="unit quiet">{{ unit }}</span>
    <OpenWorking class="how" :name="name" :label="`${label}.`" @open="emit('working')">=</OpenWorking>
  </li>
</template>

<style scoped>
.row { display: grid; grid-template-columns: 38px minmax(0, 1fr) 118px auto 32px; align-items: center; min-height: 37px }
.row.small { min-height: 31px }
.row.fights { background: var(--stop-soft); border-radius: 10px }
.pin { width: 38px; height: 37px; padding: 5px 6px; border: 0; background: none; cursor: pointer; border-radius: 10px }
.pin svg { width: 26px; height: 26px; display: block }
.pin circle { fill: none; stroke: var(--rim-soft); stroke-width: 2.4 }
.pin:hover circle { stroke: var(--rim) }
.pin[aria-checked='true'] circle { fill: var(--rim); stroke: var(--rim) }
.pin[aria-checked='true'] .dot { fill: var(--on-rim); stroke: none }
.small .pin { height: 31px; padding: 3px 6px }
.small .how { height: 31px }
.small .pin svg { width: 20px; height: 20px; margin: 0 3px }
.name { line-height: 1.1 }
.name small { display: block }
.value { font-size: 1.35rem; font-weight: 750 }
.small .value { font-size: 1.02rem; font-weight: 600 }
.small .name { color: var(--ink-2); font-size: .92rem }
.unit:not(:empty) { padding-left: 2px }
.how { color: var(--ink-2); font-weight: 700; width: 32px; height: 37px; display: grid; place-items: center }
@media (max-width: 1180px) { .row, .row.small { min-height: 46px } .pin, .small .pin { height: 44px; padding: 8px 6px } }
</style>
