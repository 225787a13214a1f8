<script setup lang="ts">
/** The kitchen: how it weighs, measures and bakes, read down in sections; what is not told yet stands first. */
import { computed, ref, watch } from 'vue'
import BookSection from './BookSection.vue'
import CupsSection from './CupsSection.vue'
import HabitsSection from './HabitsSection.vue'
import KitSection from './KitSection.vue'
import LooksSection from './LooksSection.vue'
import PaperSection from './PaperSection.vue'
import PracticeSection from './PracticeSection.vue'
import ScaleSection from './ScaleSection.vue'
import WarmthSection from './WarmthSection.vue'
import { openOf, SECTIONS, type Section } from './sections'
import { useSettings } from './useSettings'
import { useCups, useUnits } from '@/base/kitchen'
import Said from '@/design/Said.vue'

const { kitchen, name, settings, refused, keep, set, setSoon } = useSettings()
const { units } = useUnits()
const cups = useCups()

const open = computed(() => {
  const now = settings.value
  return now ? new Map(SECTIONS.map(({ key }) => [key, openOf(key, name.value, now, cups.data.value?.length ?? 0)])) : null
})
/** What is open first, as it was when the page was opened: nothing moves away while it is told. */
const order = ref<readonly Section[]>()
watch(
  [open, () => cups.isPending.value],
  ([now, waits]) => {
    if (now && !waits) order.value ??= [...SECTIONS].sort((a, b) => Number(Boolean(now.get(b.key))) - Number(Boolean(now.get(a.key))))
  },
  { immediate: true },
)
</script>

<template>
  <main class="page kitchen-page">
    <div class="page-head"><h1>Kitchen</h1></div>
    <Said v-if="refused" tone="stop">{{ refused }}</Said>
    <Said v-if="kitchen.error.value" tone="stop">{{ kitchen.error.value.message }}</Said>
    <el-skeleton v-else-if="!settings || !units || !order" :rows="10" animated aria-label="Fetching the settings" />
    <div v-else class="down">
      <nav aria-label="Sections">
        <el-anchor :offset="20" :bound="40">
          <el-anchor-link v-for="section in order" :key="section.key" :href="`#${section.key}`">{{ section.title }}<small v-if="open?.get(section.key)" class="open">{{ open?.get(section.key) }}</small></el-anchor-link>
        </el-anchor>
      </nav>
      <div class="sections">
        <section v-for="section in order" :id="section.key" :key="section.key" class="tray" :aria-labelledby="`${section.key}-head`">
          <div class="tray-head"><h2 :id="`${section.key}-head`">{{ section.title }}</h2><span v-if="open?.get(section.key)" class="chip draft">{{ open?.get(section.key) }}</span></div>
          <p v-if="section.says" class="quiet">{{ section.says }}</p>
          <el-form v-if="section.key === 'name'" label-position="top" @submit.prevent="keep"><el-form-item label="What the kitchen is called"><el-input v-model="name" maxlength="300" @change="name.trim() && keep()" /></el-form-item></el-form>
          <ScaleSection v-else-if="section.key === 'scale'" :scale="settings.scale" @change="set({ scale: $event })" />
          <PaperSection v-else-if="section.key === 'paper'" :length="settings.length_unit" :paper="settings.paper" @change="set" />
          <HabitsSection v-else-if="section.key === 'habits'" :habits="settings.habits" @change="set({ habits: $event })" />
          <CupsSection v-else-if="section.key === 'cups'" :units="units" />
          <KitSection v-else-if="section.key === 'kit'" :kit="settings.kit" :units="units" @change="setSoon({ kit: $event })" />
          <WarmthSection v-else-if="section.key === 'warmth' && units" :climate="settings.climate" :units="units" @change="setSoon({ climate: $event })" />
          <PracticeSection v-else-if="section.key === 'practice'" :practice="settings.practice" @change="set({ practice: $event })" />
          <BookSection v-else-if="section.key === 'book'" :scales="settings.scales ?? []" :language="settings.language" @change="set" />
          <LooksSection v-else />
        </section>
      </div>
    </div>
  </main>
</template>

<style scoped>
.kitchen-page { max-width: 1120px }
.down { display: grid; grid-template-columns: 250px minmax(0, 1fr); gap: 26px; align-items: start }
nav { position: sticky; top: 16px }
.open { display: block; color: var(--crust); font-size: .8rem }
.sections { display: grid; gap: 14px }
.tray { display: grid; gap: 10px; padding: 14px 18px 18px; scroll-margin-top: 12px }
.tray :deep(.fields) { display: grid; gap: 12px 22px; grid-template-columns: repeat(auto-fit, minmax(min(250px, 100%), 1fr)); align-items: end }
@media (max-width: 860px) {
  .down { grid-template-columns: minmax(0, 1fr) }
  nav { display: none }
}
</style>
