<script setup lang="ts">
/** What was forgotten of a bake and is known now: temperatures, the dough on the scale, pieces, how long steps took. What is told last holds. */
import { reactive, ref, watch } from 'vue'
import ToldFields from './ToldFields.vue'
import { emptyTold, sentTold } from './told'
import { api, ask, type BakeRecord } from '@/api/client'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import type { Units } from '@/base/format'
import RefusedNote from '@/design/RefusedNote.vue'

export interface TellMoreProps {
  bake: string
  record: BakeRecord
  units: Units
}
const props = defineProps<TellMoreProps>()
const shows = defineModel<boolean>({ required: true })
const emit = defineEmits<{ told: [] }>()
const told = reactive(emptyTold())
const id = ref('')
watch(shows, (now) => {
  if (!now) return
  Object.assign(told, emptyTold())
  id.value = crypto.randomUUID()
})
const { refused, attempt } = useAttempt()
const keep = () => attempt(async () => {
  await ask(api.POST('/api/book/bakes/{bake_id}/told', { params: { path: { bake_id: props.bake } }, body: { id: id.value, told: sentTold(told) } }))
  shows.value = false
  emit('told')
  tell('It is in the book.')
})
const steps = () => props.record.steps.filter((one) => one.planned_min > 0 && !one.label.includes(', load')).map((one) => ({ key: one.key, label: one.label, planned_min: one.planned_min }))
</script>

<template>
  <el-dialog v-model="shows" title="Tell more of it" width="min(760px, 96vw)" align-center>
    <p class="quiet">Only what is known. What was told before stays, but for what is told anew.</p>
    <ToldFields v-model="told" :lines="[]" :steps="steps()" :units="units" />
    <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
    <div class="dialog-foot"><el-button @click="shows = false">Cancel</el-button><el-button type="primary" @click="keep">Keep it</el-button></div>
  </el-dialog>
</template>
