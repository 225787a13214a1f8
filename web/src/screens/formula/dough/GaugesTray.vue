<script setup lang="ts">
/** What the dough is: its gauges against the band of its style, in words, and aiming one of them. */
import { computed, ref } from 'vue'
import AimForm from './AimForm.vue'
import type { Change, Formula, GaugeName, Whole } from '@/api/client'
import OpenWorking from '@/design/OpenWorking.vue'
import GaugeBar from '@/drawings/GaugeBar.vue'
import { shown, withUnit, type Units } from '@/base/format'

export interface GaugesTrayProps {
  formula: Formula
  whole: Whole | null
  units: Units
  /** Reading only: nothing can be aimed. */
  locked: boolean
}
const props = defineProps<GaugesTrayProps>()
const emit = defineEmits<{
  working: [opened: string]
  /** A change to be looked at before it is taken. */
  look: [title: string, change: Change]
}>()

const aiming = ref<GaugeName | null>(null)
const LIES = { under: 'under its band', in: 'in its band', over: 'over its band', free: '' } as const

const rows = computed(() => {
  const dough = props.whole?.character
  if (!dough) return []
  return Object.values(props.units.reference.gauges).flatMap((rule) => {
    const gauge = dough.gauges[rule.key]
    if (!gauge || (gauge.value === 0 && gauge.low == null && !gauge.apart)) return []
    const band = gauge.low == null || gauge.high == null ? '' : `${shown(gauge.low, 'percent', props.units)}–${shown(gauge.high, 'percent', props.units)}`
    return [{
      gauge,
      rule,
      value: shown(gauge.value, 'percent', props.units, 3),
      band,
      says: [LIES[gauge.lies], band && `usually ${band}`].filter(Boolean).join(', '),
      apart: gauge.apart >= 0.05 ? `and ${shown(gauge.apart, 'percent', props.units, 3)} % ${rule.apart}` : '',
      unknown: gauge.unknown.length ? `a guess: nobody has said what ${gauge.unknown.join(', ')} holds` : '',
      canAim: rule.aims,
    }]
  })
})
</script>

<template>
  <section class="tray gauges" aria-labelledby="dough-head">
    <div class="tray-head">
      <h2 id="dough-head" class="visually-hidden">Dough</h2>
      <slot name="head" />
    </div>
    <p v-if="!whole" class="quiet">Give it some flour, and its figures stand here.</p>
    <template v-else>
      <p class="words">Feels <b>{{ whole.character.feel.label }}</b>, like <OpenWorking name="feel" @open="emit('working', $event)">{{ shown(whole.character.feels.value, 'percent', units, 3) }} %</OpenWorking> in a lean white dough: {{ whole.character.feel.says }}.</p>
      <p class="words">Is <b>{{ whole.character.richness.label }}</b>, fat and sugars {{ withUnit(whole.character.fat_and_sugars, 'percent', units, 3) }}: {{ whole.character.richness.says }}.</p>
      <ul>
        <li v-for="{ gauge, rule, value, band, says, apart, unknown, canAim } in rows" :key="rule.key" :data-gauge="rule.key">
          <span class="name">{{ rule.label }}</span>
          <span class="bar"><GaugeBar :value="gauge.value" :low="gauge.low" :high="gauge.high" :outside="gauge.lies === 'under' || gauge.lies === 'over'" /><small class="quiet">{{ band }}</small></span>
          <OpenWorking class="value" :name="`gauge:${rule.key}`" :label="`${rule.label} ${value} %${says ? `, ${says}` : ''}.`" @open="emit('working', $event)">{{ value }}</OpenWorking>
          <el-button text v-if="canAim && !locked" class="aim" :aria-expanded="aiming === rule.key" :aria-label="`Aim ${rule.label.toLowerCase()}`" @click="aiming = aiming === rule.key ? null : rule.key">Aim</el-button>
          <span v-else />
          <small v-if="apart" class="more quiet">{{ apart }}</small>
          <small v-if="unknown" class="more guess">{{ unknown }}</small>
          <AimForm v-if="aiming === rule.key" class="form" :gauge="gauge" :label="rule.label" :formula="formula" :units="units" @look="(title, change) => emit('look', title, change)" />
        </li>
      </ul>
      <p class="quiet">% of flour, against the bands of {{ whole.character.style }}. Press a figure for its working, line by line.</p>
    </template>
  </section>
</template>

<style scoped>
.words { margin: 0 0 3px; line-height: 1.3 }
ul { list-style: none; margin: 6px 0; padding: 0 }
li { display: grid; grid-template-columns: 96px minmax(60px, 1fr) 58px 50px; align-items: center; column-gap: 6px; min-height: 40px; border-bottom: 1px solid var(--rim-faint) }
.name { line-height: 1.1; font-size: .95rem }
.bar { display: grid; line-height: 1 }
.bar small { font-size: .74rem; text-align: center }
.value { text-align: right; font-weight: 750; font-size: 1.12rem }
.aim { padding: 2px 6px }
.more { grid-column: 2 / -1; padding-bottom: 3px }
.guess { color: var(--crust) }
.form { grid-column: 1 / -1 }
@media (max-width: 1180px) { li { min-height: 46px } .aim { min-height: 44px } }
</style>
