<script setup lang="ts">
/** What comes next for the hands, and every timer, the next to ring first. */
import { computed, ref } from 'vue'
import { clockOf, taskName, untilText } from './words'
import type { BakeNow, Deed, TaskNow } from '@/api/client'
import { read, type Units } from '@/base/format'

export interface NextTrayProps {
  bake: BakeNow
  /** What is to be done after what is shown, in order. */
  next: readonly TaskNow[]
  now: number
  units: Units
}
const props = defineProps<NextTrayProps>()
const emit = defineEmits<{ go: [key: string]; act: [...deeds: Deed[]] }>()
const QUICK = [1, 5, 10]
const minutes = ref('')
const name = ref('')
function set(value: number | null): void {
  if (value === null || Number.isNaN(value) || value <= 0) return
  emit('act', { deed: 'timer_set', name: name.value.trim(), minutes: value })
  minutes.value = name.value = ''
}
/** While something of the dough is still to be weighed. */
const mixes = computed(() => props.bake.lines.some((one) => one.status === 'open' && one.what === 'line'))
const timers = computed(() => props.bake.timers)
</script>

<template>
  <section class="tray" aria-labelledby="next-head">
    <div class="tray-head"><h2 id="next-head">Next for your hands</h2></div>
    <ol class="next">
      <li v-for="one in next" :key="one.key"><button type="button" @click="emit('go', one.key)"><span>{{ taskName(one) }}</span><b v-if="one.from_s != null && one.from_s > now + 60">{{ clockOf(one.from_s) }}</b></button></li>
      <li v-if="!next.length" class="quiet">Nothing more.</li>
    </ol>
    <h2 id="timers-head">Timers</h2>
    <ul class="timers" aria-labelledby="timers-head">
      <li v-for="one in timers" :key="one.key" :class="{ late: one.rings_s <= now }">
        <button type="button" class="called" :disabled="!one.task" @click="emit('go', one.task)">{{ one.name }}</button>
        <b>{{ untilText(one.rings_s - now) }}</b>
        <span class="more"><el-button text :aria-label="`${one.name}: 5 min longer`" @click="emit('act', { deed: 'longer', timer: one.key, minutes: 5 })">+ 5</el-button><el-button text :aria-label="`${one.name}: heard`" @click="emit('act', { deed: 'quiet', timer: one.key })">{{ one.rings_s <= now ? 'Heard' : 'Stop' }}</el-button></span>
      </li>
      <li v-if="!timers.length" class="quiet">None is running.</li>
    </ul>
    <form class="set" @submit.prevent="set(read(minutes, 'count', units))">
      <input v-model="name" class="name" aria-label="Name of a timer" placeholder="Timer" maxlength="60" /><input v-model="minutes" inputmode="decimal" aria-label="Minutes of a timer" placeholder="min" /><el-button native-type="submit" :disabled="!minutes.trim()">Set</el-button>
      <span class="quick"><el-button v-for="one in QUICK" :key="one" text :aria-label="`Timer of ${one} min`" @click="set(one)">{{ one }} min</el-button></span>
    </form>
    <p v-if="bake.water && mixes" class="water"><b>Water for this mix.</b> {{ bake.water }}.</p>
    <slot />
  </section>
</template>

<style scoped>
ol, ul { list-style: none; margin: 0 0 10px; padding: 0 }
.next button { display: flex; justify-content: space-between; gap: 8px; width: 100%; min-height: 46px; align-items: center; border: 0; border-bottom: 1px solid var(--rim-faint); background: none; text-align: left; cursor: pointer; font-size: 1.08rem; color: var(--ink); padding: 0 }
.next b { font-size: 1.25rem }
.timers li { display: grid; grid-template-columns: 1fr auto; gap: 0 8px; align-items: center; border-bottom: 1px solid var(--rim-faint); padding: 4px 0 }
.timers .quiet, .next .quiet { display: block }
.called { border: 0; background: none; padding: 0; text-align: left; font-size: 1.08rem; color: var(--ink); min-height: 34px }
.called:not(:disabled) { cursor: pointer; text-decoration: underline; text-underline-offset: 3px; text-decoration-thickness: 1px }
.timers b { font-size: 1.7rem; font-weight: 750; color: var(--crust) }
.late b { color: var(--stop) }
.more { grid-column: 1 / -1; display: flex; justify-content: end }
.more :deep(.el-button) { min-height: 38px; margin-left: 0 }
.set { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; margin-bottom: 10px }
.set input { min-height: 44px; border: 2px solid var(--rim-soft); border-radius: 10px; padding: 0 8px; width: 62px; background: var(--tray) }
.set .name { flex: 1; min-width: 90px }
.quick { display: flex }
.quick :deep(.el-button) { margin-left: 0; min-height: 40px; padding: 0 9px }
.water { font-size: 1.02rem; margin-bottom: 8px }
h2 { margin-top: 4px }
</style>
