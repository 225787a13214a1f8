<script setup lang="ts">
/** Load after load: which is in, which is out, what goes in next. First shaped, first in. */
import { computed } from 'vue'
import { clockOf, untilText } from './words'
import type { BakeNow, Deed, TaskNow } from '@/api/client'
import { upper } from '@/base/format'

export interface LoadPartProps {
  task: TaskNow
  bake: BakeNow
  now: number
}
const props = defineProps<LoadPartProps>()
const emit = defineEmits<{ act: [...deeds: Deed[]] }>()

const loads = computed(() => props.bake.tasks.filter((one) => one.load >= 0))
const steps = computed(() => [...new Set(loads.value.map((one) => one.step))].map((step) => loads.value.filter((one) => one.step === step)))
const firstPiece = (one: TaskNow): number => loads.value.filter((own) => own.step === one.step && own.load < one.load).reduce((sum, own) => sum + own.pieces, 1)
const pieces = (one: TaskNow): string => (one.pieces === 1 ? `piece ${firstPiece(one)}` : `pieces ${firstPiece(one)} to ${firstPiece(one) + one.pieces - 1}`)
const says = (one: TaskNow): string => {
  if (one.status === 'done') return `out ${clockOf(one.done_s ?? 0)}`
  if (one.status === 'skipped') return 'left out'
  if (one.status === 'running') return one.rings_s == null ? `in since ${clockOf(one.began_s ?? 0)}` : one.rings_s > props.now ? `${untilText(one.rings_s - props.now)} to go` : `${untilText(props.now - one.rings_s)} over`
  return one.from_s == null || one.from_s <= props.now ? 'waits' : `waits, about ${clockOf(one.from_s)}`
}
</script>

<template>
  <div v-if="loads.length > 1" class="loads">
    <section v-for="own in steps" :key="own[0]?.step">
      <h3>{{ upper(own[0]?.label ?? '') }}</h3>
      <ol>
        <li v-for="one in own" :key="one.key" :class="[one.status, { here: one.key === task.key, late: one.status === 'running' && one.rings_s != null && one.rings_s <= now }]">
          <span class="n">{{ one.load + 1 }}</span><span class="which">{{ pieces(one) }}</span><b>{{ says(one) }}</b>
          <el-button v-if="one.status === 'running' && one.key !== task.key" @click="emit('act', { deed: 'done', task: one.key })">Out</el-button>
        </li>
      </ol>
    </section>
    <p class="quiet">First shaped, first in.</p>
  </div>
</template>

<style scoped>
.loads { display: grid; grid-template-columns: repeat(auto-fit, minmax(250px, 1fr)); gap: 6px 22px }
h3 { font-size: 1rem; color: var(--rim) }
ol { list-style: none; margin: 0; padding: 0 }
li { display: flex; gap: 10px; align-items: center; min-height: 40px; border-bottom: 1px solid var(--rim-faint); font-size: 1.08rem }
li b { margin-left: auto; font-weight: 650 }
.n { width: 28px; height: 28px; border-radius: 99px; display: grid; place-items: center; background: var(--rim-faint); font-weight: 700; flex: none }
.running .n { background: var(--crumb) }
.done { color: var(--ink-2) }
.here .which { font-weight: 700 }
.late b { color: var(--stop) }
.running b { color: var(--crust) }
</style>
