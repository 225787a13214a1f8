<script setup lang="ts">
/** How a number was worked out: the relation in words and figures, and where each figure came from. */
import { nextTick, ref, watch } from 'vue'
import type { Working } from './words'
import type { Gauge } from '@/api/client'
import NumberBox from '@/design/NumberBox.vue'
import type { Units } from '@/base/format'

export interface WorkingCardProps {
  working: Working
  /** The gauge whose working it is; its band may be made the baker's own. */
  band?: Gauge
  /** Reading only: nothing can be changed. */
  locked: boolean
  units: Units
}
const props = defineProps<WorkingCardProps>()
const emit = defineEmits<{ open: [opened: string]; close: []; band: [gauge: string, band: { low: number; high: number } | null] }>()

const low = ref<number | null>(null)
const high = ref<number | null>(null)
watch(() => props.band, (now) => {
  low.value = now?.low ?? null
  high.value = now?.high ?? null
}, { immediate: true })
const sound = () => low.value !== null && high.value !== null && low.value <= high.value
function setBand(): void {
  if (props.band && low.value !== null && high.value !== null && sound()) emit('band', props.band.key, { low: low.value, high: high.value })
}

const card = ref<HTMLElement>()
watch(() => props.working.title, () => void nextTick(() => card.value?.focus()), { immediate: true })
</script>

<template>
  <section ref="card" class="working" tabindex="-1" role="dialog" aria-labelledby="working-head" @keydown.esc.stop="emit('close')">
    <div class="head">
      <h2 id="working-head">{{ working.title }} <span class="worked">{{ working.figure }}</span></h2>
      <el-button text @click="emit('close')">Close <kbd>Esc</kbd></el-button>
    </div>
    <p>{{ working.says }}</p>
    <p v-if="working.words" class="quiet">{{ working.title.toLowerCase() }} = {{ working.words }}</p>
    <p v-if="working.figures" class="figures">{{ working.figures }}</p>
    <ul v-if="working.inputs.length">
      <li v-for="input in working.inputs" :key="input.label">
        <component :is="input.opens ? 'button' : 'span'" :type="input.opens ? 'button' : undefined" class="input" @click="input.opens && emit('open', input.opens)">
          <span>{{ input.label }}</span><b :class="{ worked: input.opens }">{{ input.figure }}</b><small class="quiet">{{ input.from }}</small>
        </component>
      </li>
    </ul>
    <form v-if="band && !locked" class="band" @submit.prevent="setBand">
      <span>Band for this dough</span>
      <NumberBox :value="low" kind="percent" :units="units" label="Low end of the band" @change="low = $event" /> to
      <NumberBox :value="high" kind="percent" :units="units" label="High end of the band" @change="high = $event" /> %
      <el-button text native-type="submit" :disabled="!sound()">Set</el-button>
      <el-button text v-if="band.of === 'formula'" @click="emit('band', band.key, null)">The style’s again</el-button>
    </form>
  </section>
</template>

<style scoped>
.working { position: fixed; z-index: 40; left: 50%; bottom: 16px; transform: translateX(-50%); width: min(560px, calc(100vw - 24px)); max-height: 70vh; overflow: auto; background: var(--tray); border: 2px solid var(--crust); border-radius: var(--radius); padding: 12px 16px; box-shadow: 0 10px 30px rgb(16 22 30 / 25%) }
.head { display: flex; justify-content: space-between; align-items: center; gap: 10px }
.band { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; margin-top: 8px; font-size: .92rem }
.band .el-input { width: 84px }
.figures { font-size: 1.12rem; font-weight: 650; margin: 4px 0 6px }
ul { list-style: none; margin: 6px 0 0; padding: 0 }
.input { display: grid; grid-template-columns: 1fr auto 150px; gap: 12px; align-items: baseline; width: 100%; text-align: left; border: 0; border-top: 1px solid var(--rim-faint); background: none; padding: 7px 4px }
button.input { cursor: pointer }
button.input:hover { background: var(--crust-soft) }
@media (max-width: 700px) { .input { grid-template-columns: 1fr auto } .input small { grid-column: 1 / -1 } }
@media print { .working { display: none } }
</style>
