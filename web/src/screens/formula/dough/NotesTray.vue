<script setup lang="ts">
/** Notes worth reading: each with its reason and its source, to be put to rest for this formula. */
import { computed, ref } from 'vue'
import type { Formula, Remark } from '@/api/client'
import Said from '@/design/Said.vue'

export interface NotesTrayProps {
  /** The desk's own formula; what is put to rest is kept in it. */
  formula: Formula
  remarks: readonly Remark[]
  /** Reading only: nothing can be put to rest. */
  locked: boolean
}
const props = defineProps<NotesTrayProps>()
const emit = defineEmits<{
  /** A step of undo of its own is about to be made. */
  step: []
  /** Go to a line: stage and line. */
  go: [stage: number, line: number]
}>()

const showsRested = ref(false)
const awake = computed(() => props.remarks.filter((remark) => !remark.rested || remark.caution))
const rested = computed(() => props.remarks.filter((remark) => remark.rested && !remark.caution))

function rest(key: string): void {
  emit('step')
  const { rested: keys } = props.formula
  props.formula.rested = keys.includes(key) ? keys.filter((k) => k !== key) : [...keys, key]
}
const lineOf = ({ at }: Remark) => (at[0] === 'stages' && at[2] === 'lines' ? ([Number(at[1]), Number(at[3])] as const) : null)
function go(remark: Remark): void {
  const at = lineOf(remark)
  if (at) emit('go', ...at)
}
const note = (remark: Remark) => ({ remark, line: lineOf(remark) })
</script>

<template>
  <section class="tray notes" aria-labelledby="notes-head">
    <div class="tray-head">
      <h2 id="notes-head">Worth knowing</h2>
      <el-button text v-if="rested.length" :aria-expanded="showsRested" @click="showsRested = !showsRested">{{ rested.length }} at rest</el-button>
    </div>
    <p v-if="!awake.length" class="quiet">Nothing out of the ordinary{{ rested.length ? ' but what is at rest' : '' }}.</p>
    <Said v-for="{ remark, line } in [...awake, ...(showsRested ? rested : [])].map(note)" :key="remark.key" :tone="remark.caution ? 'stop' : remark.rested ? 'plain' : 'now'" role="note">
      <strong>{{ remark.title }}</strong>
      <p>{{ remark.says }}</p>
      <small class="quiet">From: {{ remark.source }}</small>
      <div v-if="line || !remark.caution" class="row">
        <el-button text v-if="line" @click="go(remark)">To the line</el-button>
        <el-button text v-if="!remark.caution && !locked" @click="rest(remark.key)">{{ remark.rested ? 'Take it up again' : 'Put to rest' }}</el-button>
      </div>
    </Said>
  </section>
</template>

<style scoped>
.notes { display: grid; gap: 8px; align-content: start }
.said p { margin: 2px 0; line-height: 1.35 }
.row { margin-top: 3px }
.row .el-button { padding-left: 0; padding-right: 14px }
</style>
