<script setup lang="ts">
/** Into the heat: for this piece, on this oven's dial; and load after load, when each goes in and comes out. */
import { computed } from 'vue'
import type { Method } from '@/api/client'
import { withUnit, type Units } from '@/base/format'
import { minutesText, whenText } from '@/base/times'
import OpenWorking from '@/design/OpenWorking.vue'

export interface HeatPanelProps {
  method: Method
  units: Units
}
const props = defineProps<HeatPanelProps>()
const emit = defineEmits<{ working: [opened: string] }>()

const bakes = computed(() => props.method.bakes.map((bake) => ({ bake, step: props.method.steps[bake.step] })))
const places = computed(() => {
  const steps = [...new Set(props.method.loads.map((load) => load.step))]
  return steps.map((step) => ({ step, label: props.method.steps[step]?.label ?? '' }))
})
const loads = computed(() => {
  const count = Math.max(0, ...props.method.loads.map((load) => load.load + 1))
  return Array.from({ length: count }, (_, n) => ({
    n,
    pieces: props.method.loads.findLast((load) => load.load === n)?.pieces ?? 0,
    at: places.value.map(({ step }) => {
      const goes = props.method.loads.filter((load) => load.load === n && load.step === step)
      const [first, last] = [goes[0], goes.at(-1)]
      return first && last ? { from: whenText(first.begin, props.method.begins_min), to: whenText(last.end, props.method.begins_min), goes: goes.length, each: first.pieces } : null
    }),
  }))
})
</script>

<template>
  <section v-if="bakes.length" class="tray" aria-labelledby="heat-head">
    <div class="tray-head"><h2 id="heat-head">Into the heat</h2></div>
    <div v-for="{ bake, step } in bakes" :key="bake.step" class="bake">
      <span><b>{{ step?.label }}</b><small class="quiet"><template v-if="minutesText(bake.look_min) !== minutesText(bake.high_min)">look from {{ minutesText(bake.look_min) }}, at most {{ minutesText(bake.high_min) }}<template v-if="bake.middle">; </template></template><template v-if="bake.middle">done at {{ bake.middle.low_c }}–{{ withUnit(bake.middle.high_c, 'celsius', units) }} in the middle</template></small></span>
      <span class="figure"><OpenWorking :name="`method:bake.${bake.step}`" :label="`${step?.label}: usually ${minutesText(bake.usual_min)}.`" @open="emit('working', $event)">{{ minutesText(bake.usual_min) }}</OpenWorking><b v-if="bake.dial">{{ bake.dial }}</b></span>
    </div>
    <el-table v-if="method.loads.length > 1" :data="loads" row-key="n">
      <el-table-column label="Load" width="110"><template #default="{ row }">{{ row.n + 1 }} <small class="quiet">{{ row.pieces }} {{ row.pieces === 1 ? 'piece' : 'pieces' }}</small></template></el-table-column>
      <el-table-column v-for="({ step, label }, p) in places" :key="step" :label="label" align="right"><template #default="{ row }"><span v-if="row.at[p]" class="worked">{{ row.at[p].from }}<small class="quiet"> to {{ row.at[p].to }}<template v-if="row.at[p].goes > 1"><br />{{ row.at[p].goes }} goes of {{ row.at[p].each }}</template></small></span></template></el-table-column>
    </el-table>
    <p v-if="loads.length > 1" class="quiet">First shaped, first in: while one load is in, the next is made ready.</p>
  </section>
</template>

<style scoped>
.bake { display: flex; justify-content: space-between; gap: 10px; border-bottom: 1px solid var(--rim-faint); padding: 4px 0 }
.bake small { display: block }
.figure { text-align: right; font-weight: 700; font-size: 1.15rem; display: grid; white-space: nowrap }
small { font-weight: 400 }
</style>
