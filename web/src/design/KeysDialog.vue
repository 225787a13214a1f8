<script setup lang="ts">
/** The keys of the screen, opened by "?". */
export interface KeysDialogProps {
  /** Keys and what they do. */
  keys: readonly (readonly [string, string])[]
}
defineProps<KeysDialogProps>()
const open = defineModel<boolean>({ required: true })
</script>

<template>
  <el-dialog v-model="open" title="Keys of this screen" width="min(520px, 94vw)" append-to-body>
    <dl>
      <template v-for="[key, does] in keys" :key="key">
        <dt><kbd>{{ key }}</kbd></dt>
        <dd>{{ does }}</dd>
      </template>
    </dl>
    <slot />
  </el-dialog>
</template>

<style scoped>
dl { display: grid; grid-template-columns: auto 1fr; gap: 8px 16px; margin: 0; align-items: baseline }
dd { margin: 0 }
kbd { font-size: .9rem }
</style>
