<script setup lang="ts">
/** The targets of a count as tabs: what is made of the dough, one looked at at a time; add one, name it, take it away. */
import { computed } from 'vue'
import { emptyTarget } from '@/screens/formula/desk/useDesk'
import type { Count, Whole } from '@/api/client'
import { plainCopy } from '@/base/copy'

export interface TargetTabsProps {
  /** The desk's own count; it is edited in place. */
  count: Count
  whole: Whole | null
  target: number
  locked: boolean
}
const props = defineProps<TargetTabsProps>()
const emit = defineEmits<{ look: [target: number]; step: [] }>()

const MOST = 12
const tabs = computed(() =>
  props.count.targets.map((target, i) => {
    const pieces = props.whole?.count.quantities[`pieces.${i}`]?.value
    const name = target.name || (target.pan?.name ?? '') || 'pieces'
    return { name, pieces: pieces === undefined ? '' : `${pieces} ×` }
  }),
)
function add(): void {
  emit('step')
  props.count.targets.push(emptyTarget(''))
  props.count.leave_remainder = false
  emit('look', props.count.targets.length - 1)
}
function twin(): void {
  emit('step')
  const own = props.count.targets[props.target]
  if (own) props.count.targets.push({ ...plainCopy(own), name: own.name && `${own.name}, again`.slice(0, 300) })
  emit('look', props.count.targets.length - 1)
}
function remove(): void {
  emit('step')
  props.count.targets.splice(props.target, 1)
  props.count.leave_remainder = false
  emit('look', Math.max(0, props.target - 1))
}
const one = computed(() => props.count.targets[props.target])
</script>

<template>
  <div class="targets">
    <div class="strip">
      <el-tabs class="tabs" :model-value="String(target)" @tab-change="emit('look', Number($event))">
        <el-tab-pane v-for="(tab, i) in tabs" :key="i" :name="String(i)"><template #label><span class="worked">{{ tab.pieces }}</span>&nbsp;{{ tab.name }}</template></el-tab-pane>
      </el-tabs>
      <el-button v-if="!locked && count.targets.length < MOST" text class="add" aria-label="Something else from the same dough" title="Something else from the same dough" @click="add">+</el-button>
    </div>
    <div v-if="count.targets.length > 1 && one" class="own">
      <el-input v-model="one.name" maxlength="300" :placeholder="`Target ${target + 1}: what it is`" :aria-label="`What target ${target + 1} is`" />
      <el-button text :disabled="count.targets.length >= MOST" @click="twin">Again</el-button>
      <el-button text @click="remove">Remove</el-button>
    </div>
  </div>
</template>

<style scoped>
.targets { margin: 4px 0 2px; border-top: 2px solid var(--rim-faint) }
.strip { display: flex; gap: 4px; align-items: center }
.tabs { flex: 1; min-width: 0 }
.tabs .worked { font-weight: 700 }
.add { font-size: 1.3rem; width: var(--touch); padding: 0 }
.own { display: flex; gap: 4px; margin-top: 5px; align-items: center }
</style>
