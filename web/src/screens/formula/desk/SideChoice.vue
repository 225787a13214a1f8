<script setup lang="ts">
/** What stands beside the formula; on a phone, what is shown of it at all. */
import type { View } from './useView'
import ChoiceRow from '@/design/ChoiceRow.vue'

export interface SideChoiceProps {
  view: View
}
defineProps<SideChoiceProps>()
</script>

<template>
  <ChoiceRow :label="view.isPhone.value ? 'What is shown of it' : 'What stands beside the formula'" :options="view.sides.value" :value="view.side.value" @choose="view.showSide" />
</template>
