<script setup lang="ts">
/** A file chosen, or dropped here. */
export interface FilePickProps {
  /** Endings that are taken: ".json,.csv". */
  accept: string
  /** A place to drop it on, with words of its own. */
  drop?: boolean
}
defineProps<FilePickProps>()
const emit = defineEmits<{ pick: [file: File] }>()
</script>

<template>
  <el-upload class="file-pick" :class="{ drop }" :drag="drop" :show-file-list="false" :auto-upload="false" :accept="accept" :on-change="(chosen) => chosen.raw && emit('pick', chosen.raw)">
    <span v-if="!drop" class="el-button"><slot /></span>
    <slot v-else />
  </el-upload>
</template>

<style scoped>
.file-pick :deep(.el-upload) { border-radius: 11px }
.file-pick :deep(.el-upload:focus-visible) { outline: 3px solid var(--crust); outline-offset: 1px }
.drop { width: 100% }
</style>
