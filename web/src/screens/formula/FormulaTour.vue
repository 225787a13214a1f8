<script setup lang="ts">
/** A short way round the first formula: the pins, the workings, the sheet. Begins by itself once, where a welcome led here. (Its heads are ours: Element Plus's are headings of no level.) */
import { nextTick, ref, watch } from 'vue'
import { takeTourDue } from '@/base/firstTime'

export interface FormulaTourProps {
  isPhone: boolean
  /** What it points at stands as it will stay: its figures are there. */
  ready: boolean
}
const props = defineProps<FormulaTourProps>()
const open = ref(false)
const begin = () => (open.value = true)
defineExpose({ begin })
watch(() => props.ready, (now) => now && takeTourDue() && void nextTick(begin), { immediate: true })
const at = (selector: string) => () => document.querySelector<HTMLElement>(selector)
</script>

<template>
  <el-tour v-model="open" :mask="{ color: 'rgb(16 22 30 / 45%)' }">
    <el-tour-step :target="isPhone ? at('.phone-sides') : at('.trays .tray')" placement="bottom" description="Each line in grams or in percent of flour: type one, and the other follows. What you typed is dark, what is worked out from it orange."><template #header><h2>The formula</h2></template></el-tour-step>
    <el-tour-step :target="isPhone ? at('.phone-sides') : at('.pin')" :placement="isPhone ? 'bottom' : 'left'" :description="`${isPhone ? 'Under Count: p' : 'P'}ress a ring to pin what you know: flour, pieces, the weight of one, a pan. Everything else is worked out from what is pinned.`"><template #header><h2>Pins</h2></template></el-tour-step>
    <el-tour-step :target="at('.trays .opens')" placement="bottom" description="Press any orange number, or = in its field, to see its working: the rule in words, the figures, and where each came from."><template #header><h2>How was it worked out?</h2></template></el-tour-step>
    <el-tour-step :target="at('.formula-head')" placement="bottom" :description="`${isPhone ? 'Under More: t' : 'T'}he weigh sheet has it in the order of mixing, on your scale’s steps, so that it adds up. Save a revision whenever it is worth going back to.`"><template #header><h2>To the scale</h2></template></el-tour-step>
  </el-tour>
</template>
