<script setup lang="ts">
/** The one line at the foot that tells what was done and takes it back. */
import { notice } from '@/base/notice'

async function undo(): Promise<void> {
  const back = notice.value?.undo
  notice.value = null
  await back?.()
}
</script>

<template>
  <div class="place no-print" role="status">
    <p v-if="notice" class="notice">
      <span>{{ notice.text }}</span>
      <button v-if="notice.undo" type="button" class="button" @click="undo">Undo</button>
      <button type="button" class="button bare" aria-label="Close this message" @click="notice = null">×</button>
    </p>
  </div>
</template>

<style scoped>
.place { position: fixed; z-index: 50; left: 0; right: 0; bottom: 14px; display: grid; justify-items: center; pointer-events: none }
.notice { pointer-events: auto; display: flex; align-items: center; gap: 12px; background: var(--ink); color: var(--enamel); border-radius: 14px; padding: 7px 8px 7px 18px; max-width: calc(100vw - 24px) }
.notice .bare { color: inherit; font-size: 1.2rem }
.notice .bare:hover { background: none }
</style>
