<script setup lang="ts">
/** What stands around a sheet: the way back, its papers and files, printing; until it is there, or why it is not. */
import { computed } from 'vue'
import type { RouteLocationRaw } from 'vue-router'
import { Refused } from '@/api/client'
import LinkButton from '@/design/LinkButton.vue'
import Said from '@/design/Said.vue'

export interface SheetFrameProps {
  /** The sheet is there. */
  ready: boolean
  /** Why it is not. */
  error: Error | null
  back: { to: RouteLocationRaw; label: string }
  /** The other sheet of the same count. */
  other: { to: RouteLocationRaw; label: string }
  /** Where the PDF on a paper is. */
  pdf: (paper: string) => string
}
const props = defineProps<SheetFrameProps>()
const emit = defineEmits<{ again: [] }>()

const PAPERS = [['A4', 'A4'], ['Letter', 'Letter'], ['roll', '80 mm roll']] as const
const title = computed(() => (props.error instanceof Refused ? props.error.problem.title : 'The sheet cannot be shown'))
const print = () => window.print()
</script>

<template>
  <main class="page sheet-page">
    <div class="page-head no-print">
      <LinkButton :to="back.to">{{ back.label }}</LinkButton>
      <LinkButton text :to="other.to">{{ other.label }}</LinkButton>
      <span class="spacer" />
      <template v-if="ready">
        <span class="quiet">PDF</span>
        <el-button tag="a" v-for="[paper, words] in PAPERS" :key="paper" :aria-label="`PDF, ${words}`" :href="pdf(paper)" target="_blank">{{ words }}</el-button>
        <slot name="files" />
        <el-button type="primary" @click="print">Print</el-button>
      </template>
    </div>
    <Said v-if="error" tone="stop">
      <strong>{{ title }}</strong>{{ error.message }}
      <div class="row">
        <LinkButton :to="back.to">{{ back.label }}</LinkButton>
        <el-button @click="emit('again')">Try again</el-button>
      </div>
    </Said>
    <p v-else-if="!ready" class="quiet">Reckoning the sheet …</p>
    <article v-else class="paper"><slot /></article>
  </main>
</template>

<style scoped>
.sheet-page { max-width: 980px }
.paper { background: var(--tray); border: 2px solid var(--rim); border-radius: var(--radius); padding: 26px 32px }
.paper :slotted(h1) { font-size: 1.7rem; overflow-wrap: anywhere }
@media (max-width: 700px) { .paper { padding: 14px } }
@media print {
  .sheet-page { padding: 0; max-width: none }
  .paper { border: 0; padding: 0; border-radius: 0 }
  .paper :slotted(*), .paper :deep(*) { color: #18222f; border-color: #b9c8dc }
}
</style>
