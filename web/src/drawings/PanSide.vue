<script setup lang="ts">
/**
 * A pan cut through from the side, to scale: level dough as divided, doubled and baked, against the rim. The dough's line
 * can be dragged, or moved with the arrow keys, to set the fill. All measures in cm.
 */
import { computed, ref } from 'vue'
import { filled, hollows, walls } from './solid'
import type { Panned } from '@/api/client'
import OpenWorking from '@/design/OpenWorking.vue'
import { outline, withUnit, type Units } from '@/base/format'

export interface PanSideProps {
  panned: Panned
  units: Units
  /** Pixels to a centimetre, the same as the top view's. */
  scale: number
  /** Reading only: the line stays where it is. */
  locked: boolean
}
const props = defineProps<PanSideProps>()
const emit = defineEmits<{
  working: [opened: string]
  /** A fill that the dough's line was moved to. */
  fill: [fill: number]
}>()

const MARGIN = 26
const WALL = 5
const LEAST_ABOVE = 14
const MOST_DRAWN_RIMS = 3
const across = computed(() => outline(props.panned.solid)[0])
const w = computed(() => across.value * props.scale)
const rim = computed(() => props.panned.solid.depth_cm)
const parts = computed(() => hollows(props.panned.solid, across.value))
const most = computed(() => (rim.value ? rim.value * MOST_DRAWN_RIMS + 2 : 20))
const divided = computed(() => Math.min(props.panned.depths.divided_cm, most.value))
const doubled = computed(() => Math.min(props.panned.depths.doubled_cm, most.value))
const baked = computed(() => Math.min(props.panned.depths.baked_cm, most.value))
const top = computed(() => Math.max(rim.value, doubled.value, baked.value) * props.scale + LEAST_ABOVE)
const told = computed(
  () =>
    `Pan from the side: dough ${withUnit(props.panned.depths.divided_cm, 'cm', props.units)} deep as divided, ` +
    `${withUnit(props.panned.depths.doubled_cm, 'cm', props.units)} when doubled` +
    (rim.value ? `, rim at ${withUnit(rim.value, 'cm', props.units)}` : ''),
)
const DEPTHS = [
  ['depth_divided', 'now', 'as divided', 'divided_cm'],
  ['depth_doubled', 'up', 'doubled', 'doubled_cm'],
  ['depth_baked', 'done', 'baked', 'baked_cm'],
] as const

/* Dragging: the server tells which fill each depth is; here a place between two of them is read off. */
const drawing = ref<SVGSVGElement>()
const canDrag = computed(() => !props.locked && props.panned.rungs.length > 1)
function fillAt(depth: number): number {
  const rungs = props.panned.rungs
  const above = rungs.findIndex((rung) => rung.depth_cm >= depth)
  const high = rungs[above < 0 ? rungs.length - 1 : above]
  const low = above > 0 ? rungs[above - 1] : undefined
  if (!high) return 0
  if (above < 0) return high.fill
  const from = low ?? { depth_cm: 0, fill: 0 }
  return from.fill + ((high.fill - from.fill) * (depth - from.depth_cm)) / (high.depth_cm - from.depth_cm)
}
function drag(event: PointerEvent): void {
  if (!canDrag.value || !drawing.value || !(event.buttons & 1)) return
  const box = drawing.value.getBoundingClientRect()
  const perPixel = (top.value + WALL + 2) / box.height
  const depth = (top.value - (event.clientY - box.top) * perPixel) / props.scale
  emit('fill', Number(fillAt(Math.max(0.05, depth)).toPrecision(3)))
}
function start(event: PointerEvent): void {
  if (!canDrag.value) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
const STEP = 0.02
const KEYS: Record<string, number | undefined> = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 5, PageDown: -5 }
function key(event: KeyboardEvent): void {
  const steps = KEYS[event.key]
  if (!steps || !canDrag.value) return
  event.preventDefault()
  emit('fill', Number((props.panned.fill * (1 + STEP * steps)).toPrecision(3)))
}
</script>

<template>
  <div class="side">
    <svg ref="drawing" :viewBox="`${-MARGIN} ${-top} ${w + 2 * MARGIN} ${top + WALL + 2}`" :width="w + 2 * MARGIN" :height="top + WALL + 2" role="group" :aria-label="told">
      <template v-for="(part, i) in parts" :key="i">
        <path class="risen" :class="{ over: panned.past_rim }" :d="filled(part, doubled, rim, scale)" />
        <path class="dough" :d="filled(part, divided, rim, scale)" />
        <path class="baked" :d="`M${(part.middle - part.half(baked)) * scale} ${-baked * scale}H${(part.middle + part.half(baked)) * scale}`" />
        <path class="line" :d="`M${(part.middle - part.half(doubled)) * scale} ${-doubled * scale}H${(part.middle + part.half(doubled)) * scale}`" />
        <path v-if="rim" class="pan" :d="walls(part, rim, scale)" :stroke-width="WALL" />
      </template>
      <path v-if="!rim" class="pan" :d="`M0 ${WALL / 2}H${w}`" :stroke-width="WALL" />
      <g
        v-if="canDrag"
        class="handle"
        tabindex="0"
        role="slider"
        aria-label="Fill: how deep the dough stands as divided"
        :aria-valuenow="panned.fill"
        :aria-valuemin="panned.rungs[0]?.fill"
        :aria-valuemax="panned.rungs.at(-1)?.fill"
        :aria-valuetext="`${withUnit(panned.depths.divided_cm, 'cm', units)} deep`"
        @pointerdown="start"
        @pointermove="drag"
        @keydown="key"
      >
        <rect class="grip" :x="-8" :y="-divided * scale - 14" :width="w + 16" height="28" />
        <path :d="`M0 ${-divided * scale}H${w}`" />
        <circle :cx="w + 4" :cy="-divided * scale" r="9" />
        <path class="arrows" :d="`M${w + 1} ${-divided * scale - 2}l3 -3l3 3M${w + 1} ${-divided * scale + 2}l3 3l3 -3`" />
      </g>
    </svg>
    <dl>
      <div v-for="[name, mark, label, field] in DEPTHS" :key="name" :class="{ over: name === 'depth_doubled' && panned.past_rim }">
        <dt><i class="key" :class="mark" />{{ label }}</dt><dd><OpenWorking :name="name" @open="emit('working', $event)">{{ withUnit(panned.depths[field], 'cm', units) }}</OpenWorking></dd>
      </div>
      <div v-if="rim"><dt>rim</dt><dd>{{ withUnit(rim, 'cm', units) }}</dd></div>
    </dl>
  </div>
</template>

<style scoped>
svg { display: block; max-width: 100%; height: auto; margin: 0 auto; touch-action: none }
.pan { fill: none; stroke: var(--rim); stroke-linejoin: round; stroke-linecap: round }
.dough { fill: var(--crumb) }
.risen { fill: var(--dough); fill-opacity: .6 }
.line { stroke: var(--crust); stroke-width: 2; stroke-dasharray: 6 4; fill: none }
.baked { stroke: var(--crumb); stroke-width: 2; stroke-dasharray: 2 4; fill: none }
.over.risen { fill: var(--stop-soft) }
.handle { cursor: ns-resize; outline: none }
.handle .grip { fill: transparent }
.handle path { stroke: var(--rim); stroke-width: 2; fill: none }
.handle circle { fill: var(--tray); stroke: var(--rim); stroke-width: 2 }
.handle:hover circle, .handle:focus-visible circle { fill: var(--rim-faint); stroke-width: 3.5 }
.handle .arrows { stroke-width: 1.6; fill: none }
dl { display: flex; flex-wrap: wrap; gap: 2px 14px; margin: 6px 0 0; justify-content: center; font-size: .9rem }
dl div { display: flex; gap: 5px; align-items: baseline }
dt { color: var(--ink-2) }
dd { margin: 0; font-weight: 700 }
div.over .opens { color: var(--stop) }
.key { display: inline-block; width: 14px; height: 10px; border-radius: 3px; margin-right: 5px; background: var(--crumb) }
.key.up { background: none; border-top: 2px dashed var(--crust); border-radius: 0; height: 4px }
.key.done { background: none; border-top: 2px dotted var(--crumb); border-radius: 0; height: 4px }
</style>
