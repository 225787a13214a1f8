<script setup lang="ts">
/** Save a revision: what was tried, in a word or two; or both texts, where another window was first. */
import { ref } from 'vue'
import type { Refused } from '@/api/client'
import OtherWindow from '@/design/OtherWindow.vue'
import Said from '@/design/Said.vue'

export interface SaveDialogProps {
  problem: Refused | null
  saving: boolean
  texts: { ours: readonly string[]; theirs: readonly string[] | null }
}
defineProps<SaveDialogProps>()
const open = defineModel<boolean>({ required: true })
const note = defineModel<string>('note', { required: true })
const emit = defineEmits<{ save: []; onTop: []; theirs: []; both: [] }>()
const field = ref<{ focus: () => void }>()
</script>

<template>
  <el-dialog v-model="open" :title="problem?.isBehind ? 'Not saved yet' : 'Save a revision'" :width="problem?.isBehind ? 'min(820px, 94vw)' : 'min(520px, 94vw)'" @opened="field?.focus()">
    <el-form label-position="top" @submit.prevent="emit('save')">
      <el-form-item label="What did you try? A word or two, if you like."><el-input ref="field" v-model="note" maxlength="300" /></el-form-item>
      <OtherWindow v-if="problem?.isBehind" what="formula" v-bind="texts" mine="Save mine on top" @mine="emit('onTop')" @theirs="emit('theirs')" @both="emit('both')" />
      <Said v-else-if="problem" tone="stop"><strong>{{ problem.problem.title }}</strong>{{ problem.message }}</Said>
      <div class="dialog-foot">
        <el-button @click="open = false">Not now</el-button>
        <el-button v-if="!problem?.isBehind" type="primary" native-type="submit" :disabled="saving">Save</el-button>
      </div>
    </el-form>
  </el-dialog>
</template>
