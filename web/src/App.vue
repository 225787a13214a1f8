<script setup lang="ts">
import en from 'element-plus/es/locale/lang/en'
import { useKitchenState } from '@/base/kitchen'
import { useTheme } from '@/base/theme'

useTheme()
const kitchen = useKitchenState()
const PLACES = [
  ['take-in', 'Take in'],
  ['formulas', 'Formulas'],
  ['days', 'Days'],
  ['bench', 'Bench'],
  ['book', 'Book'],
  ['pans', 'Pans'],
  ['pantry', 'Pantry'],
] as const
</script>

<template>
  <el-config-provider :locale="en" :button="{ autoInsertSpace: false }">
  <header v-if="!$route.meta.bare" class="no-print">
    <RouterLink class="mark" :to="{ name: 'formulas' }">
      <svg viewBox="0 0 28 20" width="28" height="20" aria-hidden="true"><rect class="pan" x="1.5" y="1.5" width="25" height="17" rx="5" /><circle cx="10" cy="10" r="3.6" /><circle cx="18" cy="10" r="3.6" /></svg>
      Pan Count
    </RouterLink>
    <nav aria-label="Main">
      <RouterLink v-for="[name, label] in PLACES" :key="name" :to="{ name }" :class="{ here: $route.path.split('/')[1] === name }">{{ label }}</RouterLink>
    </nav>
    <RouterLink class="kitchen" :to="{ name: 'kitchen' }">{{ kitchen.data.value?.name ?? 'Kitchen' }}</RouterLink>
  </header>
  <RouterView />
  </el-config-provider>
</template>

<style scoped>
header { display: flex; align-items: stretch; gap: 24px; padding: 0 22px; min-height: 50px; background: var(--tray); border-bottom: 3px solid var(--rim) }
.mark { display: flex; gap: 9px; align-items: center; font: 700 1.24rem var(--head); color: var(--rim); text-decoration: none; white-space: nowrap }
.mark svg { flex: none }
.mark .pan { fill: none; stroke: var(--rim); stroke-width: 3 }
.mark circle { fill: var(--crumb) }
nav { display: flex; gap: 20px }
nav a, .kitchen { line-height: 47px; color: var(--ink-2); text-decoration: none; font-weight: 600; padding: 0 2px }
nav a.here { color: var(--rim); box-shadow: inset 0 -3px var(--rim) }
.kitchen { margin-left: auto; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; font-weight: 500; min-width: 0 }
.kitchen.router-link-active { color: var(--rim); font-weight: 650 }
@media (max-width: 760px) {
  header { padding: 0 10px; gap: 10px; min-height: 44px }
  nav a, .kitchen { line-height: 41px }
  nav { gap: 10px; min-width: 0; overflow-x: auto; scrollbar-width: none; font-size: .92rem }
  .kitchen { flex: 0 1 64px; font-size: .92rem }
  .mark { font-size: 0; gap: 0 }
  nav a { white-space: nowrap }
}
</style>
