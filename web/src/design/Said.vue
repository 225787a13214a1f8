<script setup lang="ts">
/**
 * Something said to the baker in its place: plain, what matters now, what is wrong, what went well. A wrapper, since the
 * alert it is made of calls everything an alert, which a screen reader would shout.
 */
export interface SaidProps {
  tone?: 'plain' | 'now' | 'stop' | 'ok'
}
withDefaults(defineProps<SaidProps>(), { tone: 'plain' })
const TYPES = { plain: 'info', now: 'warning', stop: 'error', ok: 'success' } as const
</script>

<template>
  <el-alert class="said" :type="TYPES[tone]" :closable="false" :role="tone === 'stop' ? 'alert' : 'note'"><slot /></el-alert>
</template>

<style>
.said strong { display: block }
.said ul { margin: 0; padding-left: 20px }
.said .row { display: flex; flex-wrap: wrap; gap: 8px; margin-top: 7px }
</style>
