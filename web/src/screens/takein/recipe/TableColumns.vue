<script setup lang="ts">
/** Which column of a table holds what: asked once for each kind of table, remembered from then on. */
import { computed, ref, watch } from 'vue'
import { api, ask, Refused, type Table } from '@/api/client'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'

export interface TableColumnsProps {
  table: Table
  /** The table's text, whole. */
  text: string
  title: string
}
const props = defineProps<TableColumnsProps>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{
  /** The table as recipe text. */
  read: [text: string]
}>()

type Column = keyof Table['mapping']
const COLUMNS: readonly (readonly [Column, string])[] = [
  ['ingredient', 'the ingredient'],
  ['amount', 'the amount'],
  ['unit', 'its unit'],
  ['grams', 'grams'],
  ['percent', '% of flour'],
  ['note', 'a note'],
  ['stage', 'the stage'],
  ['line', 'a whole line'],
]
const OPTIONS = [{ value: '', label: 'nothing needed' }, ...COLUMNS.map(([value, label]) => ({ value: value as string, label }))]
const mapping = ref<Record<string, number>>({})
const refused = ref('')
watch(() => props.table, (now) => (mapping.value = { ...now.mapping } as Record<string, number>), { immediate: true })

const held = computed(() => props.table.head.map((_, at) => Object.keys(mapping.value).find((column) => mapping.value[column] === at) ?? ''))
function hold(at: number, column: string): void {
  const others = Object.entries(mapping.value).filter(([key, place]) => place !== at && key !== column)
  mapping.value = Object.fromEntries(column ? [...others, [column, at]] : others)
}
async function read(): Promise<void> {
  try {
    const found = await ask(api.POST('/api/take-in/table', { body: { text: props.text, mapping: mapping.value as Table['mapping'], title: props.title } }))
    open.value = false
    emit('read', found.text)
  } catch (caught) {
    if (!(caught instanceof Refused)) throw caught
    refused.value = caught.problem.errors?.[0]?.detail ?? caught.message
  }
}
</script>

<template>
  <el-dialog v-model="open" title="What do the columns hold?" width="min(900px, 96vw)" append-to-body>
    <p class="quiet">Said once, it is remembered for the next table with this head.</p>
    <div class="scroll" tabindex="0" role="region" aria-label="The first rows of the table">
      <table>
        <thead>
          <tr>
            <th v-for="(head, at) in table.head" :key="at">{{ head || `column ${at + 1}` }}<SelectField :value="held[at]" :options="OPTIONS" :label="`What ${head || `column ${at + 1}`} holds`" @choose="hold(at, $event)" /></th>
          </tr>
        </thead>
        <tbody><tr v-for="(row, n) in table.rows" :key="n"><td v-for="(_, at) in table.head" :key="at">{{ row[at] ?? '' }}</td></tr></tbody>
      </table>
    </div>
    <Said tone="stop" v-if="refused">{{ refused }}</Said>
    <div class="dialog-foot">
      <el-button @click="open = false">Not now</el-button>
      <el-button type="primary" @click="read">Take it in</el-button>
    </div>
  </el-dialog>
</template>

<style scoped>
.scroll { overflow-x: auto; margin: 10px 0 }
table { border-collapse: collapse; width: 100% }
th, td { text-align: left; padding: 6px 8px; border-bottom: 1px solid var(--rim-faint); white-space: nowrap; min-width: 150px }
th .el-select { margin-top: 4px; font-weight: 400 }
</style>
