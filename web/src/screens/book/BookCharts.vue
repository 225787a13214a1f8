<script setup lang="ts">
/** Charts over the bakes that are looked for. */
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import ChartBox from './ChartBox.vue'
import { CHARTS } from './charts'
import type { SoughtFor } from './useBook'
import { api, ask } from '@/api/client'
import { takeOut } from '@/api/file'
import type { Units } from '@/base/format'
import { useAttempt } from '@/base/useAttempt'
import RefusedNote from '@/design/RefusedNote.vue'
import Said from '@/design/Said.vue'

export interface BookChartsProps {
  sought: SoughtFor
  units: Units
}
const props = defineProps<BookChartsProps>()
const router = useRouter()
const points = useQuery({ queryKey: computed(() => ['book', 'points', props.sought]), queryFn: () => ask(api.GET('/api/book/points', { params: { query: { ...props.sought } } })) })
const { refused, attempt } = useAttempt()
const out = () => attempt(() => takeOut(`/api/book/points.csv?${new URLSearchParams(Object.entries(props.sought).map(([key, value]) => [key, String(value)]))}`))
const open = (bake: string) => void router.push({ name: 'book-bake', params: { id: bake } })
</script>

<template>
  <div>
    <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
    <Said v-if="points.error.value" tone="stop"><strong>The charts cannot be drawn</strong>{{ points.error.value.message }}<div class="row"><el-button @click="points.refetch()">Try again</el-button></div></Said>
    <el-skeleton v-else-if="!points.data.value" :rows="6" animated aria-label="Fetching the figures" />
    <template v-else>
      <div class="charts"><ChartBox v-for="kind in CHARTS" :key="kind.key" :kind="kind" :points="points.data.value" @open="open" /></div>
      <p class="quiet foot">A point is a bake, and opens it. Points beside each other say nothing of why. <el-button text size="small" @click="out">Figures as CSV</el-button></p>
    </template>
  </div>
</template>

<style scoped>
.charts { display: grid; gap: 14px; grid-template-columns: repeat(auto-fit, minmax(min(420px, 100%), 1fr)) }
.foot { margin-top: 8px }
</style>
