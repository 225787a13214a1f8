<script setup lang="ts">
/** The targets of a count as tabs: what is made of the dough, one looked at at a time; add one, name it, take it away. */
import { computed, nextTick, ref } from 'vue'
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
const list = ref<HTMLElement>()
async function look(i: number): Promise<void> {
  emit('look', i)
  await nextTick()
  ;(list.value?.querySelectorAll('[role="tab"]')[i] as HTMLElement | undefined)?.focus()
}
const STEP: Record<string, number | undefined> = { ArrowRight: 1, ArrowLeft: -1 }
function key(event: KeyboardEvent, i: number): void {
  const step = STEP[event.key]
  if (!step) return
  event.preventDefault()
  void look((i + step + tabs.value.length) % tabs.value.length)
}
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
      <div ref="list" class="tabs" role="tablist" aria-label="What is made of the dough">
        <button v-for="(tab, i) in tabs" :key="i" type="button" role="tab" :aria-selected="i === target" :tabindex="i === target ? 0 : -1" @click="look(i)" @keydown="key($event, i)">
          <span class="worked">{{ tab.pieces }}</span> {{ tab.name }}
        </button>
      </div>
      <button v-if="!locked && count.targets.length < MOST" type="button" class="add" aria-label="Something else from the same dough" title="Something else from the same dough" @click="add">+</button>
    </div>
    <div v-if="count.targets.length > 1 && one" class="own">
      <input v-model="one.name" class="field" maxlength="300" :placeholder="`Target ${target + 1}: what it is`" :aria-label="`What target ${target + 1} is`" />
      <button type="button" class="button bare" :disabled="count.targets.length >= MOST" @click="twin">Again</button>
      <button type="button" class="button bare" @click="remove">Remove</button>
    </div>
  </div>
</template>

<style scoped>
.targets { margin: 4px 0 2px; border-top: 2px solid var(--rim-faint); padding-top: 6px }
.strip { display: flex; gap: 5px; align-items: start }
.tabs { display: flex; flex-wrap: wrap; gap: 5px; flex: 1; min-width: 0 }
.tabs button { border: 1.5px solid var(--rim-soft); background: none; border-radius: 10px; min-height: 38px; padding: 2px 9px; cursor: pointer; max-width: 100%; overflow: hidden; text-overflow: ellipsis; white-space: nowrap }
.tabs button[aria-selected='true'] { background: var(--rim-faint); border-color: var(--rim); font-weight: 650 }
.tabs .worked { font-weight: 700 }
.add { border: 1.5px dashed var(--rim-soft); background: none; border-radius: 10px; width: 40px; height: 38px; cursor: pointer; font-size: 1.2rem; line-height: 1 }
.add:hover { border-color: var(--rim) }
.own { display: flex; gap: 4px; margin-top: 5px }
.own .field { flex: 1; min-width: 0; min-height: 36px }
.own .button { padding-inline: 7px }
@media (max-width: 760px) { .tabs button, .add { min-height: 44px } }
</style>
