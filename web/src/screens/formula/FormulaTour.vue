<script setup lang="ts">
/** A short way round the first formula: the pins, the workings, the sheet. Begins by itself once, where a welcome led here. */
import { onMounted, ref } from 'vue'
import { takeTourDue } from '@/base/firstTime'

export interface FormulaTourProps {
  isPhone: boolean
  canTakeOut: boolean
}
defineProps<FormulaTourProps>()
const open = ref(false)
const begin = () => (open.value = true)
defineExpose({ begin })
onMounted(() => {
  if (takeTourDue()) begin()
})
const at = (selector: string) => () => document.querySelector<HTMLElement>(selector)
</script>

<template>
  <el-tour v-model="open" :mask="{ color: 'rgb(16 22 30 / 45%)' }">
    <el-tour-step :target="isPhone ? at('.phone-sides') : at('.trays .tray')" placement="bottom" title="The formula" description="Each line in grams or in percent of flour: type one, and the other follows. What you typed is dark, what is worked out from it orange." />
    <el-tour-step :target="isPhone ? at('.phone-sides') : at('.pin')" :placement="isPhone ? 'bottom' : 'left'" title="Pins" :description="`${isPhone ? 'Under Count: p' : 'P'}ress a ring to pin what you know: flour, pieces, the weight of one, a pan. Everything else is worked out from what is pinned.`" />
    <el-tour-step :target="at('.trays .opens')" placement="bottom" title="How was it worked out?" description="Press any orange number, or = in its field, to see its working: the rule in words, the figures, and where each came from." />
    <el-tour-step :target="at('.formula-head')" placement="bottom" title="To the scale" :description="`${isPhone ? 'Under More: t' : 'T'}he weigh sheet has it in the order of mixing, on your scale’s steps, so that it adds up. Save a revision whenever it is worth going back to.`" />
  </el-tour>
</template>
