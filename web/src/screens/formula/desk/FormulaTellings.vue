<script setup lang="ts">
/** What must be told of the formula as a whole: where its text is, what another window did, which revision is read. */
import type { useDesk } from './useDesk'
import type { View } from './useView'
import type { Refused, Revision } from '@/api/client'
import { when } from '@/base/format'
import KeptHere from '@/design/KeptHere.vue'
import LinkButton from '@/design/LinkButton.vue'
import OtherWindow from '@/design/OtherWindow.vue'
import RefusedNote from '@/design/RefusedNote.vue'
import Said from '@/design/Said.vue'

export interface FormulaTellingsProps {
  desk: ReturnType<typeof useDesk>
  view: View
  refused: Refused | null
  /** A revision is about to be saved: its dialog shows both texts. */
  saving: boolean
  /** The revision being read; its head once it is here, and why it is not. */
  revision: Revision | undefined
  revisionError: Error | null
}
const props = defineProps<FormulaTellingsProps>()
const emit = defineEmits<{ close: []; both: []; bringBack: []; branch: [] }>()
function beside(): void {
  const head = props.desk.head.value
  if (head) void props.view.compare({ id: head.id, revision: Math.max(1, (props.view.reading.value ?? 1) - 1) })
}
</script>

<template>
  <div class="tellings">
    <KeptHere v-if="desk.keeping.value === 'away'" :why="desk.why.value" />
    <RefusedNote v-if="refused" :refused="refused" @close="emit('close')" />
    <OtherWindow v-if="desk.keeping.value === 'behind' && !saving" what="formula" v-bind="desk.texts.value" @mine="desk.keepMine()" @theirs="desk.takeTheirs()" @both="emit('both')" />
    <Said v-if="desk.broughtBack.value && desk.keeping.value !== 'behind'">Text that had not reached the records was brought back from this browser.</Said>
    <Said v-if="view.reading.value !== undefined" tone="now">
      <strong>Reading revision {{ view.reading.value }}<template v-if="revision">: {{ revision.head.note || 'no note' }}, {{ when(revision.head.saved_at) }}</template></strong>
      <span v-if="revisionError">{{ revisionError.message }}</span>
      <div class="row">
        <template v-if="revision">
          <el-button @click="emit('bringBack')">Bring it back as a new revision</el-button>
          <el-button @click="emit('branch')">Branch a formula from it</el-button>
          <el-button v-if="desk.head.value && !view.comparing.value" @click="beside">Side by side with another</el-button>
        </template>
        <LinkButton :to="{ query: {} }">Back to what you are working on</LinkButton>
      </div>
    </Said>
  </div>
</template>
