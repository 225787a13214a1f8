<script setup lang="ts">
/** The kitchen's settings: units, scales, paper; and how this browser looks. */
import { useQueryClient } from '@tanstack/vue-query'
import { onBeforeUnmount, ref, watch } from 'vue'
import { api, ask, Refused, type Settings } from '@/api/client'
import { plainCopy } from '@/base/copy'
import ChoiceRow from '@/design/ChoiceRow.vue'
import { useKitchenState, useUnits } from '@/base/kitchen'
import HabitsTray from './HabitsTray.vue'
import KitTray from './KitTray.vue'
import { tell } from '@/base/notice'
import { theme, type Theme } from '@/base/theme'

const cache = useQueryClient()
const kitchen = useKitchenState()
const name = ref('')
const settings = ref<Settings | null>(null)
const refused = ref('')
const { units } = useUnits()
let waiting: ReturnType<typeof setTimeout> | undefined

watch(
  () => kitchen.data.value,
  (now) => {
    // What is still being typed is not taken back by the answer to what was typed before.
    if (!now || waiting !== undefined) return
    name.value = now.name
    settings.value = plainCopy(now.settings)
  },
  { immediate: true },
)

const STEPS = { g: ['0.1', '0.5', '1', '2', '5'], oz: ['0.01', '0.05', '0.1', '0.125', '0.25'] }
const FINE = { g: ['0.01', '0.05', '0.1'], oz: ['0.001', '0.005', '0.01'] }
const UNDER = { g: '25', oz: '1' }
const same = (a: unknown, b: string) => Number(a) === Number(b)

/** Steps belong to a unit: changing the unit takes that unit's usual ones. */
function weighIn(unit: 'g' | 'oz'): void {
  if (!settings.value) return
  const fine = settings.value.scale.fine_step != null
  settings.value.scale = { unit, step: unit === 'g' ? '1' : '0.1', fine_step: fine ? FINE[unit][0] : null, fine_under: UNDER[unit] }
  void keep()
}
function fineScale(step: string | null): void {
  if (!settings.value) return
  settings.value.scale.fine_step = step
  void keep()
}
async function keep(): Promise<void> {
  const now = kitchen.data.value
  if (!settings.value || !now) return
  const before = { name: now.name, settings: now.settings }
  refused.value = ''
  try {
    const kept = await ask(api.PUT('/api/kitchen', { body: { name: name.value, settings: settings.value, version: now.version } }))
    cache.setQueryData(['kitchen'], kept)
    tell('Settings kept.', async () => {
      name.value = before.name
      settings.value = plainCopy(before.settings)
      await keep()
    })
  } catch (caught) {
    if (!(caught instanceof Refused)) throw caught
    refused.value = caught.problem.errors?.[0]?.detail ?? caught.message
    if (caught.isBehind) await kitchen.refetch()
  }
}
function set<K extends 'length_unit' | 'paper'>(name: K, value: Settings[K]): void {
  if (!settings.value) return
  settings.value[name] = value
  void keep()
}

/** Numbers come as they are typed: kept once nothing was typed for a moment. */
function setKit(kit: Settings['kit']): void {
  if (!settings.value) return
  settings.value.kit = kit
  clearTimeout(waiting)
  waiting = setTimeout(() => {
    waiting = undefined
    void keep()
  }, 600)
}
onBeforeUnmount(() => {
  if (waiting === undefined) return
  clearTimeout(waiting)
  void keep()
})

function setPractice(now: Partial<Settings['practice']>): void {
  if (!settings.value) return
  settings.value.practice = { ...settings.value.practice, ...now }
  void keep()
}

function setHabit(key: keyof Settings['habits'], value: string | null): void {
  if (!settings.value) return
  settings.value.habits = { ...settings.value.habits, [key]: value }
  void keep()
}

const WEIGHTS = [
  { value: 'g', label: 'Grams' },
  { value: 'oz', label: 'Ounces' },
] as const
const LENGTHS = [
  { value: 'cm', label: 'Centimetres' },
  { value: 'in', label: 'Inches' },
] as const
const PAPERS = [
  { value: 'A4', label: 'A4' },
  { value: 'Letter', label: 'Letter' },
  { value: 'roll', label: '80 mm roll' },
] as const
const STARTERS = [
  { value: 'joined', label: 'Joins the totals' },
  { value: 'apart', label: 'Stands apart' },
] as const
const YEASTS = [
  { value: '3 : 1.2 : 1', label: '3 : 1.2 : 1' },
  { value: '2.5 : 1.25 : 1', label: '2.5 : 1.25 : 1' },
] as const
const THEMES: { value: Theme; label: string }[] = [
  { value: 'light', label: 'Light' },
  { value: 'dark', label: 'Dark' },
  { value: 'machine', label: 'Machine’s' },
]
</script>

<template>
  <main class="page settings">
    <div class="page-head"><h1>Kitchen</h1></div>
    <p v-if="refused" class="said stop" role="alert">{{ refused }}</p>
    <p v-if="kitchen.error.value" class="said stop" role="alert">{{ kitchen.error.value.message }}</p>
    <p v-else-if="!settings" class="quiet">Fetching the settings …</p>
    <div v-else class="groups">
      <section class="tray">
        <h2>Name</h2>
        <form @submit.prevent="keep"><label class="label">What the kitchen is called, at the head of each sheet<input v-model="name" class="field" maxlength="300" required @change="keep" /></label></form>
      </section>
      <section class="tray">
        <h2>Weights and scales</h2>
        <ChoiceRow label="Weights in" :options="WEIGHTS" :value="settings.scale.unit" @choose="weighIn" />
        <label class="label">The scale’s step<select v-model="settings.scale.step" class="field" @change="keep">
          <option v-if="!STEPS[settings.scale.unit].some((s) => same(settings!.scale.step, s))" :value="settings.scale.step">{{ settings.scale.step }} {{ settings.scale.unit }}</option>
          <option v-for="step in STEPS[settings.scale.unit]" :key="step" :value="same(settings.scale.step, step) ? settings.scale.step : step">{{ step }} {{ settings.scale.unit }}</option>
        </select></label>
        <label class="label">A finer scale for small amounts<select class="field" :value="settings.scale.fine_step == null ? '' : String(Number(settings.scale.fine_step))" @change="fineScale(($event.target as HTMLSelectElement).value || null)">
          <option value="">none</option>
          <option v-for="step in FINE[settings.scale.unit]" :key="step" :value="String(Number(step))">{{ step }} {{ settings.scale.unit }}, for under {{ Number(settings.scale.fine_under) }} {{ settings.scale.unit }}</option>
        </select></label>
      </section>
      <section class="tray">
        <h2>Lengths and paper</h2>
        <ChoiceRow label="Lengths in" :options="LENGTHS" :value="settings.length_unit" @choose="set('length_unit', $event)" />
        <ChoiceRow label="Paper" :options="PAPERS" :value="settings.paper" @choose="set('paper', $event)" />
      </section>
      <section class="tray">
        <h2>How it is reckoned</h2>
        <div class="label">A starter’s flour and water. The grams are the same either way; apart, it is one line over the other flour.<ChoiceRow label="A starter’s flour and water" :options="STARTERS" :value="settings.practice.starter" @choose="setPractice({ starter: $event })" /></div>
        <div class="label">Fresh, active dry and instant yeast by weight, for the same rise<ChoiceRow label="Fresh, active dry and instant yeast" :options="YEASTS" :value="settings.practice.yeast" @choose="setPractice({ yeast: $event })" /></div>
      </section>
      <HabitsTray :habits="settings.habits" @change="setHabit" />
      <section class="tray">
        <h2>How it looks, in this browser</h2>
        <ChoiceRow label="Light or dark" :options="THEMES" :value="theme" @choose="theme = $event" />
      </section>
      <KitTray v-if="units" :kit="settings.kit" :units="units" @change="setKit" />
    </div>
  </main>
</template>

<style scoped>
.groups { display: grid; gap: 14px; align-items: start; grid-template-columns: repeat(auto-fit, minmax(min(360px, 100%), 1fr)) }
.tray { display: grid; gap: 12px; align-content: start }
</style>
