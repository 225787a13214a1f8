<script setup lang="ts">
/** A method from a text or a file, read into steps: in place of those of this way, or as a way of its own. */
import { computed, ref } from 'vue'
import { newKey, wayNumber } from './steps'
import { api, ask, Refused, type Count, type Formula, type Known } from '@/api/client'
import { plainCopy } from '@/base/copy'
import { tell } from '@/base/notice'
import FilePick from '@/design/FilePick.vue'
import Said from '@/design/Said.vue'

export interface ReadMethodProps {
  /** What lies on the desk; the read method is laid there by `read`. */
  formula: Formula
  count: Count
  known: Known
}
const props = defineProps<ReadMethodProps>()
const emit = defineEmits<{ read: [formula: Formula, way: string]; undo: [] }>()
const open = defineModel<boolean>({ required: true })

const MOST = 60_000
const text = ref('')
const refused = ref('')
const busy = ref(false)
const number = computed(() => wayNumber(props.formula, props.count))
const has = computed(() => Boolean(props.formula.ways[number.value]?.steps.length))

async function pick(file: File): Promise<void> {
  const read = await file.text()
  refused.value = read.length > MOST ? `That is more text than a method has: ${read.length} letters, of ${MOST} at most. Copy the method from it and paste that.` : ''
  if (!refused.value) text.value = read
}
async function read(asOwn: boolean): Promise<void> {
  busy.value = true
  refused.value = ''
  try {
    const { formula, way } = await ask(api.POST('/api/read/method', { body: { formula: plainCopy(props.formula), text: text.value, ...props.known } }))
    const old = formula.ways[number.value]
    const made = asOwn || !old ? { ...way, name: old ? 'As read' : 'As written', key: old ? newKey() : '' } : { ...old, steps: way.steps, written: way.written, dough_c: way.dough_c ?? old.dough_c }
    if (asOwn || !old) formula.ways.push(made)
    else formula.ways[number.value] = made
    emit('read', formula, made.key)
    open.value = false
    text.value = ''
    tell(`Read ${made.steps.length} steps.`, () => emit('undo'))
  } catch (caught) {
    if (!(caught instanceof Refused)) throw caught
    refused.value = caught.problem.errors?.[0]?.detail ?? caught.message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <el-dialog v-model="open" title="Read a method" width="min(720px, 94vw)" append-to-body>
    <Said v-if="refused" tone="stop">{{ refused }}</Said>
    <el-input v-model="text" type="textarea" :rows="12" :maxlength="MOST" aria-label="The method’s text" placeholder="Paste it as it is: one paragraph, numbered, in sections, in English or German. What is not understood stays as a note in its place." />
    <template #footer><div class="acts">
      <FilePick accept=".txt,.md,text/plain" @pick="pick">From a file</FilePick>
      <el-button v-if="has" :disabled="!text.trim() || busy" @click="read(true)">As another way</el-button>
      <el-button type="primary" :disabled="!text.trim() || busy" @click="read(false)">{{ has ? 'In place of these steps' : 'Read it' }}</el-button>
    </div></template>
  </el-dialog>
</template>

<style scoped>
.acts { display: flex; flex-wrap: wrap; justify-content: end; gap: 8px 10px }
</style>
