<script setup lang="ts">
/** A link that looks like a button, for what leads to another screen: it opens in a new tab too. */
import { RouterLink, type RouteLocationRaw } from 'vue-router'

export interface LinkButtonProps {
  to: RouteLocationRaw
  type?: 'primary'
  text?: boolean
}
defineProps<LinkButtonProps>()
</script>

<template>
  <el-button :tag="RouterLink" :to="to" :type="type" :text="text"><slot /></el-button>
</template>
