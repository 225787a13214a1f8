<script setup lang="ts">
/** Something that the baker decides, each way with its result. */
import type { Deed, Question } from '@/api/client'

export interface QuestionPanelProps {
  question: Question
}
defineProps<QuestionPanelProps>()
const emit = defineEmits<{ choose: [deeds: Deed[], pours: boolean] }>()
</script>

<template>
  <section class="question" :aria-label="question.title">
    <h2>{{ question.title }}</h2>
    <p class="says">{{ question.says }}</p>
    <div class="ways">
      <article v-for="(option, n) in question.options" :key="option.key">
        <el-button class="big" @click="emit('choose', option.deeds, option.deeds.length === 0)">{{ option.label }}<kbd>{{ n + 1 }}</kbd></el-button>
        <ul><li v-for="line in option.says" :key="line">{{ line }}</li></ul>
      </article>
    </div>
  </section>
</template>

<style scoped>
.question { border: 2px solid var(--crust); border-radius: var(--radius); background: var(--crust-soft); padding: 12px 14px; display: grid; gap: 8px }
h2 { font-size: 1.5rem; color: var(--ink) }
.says { font-size: 1.1rem }
.ways { display: grid; gap: 8px }
article { display: grid; grid-template-columns: minmax(0, 230px) minmax(0, 1fr); gap: 6px 14px; align-items: start; background: var(--tray); border-radius: 12px; padding: 8px }
article :deep(.big) { width: 100%; white-space: normal; line-height: 1.15 }
ul { list-style: none; margin: 0; padding: 4px 0 0; display: grid; gap: 3px }
li { font-size: 1.05rem }
@media (max-width: 600px) { article { grid-template-columns: minmax(0, 1fr) } }
</style>
