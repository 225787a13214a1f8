<script setup lang="ts">
/** A part of a screen that can be switched off as one, our own controls and Element Plus's alike, and looks like nothing. */
import { formContextKey, type FormContext } from 'element-plus'
import { provide, reactive, toRef } from 'vue'

export interface LockedPartProps {
  locked: boolean
}
const props = defineProps<LockedPartProps>()
provide(formContextKey, reactive({ disabled: toRef(props, 'locked') }) as unknown as FormContext)
</script>

<template>
  <fieldset :disabled="locked"><slot /></fieldset>
</template>

<style scoped>
fieldset { border: 0; margin: 0; padding: 0; min-width: 0 }
</style>
