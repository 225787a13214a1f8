<script setup lang="ts">
/** The revisions of a formula: to read one, or lay it beside the desk. */
import RevisionList from './RevisionList.vue'
import type { FormulaHead } from '@/api/client'
import type { Other } from '@/screens/formula/desk/useView'

export interface RevisionsDialogProps {
  /** Null before the formula is kept. */
  head: FormulaHead | null
  reading: number | undefined
}
defineProps<RevisionsDialogProps>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ compare: [other: Other] }>()
function compare(other: Other): void {
  open.value = false
  emit('compare', other)
}
</script>

<template>
  <el-dialog v-model="open" title="Revisions" width="min(560px, 94vw)">
    <RevisionList v-if="head" :id="head.id" :latest="head.latest_number" :reading="reading" @read="open = false" @compare="compare" />
    <el-empty v-else description="Nothing saved yet."><template #image><span /></template></el-empty>
  </el-dialog>
</template>
