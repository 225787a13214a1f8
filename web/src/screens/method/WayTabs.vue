<script setup lang="ts">
/** The ways of a formula as tabs: one made by copying another and changing it; each can have stages of its own. */
import { computed } from 'vue'
import { copyOf, emptyWay, newKey, wayNumber } from './steps'
import type { Count, Formula } from '@/api/client'
import { plainCopy } from '@/base/copy'
import { tell } from '@/base/notice'

export interface WayTabsProps {
  /** The desk's own; they are edited in place. */
  formula: Formula
  count: Count
  locked: boolean
}
const props = defineProps<WayTabsProps>()
const emit = defineEmits<{ step: []; undo: [] }>()

const MOST = 8
const chosen = computed(() => wayNumber(props.formula, props.count))
const way = computed(() => props.formula.ways[chosen.value])
const called = (n: number) => props.formula.ways[n]?.name || (n ? `Way ${n + 1}` : 'The way')
function choose(n: number): void {
  const one = props.formula.ways[n]
  if (!one || n === chosen.value) return
  if (n > 0 && !one.key) one.key = newKey()
  props.count.way = one.key
}
function copy(): void {
  emit('step')
  if (!props.formula.ways.length) props.formula.ways.push(emptyWay())
  const made = copyOf(props.formula, props.formula.ways[chosen.value] ?? emptyWay())
  props.formula.ways.push(made)
  props.count.way = made.key
}
function remove(): void {
  emit('step')
  const [gone] = props.formula.ways.splice(chosen.value, 1)
  props.count.way = props.formula.ways[0]?.key ?? ''
  tell(`Removed the way ${gone?.name || 'without a name'}.`, () => emit('undo'))
}
function ownStages(own: boolean): void {
  emit('step')
  if (way.value) way.value.stages = own ? plainCopy(props.formula.stages) : null
}
</script>

<template>
  <div class="ways">
    <div class="strip">
      <el-tabs class="tabs" :model-value="String(chosen)" @tab-change="choose(Number($event))">
        <el-tab-pane v-for="(_, n) in formula.ways.length ? formula.ways : [null]" :key="n" :name="String(n)" :label="called(n)" />
      </el-tabs>
      <el-button v-if="!locked && formula.ways.length < MOST" text class="add" title="Another way, from a copy of this one" aria-label="Another way, from a copy of this one" @click="copy">+</el-button>
    </div>
    <div v-if="way && !locked" class="own">
      <el-input v-model="way.name" maxlength="300" placeholder="What this way is called" aria-label="What this way is called" />
      <el-checkbox v-if="formula.ways.length > 1" :model-value="way.stages != null" @change="ownStages(Boolean($event))">Stages of its own</el-checkbox>
      <el-button v-if="formula.ways.length > 1" text @click="remove">Remove</el-button>
    </div>
  </div>
</template>

<style scoped>
.strip { display: flex; gap: 4px; align-items: center }
.tabs { flex: 1; min-width: 0 }
.add { font-size: 1.3rem; width: var(--touch); padding: 0 }
.own { display: flex; flex-wrap: wrap; gap: 4px 14px; margin-top: 5px; align-items: center }
.own .el-input { flex: 1 1 180px }
</style>
