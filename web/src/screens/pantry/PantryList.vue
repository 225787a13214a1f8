<script setup lang="ts">
/** The pantry's ingredients, of which only those in sight are drawn. */
import type { Column, RowClassNameGetter, RowEventHandlers, TableV2Instance } from 'element-plus'
import { computed, h, nextTick, ref, watch } from 'vue'
import { RouterLink, useRouter, type RouteLocationRaw } from 'vue-router'
import type { PantryItem } from '@/api/client'

export interface PantryListProps {
  items: readonly PantryItem[]
  /** The one that is beside the list. */
  chosen: string | undefined
  to: (item: PantryItem) => RouteLocationRaw
}
const props = defineProps<PantryListProps>()

const ROW = 40
const router = useRouter()
const table = ref<TableV2Instance>()
const of = (row: unknown) => row as PantryItem & { id: string }
const data = computed(() => props.items.map((item) => ({ ...item, id: item.ingredient.name })))
const columns = (width: number): Column[] => [
  {
    key: 'name', title: 'Ingredient', width: Math.max(120, width - 176),
    cellRenderer: ({ rowData }) => {
      const { ingredient } = of(rowData)
      return h(RouterLink, { to: props.to(of(rowData)), class: 'name', style: `--role: var(--role-${ingredient.role})`, 'aria-current': ingredient.name === props.chosen || undefined }, () => [h('span', { class: 'dot', 'aria-hidden': true }), ingredient.name, ingredient.own && h('small', { class: 'chip' }, 'own')])
    },
  },
  { key: 'role', title: 'Role', width: 82, cellRenderer: ({ rowData }) => h('small', { class: 'quiet' }, of(rowData).ingredient.role) },
  {
    key: 'water', title: 'Water %', width: 78, align: 'right',
    cellRenderer: ({ rowData }) => h('small', { class: 'quiet' }, of(rowData).ingredient.composition?.water ?? ''),
  },
]
const rowClass: RowClassNameGetter<unknown> = ({ rowData }) => (of(rowData).id === props.chosen ? 'here' : '')
const pressed: RowEventHandlers = { onClick: ({ rowData }) => void router.push(props.to(of(rowData))) }

/* An ingredient that a link opens is brought into view. */
watch(() => [props.chosen, table.value, data.value.length], () => void nextTick(() => {
  const at = data.value.findIndex((item) => item.id === props.chosen)
  if (at > 0) table.value?.scrollToRow(at, 'smart')
}))
</script>

<template>
  <div class="list">
    <el-auto-resizer>
      <template #default="{ height, width }">
        <el-table-v2 ref="table" :columns="columns(width)" :data="data" :width="width" :height="height" :row-height="ROW" :header-height="30" row-key="id" :row-class="rowClass" :row-event-handlers="pressed" :cache="4" />
      </template>
    </el-auto-resizer>
  </div>
</template>

<style scoped>
.list { height: max(360px, calc(100vh - 262px)) }
.list :deep(.el-table-v2) { --el-table-border-color: var(--rim-faint); --el-table-bg-color: none; --el-table-header-bg-color: var(--tray); --el-table-row-hover-bg-color: var(--rim-faint); --el-table-header-text-color: var(--ink-2); font-size: 1rem }
.list :deep(.el-table-v2__header-cell) { font-size: .8rem; font-weight: 500; padding: 0 6px }
.list :deep(.el-table-v2__row-cell) { padding: 0 6px }
.list :deep(.el-table-v2__row) { cursor: pointer }
.list :deep(.here) { background: var(--crust-soft) }
.list :deep(.name) { display: flex; gap: 9px; align-items: center; color: var(--ink); text-decoration: none; min-height: 36px; width: 100%; overflow: hidden; white-space: nowrap; text-overflow: ellipsis }
.list :deep(.name:hover) { text-decoration: underline }
.list :deep(.dot) { width: 10px; height: 10px; border-radius: 50%; background: var(--role); flex: none }
@media (max-width: 860px) { .list { height: 300px } }
</style>
