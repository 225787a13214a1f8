<script setup lang="ts">
/** The recipe as it is written, to be typed or pasted; each line in the colour of what it was taken to be. */
import { computed, ref } from 'vue'
import type { TakenLine } from '@/api/client'

export interface RecipeTextProps {
  /** What the lines were taken to be; may lag behind the text by a key. */
  lines: readonly TakenLine[]
  /** The line that is looked at, or −1. */
  at: number
}
const props = defineProps<RecipeTextProps>()
const text = defineModel<string>({ required: true })
const emit = defineEmits<{
  /** The caret went to another line. */
  look: [line: number]
}>()

const field = ref<HTMLTextAreaElement>()
const behind = computed(() => text.value.split('\n').map((line, n) => ({ line, kind: props.lines[n]?.text === line ? props.lines[n].kind : '' })))

function look(): void {
  const caret = field.value?.selectionStart ?? 0
  emit('look', text.value.slice(0, caret).split('\n').length - 1)
}
/** Bring a line into view, with the caret on it. */
function show(line: number): void {
  const begin = text.value.split('\n').slice(0, line).reduce((sum, one) => sum + one.length + 1, 0)
  field.value?.setSelectionRange(begin, begin)
  const row = field.value?.parentElement?.querySelectorAll('.behind span')[line]
  row?.scrollIntoView({ block: 'nearest' })
}
defineExpose({ show, focus: () => field.value?.focus() })
</script>

<template>
  <div class="recipe">
    <div class="sheet">
      <div class="behind" aria-hidden="true"><span v-for="(one, n) in behind" :key="n" :class="[one.kind, { at: n === at }]">{{ one.line || ' ' }}</span></div>
      <textarea ref="field" v-model="text" aria-label="The recipe as it is written" spellcheck="false" placeholder="Paste a recipe here, or type it:&#10;&#10;Squash rolls (makes 16)&#10;4 cups bread flour&#10;1 cup mashed squash&#10;¾ cup warm milk&#10;2 tsp salt …" @input="look" @click="look" @keyup="look" />
    </div>
  </div>
</template>

<style scoped>
.recipe { overflow: auto; min-height: 0; flex: 1; margin: 0 -8px; border-radius: 10px }
.recipe:has(textarea:focus-visible) { box-shadow: 0 0 0 2.5px var(--crust) }
.sheet { position: relative; min-height: 100%; display: grid }
.behind, textarea { grid-area: 1 / 1; font: inherit; line-height: 1.6; padding: 2px 8px; margin: 0; border: 0; white-space: pre-wrap; overflow-wrap: anywhere; letter-spacing: 0; tab-size: 4 }
.behind span { display: block; border-radius: 7px; margin: 0 -8px; padding: 0 8px }
textarea { background: none; color: transparent; caret-color: var(--ink); resize: none; outline: none; width: 100%; overflow: hidden; field-sizing: content; min-height: 100% }
textarea::placeholder { color: var(--ink-2) }
.title { color: var(--rim) }
.heading { color: var(--rim) }
.step, .note, .yield { color: var(--ink-2) }
.at { background: var(--crust-soft) }
@media (forced-colors: active) { textarea { color: CanvasText } .behind { display: none } }
</style>
