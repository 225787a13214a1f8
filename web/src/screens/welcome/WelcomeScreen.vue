<script setup lang="ts">
/** The first five minutes: what the kitchen has, in three steps that can all be skipped, and then the first formula. */
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import BeginPart from './BeginPart.vue'
import PanTicks from './PanTicks.vue'
import { api, ask } from '@/api/client'
import { plainCopy } from '@/base/copy'
import { welcomed } from '@/base/firstTime'
import { usePans, useUnits } from '@/base/kitchen'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import RefusedNote from '@/design/RefusedNote.vue'
import Said from '@/design/Said.vue'
import HabitsSection from '@/screens/kitchen/HabitsSection.vue'
import KitSection from '@/screens/kitchen/KitSection.vue'
import PaperSection from '@/screens/kitchen/PaperSection.vue'
import ScaleSection from '@/screens/kitchen/ScaleSection.vue'
import { useSettings } from '@/screens/kitchen/useSettings'

const STEPS = [
  { title: 'Units and scales', says: 'How you weigh and measure, so that every number is one you can use.' },
  { title: 'Pans', says: 'Tick what stands on your shelf. Measure yours later: sizes of one name differ.' },
  { title: 'Oven and bowl', says: 'What bakes and mixes at once. What is left open limits nothing.' },
] as const
const CUPS = ['cup_way', 'system'] as const

welcomed()
const route = useRoute()
const router = useRouter()
const cache = useQueryClient()
const { name, settings, refused: notKept, kitchen, keep, set, setSoon } = useSettings({ quiet: true })
const { units } = useUnits()
const shelf = usePans()
const { refused, attempt } = useAttempt()

const step = computed(() => Math.min(STEPS.length, Math.max(0, Number(route.query.step ?? 1) - 1 || 0)))
const go = (to: number) => router.push({ query: { step: String(to + 1) } })

/* Ticked pans go on the shelf when the step is left; one that stands there already is not put there twice. */
const owned = ref<Record<number, number>>({})
const shelve = () =>
  attempt(async () => {
    const there = new Set((shelf.data.value ?? []).map((state) => state.shelved.pan.name))
    const wanted = Object.entries(owned.value).flatMap(([n, many]) => {
      const common = units.value?.reference.common_pans[Number(n)]
      return common && !there.has(common.pan.name) ? [{ pan: plainCopy(common.pan), owned: many }] : []
    })
    for (const { pan, owned: many } of wanted) await ask(api.POST('/api/pans', { body: { pan, owned: many, material: null, colour: '', sticks: false, note: '' } }))
    if (wanted.length) tell(`${wanted.length} ${wanted.length === 1 ? 'pan stands' : 'pans stand'} on the shelf.`)
    owned.value = {}
    await cache.invalidateQueries({ queryKey: ['pans'] })
  })
async function next(): Promise<void> {
  if (step.value === 1) await shelve()
  if (!refused.value) await go(step.value + 1)
}
</script>

<template>
  <main class="page welcome">
    <div class="page-head"><h1>{{ step < STEPS.length ? 'Welcome to Pan Count' : 'The first formula' }}</h1><span class="spacer" /><el-button v-if="step < STEPS.length" text @click="go(STEPS.length)">Skip all of it</el-button><el-button v-else text @click="go(0)">What the kitchen has</el-button></div>
    <Said v-if="notKept" tone="stop">{{ notKept }}</Said>
    <Said v-if="kitchen.error.value" tone="stop">{{ kitchen.error.value.message }}</Said>
    <RefusedNote v-if="refused" :refused="refused" @close="refused = null" />
    <el-skeleton v-if="!settings || !units" :rows="8" animated aria-label="Fetching the kitchen" />
    <template v-else>
      <el-steps v-if="step < STEPS.length" :active="step" finish-status="success" align-center>
        <el-step v-for="one in STEPS" :key="one.title" :title="one.title" />
      </el-steps>
      <section v-if="step < STEPS.length" class="tray" aria-labelledby="step-head">
        <div class="tray-head"><h2 id="step-head">{{ STEPS[step]?.title }}</h2></div>
        <p class="quiet">{{ STEPS[step]?.says }}</p>
        <template v-if="step === 0">
          <div class="fields"><label class="label">What the kitchen is called<el-input v-model="name" maxlength="300" aria-label="What the kitchen is called" @change="name.trim() && keep()" /></label></div>
          <ScaleSection :scale="settings.scale" @change="set({ scale: $event })" />
          <PaperSection :length="settings.length_unit" :paper="settings.paper" @change="set" />
          <HabitsSection :habits="settings.habits" :only="CUPS" @change="set({ habits: $event })" />
        </template>
        <PanTicks v-else-if="step === 1" v-model="owned" :units="units" />
        <KitSection v-else :kit="settings.kit" :units="units" brief @change="setSoon({ kit: $event })" />
        <div class="dialog-foot">
          <el-button v-if="step" @click="go(step - 1)">Back</el-button>
          <el-button text @click="go(step + 1)">Skip</el-button>
          <el-button type="primary" @click="next">{{ step === STEPS.length - 1 ? 'To the first formula' : 'Next' }}</el-button>
        </div>
      </section>
      <BeginPart v-else />
    </template>
  </main>
</template>

<style scoped>
.welcome { max-width: 1120px }
.el-steps { margin: 4px 0 18px }
.tray { display: grid; gap: 12px; padding: 16px 20px 20px }
.tray :deep(.fields) { display: grid; gap: 12px 22px; grid-template-columns: repeat(auto-fit, minmax(min(250px, 100%), 1fr)); align-items: end }
</style>
