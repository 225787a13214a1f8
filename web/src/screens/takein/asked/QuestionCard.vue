<script setup lang="ts">
/** A question worth asking, with what each answer would make of the dough. */
import { computed } from 'vue'
import type { Asked } from '@/api/client'
import { plain } from '@/base/format'

export interface QuestionCardProps {
  asked: Asked
}
const props = defineProps<QuestionCardProps>()
const emit = defineEmits<{
  /** An answer was chosen; null leaves it open again. */
  answer: [option: string | null]
}>()

const digits = (value: number) => plain(value, value < 10 ? 2 : 3)
const options = computed(() => props.asked.effects.map((e) => ({ ...e, makes: `${e.figure.split(',')[0]?.toLowerCase()} ${digits(e.usual)} %` })))

const STEP: Record<string, number | undefined> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }
function key(event: KeyboardEvent): void {
  const step = STEP[event.key]
  const buttons = [...((event.currentTarget as HTMLElement).parentElement?.children ?? [])] as HTMLElement[]
  if (!step) return
  event.preventDefault()
  buttons[(buttons.indexOf(event.currentTarget as HTMLElement) + step + buttons.length) % buttons.length]?.focus()
}
</script>

<template>
  <section class="card" :class="{ answered: asked.answer }" :aria-label="asked.asks">
    <div class="head"><h3>{{ asked.asks }}</h3><el-button v-if="asked.answer" text size="small" :aria-label="`${asked.asks} Leave it open`" @click="emit('answer', null)">open again</el-button></div>
    <p class="quiet about" :title="asked.about">{{ asked.about }}</p>
    <div class="options" role="radiogroup" :aria-label="asked.asks">
      <button v-for="(option, i) in options" :key="option.option" type="button" role="radio" :aria-checked="option.option === asked.answer" :tabindex="option.option === asked.answer || (!asked.answer && i === 0) ? 0 : -1" @click="emit('answer', option.option)" @keydown="key">
        <b>{{ option.label }}</b><small>{{ option.makes }}</small>
      </button>
    </div>
  </section>
</template>

<style scoped>
.card { border: 1.5px solid var(--crust); border-radius: var(--radius); background: var(--tray); padding: 8px 13px 12px; display: grid; gap: 4px; align-content: start; min-width: 0 }
.card.answered { border-color: var(--rim-soft) }
h3 { font: 650 1rem var(--body) }
.about { overflow: hidden; text-overflow: ellipsis; white-space: nowrap }
.options { display: grid; gap: 5px }
.options button { display: flex; justify-content: space-between; align-items: center; gap: 10px; text-align: left; border: 2px solid var(--rim-soft); border-radius: 12px; background: none; padding: 3px 11px; min-height: var(--touch); cursor: pointer }
.options button:hover { border-color: var(--rim) }
.options button[aria-checked='true'] { border-color: var(--rim); background: var(--rim-faint) }
.options b { font-weight: 600 }
small { color: var(--crust); font-size: .85rem; white-space: nowrap }
.head { display: flex; justify-content: space-between; align-items: center; min-height: 30px; gap: 8px }
</style>
