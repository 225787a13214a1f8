<script setup lang="ts">
/** Another window was first: both texts, what differs in them, and which is to go on. */
import { computed } from 'vue'
import Said from '@/design/Said.vue'

export interface OtherWindowProps {
  /** "formula", "recipe". */
  what: string
  /** This window's text, and the other's; null until it is here. */
  ours: readonly string[]
  theirs: readonly string[] | null
  /** What pressing the first button does. */
  mine?: string
  /** What pressing the last does. */
  both?: string
}
const props = withDefaults(defineProps<OtherWindowProps>(), { mine: 'Keep mine', both: 'Keep both: mine as one of its own' })
const emit = defineEmits<{ mine: []; theirs: []; both: [] }>()

const only = (lines: readonly string[], others: readonly string[]) => {
  const there = new Set(others)
  return lines.filter((line) => !there.has(line))
}
const onlyOurs = computed(() => only(props.ours, props.theirs ?? []))
const onlyTheirs = computed(() => only(props.theirs ?? [], props.ours))
const alike = computed(() => props.ours.length - onlyOurs.value.length)
</script>

<template>
  <Said tone="stop" class="other-window">
    <strong>This {{ what }} was changed in another window.</strong>
    Neither text is lost: say which goes on.
    <div v-if="theirs" class="both">
      <section v-for="[title, lines] in [['This window', onlyOurs], ['The other window', onlyTheirs]] as const" :key="title">
        <h3>{{ title }}</h3>
        <ul v-if="lines.length"><li v-for="(line, n) in lines" :key="n">{{ line }}</li></ul>
        <p v-else class="quiet">nothing that the other has not</p>
      </section>
    </div>
    <p v-else class="quiet" role="status">Fetching what the other window left …</p>
    <p v-if="theirs && alike" class="quiet">{{ alike }} {{ alike === 1 ? 'line is' : 'lines are' }} alike.</p>
    <div class="row">
      <el-button :disabled="!theirs" @click="emit('mine')">{{ mine }}</el-button>
      <el-button :disabled="!theirs" @click="emit('theirs')">Take theirs</el-button>
      <el-button @click="emit('both')">{{ both }}</el-button>
    </div>
  </Said>
</template>

<style scoped>
.both { display: grid; grid-template-columns: repeat(auto-fit, minmax(min(240px, 100%), 1fr)); gap: 6px 16px; margin: 8px 0 }
h3 { margin: 0 0 2px; font-size: 1rem }
ul { margin: 0; padding: 0; list-style: none; max-height: 34vh; overflow: auto }
li { padding: 3px 8px; border-radius: 7px; background: var(--tray); margin-bottom: 3px; overflow-wrap: anywhere; white-space: pre-wrap }
p { margin: 0 }
</style>
