<script setup lang="ts">
/** Formulas as a table; on a phone one below the other. */
import { useRouter } from 'vue-router'
import FormulaActs from './FormulaActs.vue'
import { nameOf } from './name'
import type { FormulaHead } from '@/api/client'
import { plain, when } from '@/base/format'
import { usePhone } from '@/base/phone'

export interface FormulaTableProps {
  heads: readonly FormulaHead[]
  archived: boolean
}
defineProps<FormulaTableProps>()
const emit = defineEmits<{ copy: [head: FormulaHead]; away: [head: FormulaHead] }>()

const router = useRouter()
const isPhone = usePhone()
const figure = (percent: number | null | undefined) => (percent == null ? '–' : plain(percent, 3))
/** A row as what it is: the table's own slots do not say. */
const of = (row: unknown) => row as FormulaHead
const open = (head: FormulaHead) => router.push({ name: 'formula', params: { id: head.id } })
</script>

<template>
  <ul v-if="isPhone">
    <li v-for="head in heads" :key="head.id">
      <RouterLink class="name" :to="{ name: 'formula', params: { id: head.id } }">{{ nameOf(head) }}</RouterLink>
      <p class="quiet"><b>{{ figure(head.liquid_percent) }}</b> liquid % · <b>{{ figure(head.true_water_percent) }}</b> true water % · {{ when(head.changed_at) }}</p>
      <FormulaActs :head="head" :called="nameOf(head)" :archived="archived" @copy="emit('copy', head)" @away="emit('away', head)" />
    </li>
  </ul>
  <el-table v-else :data="[...heads]" row-key="id" :row-class-name="() => 'pressed'" @row-click="open(of($event))">
    <el-table-column label="Name" min-width="230"><template #default="{ row }"><RouterLink class="name" :to="{ name: 'formula', params: { id: of(row).id } }" @click.stop>{{ nameOf(of(row)) }}</RouterLink></template></el-table-column>
    <el-table-column label="Style" min-width="210"><template #default="{ row }"><span v-for="style in of(row).styles" :key="style" class="chip">{{ style }}</span><span v-if="of(row).example" class="chip">example</span><span v-if="of(row).unsaved" class="chip draft">draft</span></template></el-table-column>
    <el-table-column label="Liquid %" width="110" align="right"><template #default="{ row }"><b class="figure">{{ figure(of(row).liquid_percent) }}</b></template></el-table-column>
    <el-table-column label="True water %" width="130" align="right"><template #default="{ row }"><b class="figure">{{ figure(of(row).true_water_percent) }}</b></template></el-table-column>
    <el-table-column label="Last changed" width="175"><template #default="{ row }"><span class="quiet">{{ when(of(row).changed_at) }}</span></template></el-table-column>
    <el-table-column width="235" align="right"><template #header><span class="visually-hidden">What can be done</span></template><template #default="{ row }"><FormulaActs :head="of(row)" :called="nameOf(of(row))" :archived="archived" @copy="emit('copy', of(row))" @away="emit('away', of(row))" /></template></el-table-column>
  </el-table>
</template>

<style scoped>
.el-table :deep(.pressed) { cursor: pointer }
.el-table :deep(td) { height: 52px }
.name { font: 700 1.12rem var(--head); color: var(--ink); text-decoration: none; display: block; padding: 8px 0; overflow-wrap: anywhere }
.name:hover { color: var(--rim); text-decoration: underline }
.figure { font-size: 1.15rem }
.chip { margin: 2px 5px 2px 0; display: inline-block }
ul { list-style: none; margin: 0; padding: 0 }
li { border-top: 1px solid var(--rim-faint); padding: 4px 0 }
li b { color: var(--ink); font-size: 1.05rem }
</style>
