<script setup lang="ts">
/** How it looks, in this browser alone. */
import { theme, type Theme } from '@/base/theme'
import ChoiceRow from '@/design/ChoiceRow.vue'

const THEMES: { value: Theme; label: string }[] = [
  { value: 'light', label: 'Light' },
  { value: 'dark', label: 'Dark' },
  { value: 'machine', label: 'Machine’s' },
]
</script>

<template>
  <div class="fields"><div class="label">Light or dark<ChoiceRow label="Light or dark" :options="THEMES" :value="theme" @choose="theme = $event" /></div></div>
</template>
