<script setup lang="ts">
/** Looser or stiffer at the mixer: a spoon of water or flour, or what was held back; the dough's figures follow. */
import { computed, ref } from 'vue'
import { gramsUnit } from './words'
import type { BakeNow, Deed } from '@/api/client'
import { plain, read, unitOf, type Units } from '@/base/format'

export interface MixerPartProps {
  bake: BakeNow
  mix: number
  units: Units
}
const props = defineProps<MixerPartProps>()
const emit = defineEmits<{ act: [...deeds: Deed[]] }>()

const HALF = 0.5
const ways = computed(() => props.bake.adjust.filter((one) => one.mix === props.mix))
const chosen = ref('')
const way = computed(() => ways.value.find((one) => one.line === chosen.value) ?? ways.value.find((one) => one.role === 'liquid') ?? ways.value[0] ?? null)
const cups = computed(() => props.bake.lines.filter((one) => one.what === 'held_back' && one.mix === props.mix && one.target_g != null))
const moved = computed(() => props.bake.gauges.filter((one) => Math.abs(one.now - one.meant) >= 0.05 && one.key !== 'protein'))
const text = ref('')
const bad = ref(false)
function typed(): void {
  const g = read(text.value.replace(/^[−-]/, ''), 'g', props.units)
  bad.value = g === null || Number.isNaN(g)
  if (bad.value || g === null || !way.value) return
  emit('act', { deed: 'added', line: way.value.line, mix: props.mix, name: '', role: 'liquid', g: /^[−-]/.test(text.value) ? -g : g, by: 'typed' })
  text.value = ''
}
const spoon = (times: number): void => {
  if (way.value) emit('act', { deed: 'added', line: way.value.line, mix: props.mix, name: '', role: 'liquid', g: Math.round(way.value.spoon_g * times * 10) / 10, by: 'spoons' })
}
</script>

<template>
  <details class="mixer" :open="moved.length > 0">
    <summary>Looser or stiffer</summary>
    <div class="body">
      <div class="kinds" role="radiogroup" aria-label="What goes in">
        <button v-for="one in ways" :key="one.line" type="button" role="radio" :aria-checked="one.line === way?.line" @click="chosen = one.line">{{ one.name }}</button>
      </div>
      <div v-if="way" class="amounts">
        <el-button @click="spoon(1)">+ 1 tbsp</el-button>
        <el-button @click="spoon(HALF)">+ ½ tbsp</el-button>
        <form @submit.prevent="typed"><input v-model="text" inputmode="decimal" :aria-label="`${way.name} added`" :aria-invalid="bad || undefined" autocomplete="off" /><span>{{ unitOf('g', units) }}</span><el-button native-type="submit" :disabled="!text.trim()">Added</el-button></form>
      </div>
      <p v-for="one in cups" :key="one.key" class="cup">Held back, {{ one.name }} {{ gramsUnit(one.target_g ?? 0, one.step_g, units) }}: <el-button @click="emit('act', { deed: 'held_back', line: one.key, g: one.target_g ?? 0 })">All in</el-button><el-button @click="emit('act', { deed: 'held_back', line: one.key, g: (one.target_g ?? 0) / 2 })">Half</el-button><el-button @click="emit('act', { deed: 'held_back', line: one.key, g: 0 })">None of it</el-button></p>
      <dl v-if="moved.length" class="moved"><template v-for="one in moved" :key="one.key"><dt>{{ one.label }}</dt><dd>{{ plain(one.meant) }} → <b class="worked">{{ plain(one.now) }} %</b><span v-if="one.lies === 'over' || one.lies === 'under'" class="quiet"> usual {{ plain(one.low ?? 0) }} to {{ plain(one.high ?? 0) }}</span></dd></template></dl>
    </div>
  </details>
</template>

<style scoped>
.mixer { border-top: 1px solid var(--rim-faint); padding-top: 6px }
summary { cursor: pointer; font: 650 1.1rem var(--head); color: var(--rim); min-height: 44px; display: flex; align-items: center }
summary::before { content: '›'; margin-right: 8px; font-size: 1.4rem; transition: transform .15s }
[open] > summary::before { transform: rotate(90deg) }
.body { display: grid; gap: 10px; padding-bottom: 6px }
.kinds, .amounts { display: flex; flex-wrap: wrap; gap: 8px; align-items: center }
.kinds button { min-height: 44px; padding: 0 14px; border: 2px solid var(--rim-soft); border-radius: 99px; background: none; cursor: pointer }
.kinds [aria-checked=true] { border-color: var(--rim); background: var(--rim); color: var(--on-rim); font-weight: 650 }
.amounts :deep(.el-button), .cup :deep(.el-button) { min-height: 48px; font-size: 1.05rem; margin-left: 0 }
form { display: flex; gap: 8px; align-items: center }
form input { width: 84px; min-height: 48px; border: 2px solid var(--rim-soft); border-radius: 12px; text-align: right; padding: 0 10px; font-size: 1.15rem; background: var(--tray) }
.cup { display: flex; flex-wrap: wrap; gap: 8px; align-items: center }
.moved { display: grid; grid-template-columns: auto 1fr; gap: 2px 14px; margin: 0; font-size: 1.1rem }
dd { margin: 0 }
</style>
