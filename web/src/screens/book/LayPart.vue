<script setup lang="ts">
/** Something that was done otherwise, and the formula with it: laid on the desk with one press; what lies there unsaved is asked about first. */
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { layOnDesk } from './lay'
import type { Formula } from '@/api/client'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import LinkButton from '@/design/LinkButton.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import Said from '@/design/Said.vue'

export interface LayPartProps {
  formulaId: number
  formula: Formula
  /** What the notice says once it lies there. */
  says: string
  /** For the revision, shown to be copied by the baker. */
  label?: string
}
const props = withDefaults(defineProps<LayPartProps>(), { label: 'Lay it on the desk' })
const router = useRouter()
const { refused, attempt } = useAttempt()
const asked = ref(false)
const lay = (sure: boolean) => attempt(async () => {
  if (!(await layOnDesk(props.formulaId, props.formula, sure))) return void (asked.value = true)
  tell(props.says)
  await router.push({ name: 'formula', params: { id: props.formulaId } })
})
</script>

<template>
  <div class="lay">
    <el-button @click="lay(false)">{{ label }}</el-button>
    <Said v-if="asked" tone="now"><strong>The desk has something that is not saved</strong>It would be gone, but for what its last revision has.<div class="row"><el-button @click="lay(true)">Lay it on top</el-button><LinkButton :to="{ name: 'formula', params: { id: formulaId } }">See the desk first</LinkButton></div></Said>
    <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
  </div>
</template>

<style scoped>
.lay { display: grid; gap: 6px; justify-items: start }
</style>
