<script setup lang="ts">
/** The liquid for the dough: how warm it is to be, with ice where it must be, what is in the way, and what would help. */
import { computed } from 'vue'
import { wayNumber } from './steps'
import type { Count, Formula, Method } from '@/api/client'
import { withUnit, type Units } from '@/base/format'
import NumberBox from '@/design/NumberBox.vue'
import OpenWorking from '@/design/OpenWorking.vue'
import Said from '@/design/Said.vue'

export interface WaterPanelProps {
  /** The desk's own; they are edited in place. */
  formula: Formula
  count: Count
  method: Method
  units: Units
}
const props = defineProps<WaterPanelProps>()
const emit = defineEmits<{ working: [opened: string] }>()

const way = computed(() => props.formula.ways[wayNumber(props.formula, props.count)])
const water = computed(() => props.method.water)
const degrees = (celsius: number) => withUnit(celsius, 'celsius', props.units, 3)
/** A dough within a degree of what was wanted is that dough. */
const NEAR_C = 1.05
const off = computed(() => water.value != null && Math.abs(water.value.reached_c - water.value.wanted_c) > NEAR_C)
</script>

<template>
  <section class="tray" aria-labelledby="water-head">
    <div class="tray-head"><h2 id="water-head">{{ water ? water.name : 'Water' }} for the dough</h2><span v-if="water" class="quiet">{{ withUnit(water.weight_g, 'g', units) }}</span></div>
    <p v-if="!water" class="quiet">Say what goes in at the mixing, and how warm its liquid must be stands here.</p>
    <template v-else>
      <div class="main">
        <label class="label">Dough wanted<NumberBox :value="way?.dough_c ?? water.wanted_c" :worked="way?.dough_c == null" kind="celsius" :units="units" label="How warm the dough is to come out" with-unit @change="way && (way.dough_c = $event)" /></label>
        <p class="figure"><OpenWorking name="method:water" :label="`${water.name} at ${degrees(water.needed_c)}.`" @open="emit('working', $event)">{{ degrees(water.pour_c) }}</OpenWorking>
          <small v-if="water.stands === 'ice'">{{ withUnit(water.pour_g, 'g', units) }} of it, and <b>{{ withUnit(water.ice_g, 'g', units) }} of ice</b></small>
          <small v-else-if="off">it would have to be {{ degrees(water.needed_c) }}</small>
        </p>
      </div>
      <Said v-if="off" tone="now">{{ water.says }} The dough comes out at <b>{{ degrees(water.reached_c) }}</b>, not at {{ degrees(water.wanted_c) }}.
        <ul><li v-for="cure in water.cures" :key="cure.says">{{ cure.says }}<template v-if="cure.temp_c != null">: to {{ degrees(cure.temp_c) }}</template>.</li></ul>
      </Said>
      <p v-else-if="water.says" class="quiet">{{ water.says }}<template v-if="water.stands !== 'ice'"> The dough comes out at {{ degrees(water.reached_c) }}.</template></p>
      <Said v-if="water.wakes_says" tone="now">{{ water.wakes_says }}</Said>
      <p v-if="water.rule_c != null" class="quiet"><OpenWorking name="method:water_rule" @open="emit('working', $event)">{{ degrees(water.rule_c) }}</OpenWorking> by the rule of thumb, which knows three temperatures and nothing of what else goes in.</p>
    </template>
  </section>
</template>

<style scoped>
.main { display: flex; gap: 16px; align-items: end; margin-bottom: 6px }
.main .label { flex: 0 0 110px }
.figure { font-weight: 750; font-size: 1.7rem; line-height: 1.05; display: grid }
.figure small { font-size: .9rem; font-weight: 400 }
</style>
