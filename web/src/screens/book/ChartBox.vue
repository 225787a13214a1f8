<script setup lang="ts">
/** One chart: a point is a bake and opens it; its figures stand behind it as a table. */
import { useResizeObserver } from '@vueuse/core'
import { ScatterChart } from 'echarts/charts'
import { GridComponent, LegendComponent, TooltipComponent } from 'echarts/components'
import { init, use, type EChartsType } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { along, alongText, type ChartKind } from './charts'
import type { BookPoint } from '@/api/client'

use([ScatterChart, GridComponent, LegendComponent, TooltipComponent, SVGRenderer])

export interface ChartBoxProps {
  kind: ChartKind
  points: readonly BookPoint[]
}
const props = defineProps<ChartBoxProps>()
const emit = defineEmits<{ open: [bake: string] }>()
const box = ref<HTMLElement>()
let chart: EChartsType | undefined
const SHAPES = ['circle', 'diamond', 'triangle', 'rect', 'roundRect', 'pin'] as const
const COLOURS = ['--rim', '--role-leaven', '--role-inclusion', '--role-liquid', '--role-flavour', '--role-salt'] as const
const drawn = computed(() => props.points.flatMap((one) => {
  const [x, y] = [along(props.kind, one), props.kind.y(one)]
  return x === null || y === null ? [] : [{ one, x, y }]
}))
const names = computed(() => [...new Set(drawn.value.map((own) => own.one.name))].slice(0, SHAPES.length))
const told = computed(() => `${props.kind.title}: ${drawn.value.length} bakes. The figures stand in the table behind it.`)

function draw(): void {
  if (!chart || !box.value) return
  const style = getComputedStyle(box.value)
  const colour = (name: string) => style.getPropertyValue(name).trim()
  const words = { color: colour('--ink-2'), fontFamily: colour('--body'), fontSize: 12 }
  chart.setOption(
    {
      animation: false,
      grid: { left: 62, right: 16, top: 34, bottom: 26 },
      legend: { top: 0, left: 0, textStyle: words, itemWidth: 12, itemHeight: 10, icon: undefined, data: names.value, type: 'plain' },
      tooltip: { trigger: 'item', confine: true, backgroundColor: colour('--tip'), borderWidth: 0, textStyle: { color: colour('--on-tip'), fontFamily: colour('--body') }, formatter: (at: { data: [number, number, string, string] }) => `<b>${escaped(at.data[3])}</b><br>${alongText(props.kind, at.data[0])}<br>${props.kind.text(at.data[1])}` },
      xAxis: { type: props.kind.along === 'begun_at' ? 'time' : 'value', scale: true, axisLabel: { ...words, hideOverlap: true, formatter: (value: number) => (props.kind.along === 'begun_at' ? alongText(props.kind, value).replace(/ \d{4}$/, '') : alongText(props.kind, value)) }, axisLine: { lineStyle: { color: colour('--rim-soft') } }, splitLine: { show: false } },
      yAxis: { type: 'value', scale: !props.kind.fromZero, axisLabel: { ...words, formatter: (value: number) => props.kind.text(value).replace(/ of \d| points/, '') }, splitLine: { lineStyle: { color: colour('--rim-faint') } }, splitNumber: 4 },
      series: names.value.map((name, n) => ({
        name, type: 'scatter', symbol: SHAPES[n], symbolSize: 12, itemStyle: { color: colour(COLOURS[n] ?? '--rim'), borderColor: colour('--ink-2'), borderWidth: 1 },
        data: drawn.value.filter((own) => own.one.name === name).map((own) => [own.x, own.y, own.one.bake, own.one.name]),
      })),
    },
    true,
  )
}
const escaped = (text: string): string => text.replace(/[&<>"]/g, (one) => `&#${one.charCodeAt(0)};`)
onMounted(() => {
  chart = init(box.value as HTMLElement, undefined, { renderer: 'svg' })
  chart.on('click', (at) => emit('open', String((at.data as unknown[])[2])))
  draw()
})
watch(drawn, draw)
useResizeObserver(box, () => chart?.resize())
onBeforeUnmount(() => chart?.dispose())
</script>

<template>
  <section class="tray chart" :aria-label="kind.title">
    <div class="tray-head"><h2>{{ kind.title }}</h2><span class="quiet">{{ kind.says }}</span></div>
    <p v-if="!drawn.length" class="quiet none">No bake says anything of it yet.</p>
    <div v-show="drawn.length" ref="box" class="box" role="img" :aria-label="told" />
    <details v-if="drawn.length">
      <summary>Figures ({{ drawn.length }})</summary>
      <div class="scroll" tabindex="0" role="region" :aria-label="`${kind.title}, figures`">
        <table><thead><tr><th scope="col">Bake</th><th scope="col">{{ kind.along === 'begun_at' ? 'When' : 'Dough' }}</th><th scope="col">{{ kind.title }}</th></tr></thead>
          <tbody><tr v-for="own in [...drawn].reverse().slice(0, 200)" :key="own.one.bake"><th scope="row"><RouterLink :to="{ name: 'book-bake', params: { id: own.one.bake } }">{{ own.one.name || 'Formula without a name' }}</RouterLink></th><td>{{ alongText(kind, own.x) }}</td><td>{{ kind.text(own.y) }}</td></tr></tbody></table>
      </div>
    </details>
  </section>
</template>

<style scoped>
.box { height: 218px }
.none { padding: 24px 0 }
summary { cursor: pointer; color: var(--rim); font-weight: 600; min-height: 32px; line-height: 32px }
.scroll { max-height: 220px; overflow: auto }
table { width: 100%; border-collapse: collapse; font-size: .92rem }
th, td { text-align: right; padding: 3px 0 3px 10px; border-top: 1px solid var(--rim-faint); font-weight: 400 }
th:first-child { text-align: left; padding-left: 0 }
</style>
