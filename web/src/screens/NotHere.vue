<script setup lang="ts">
import Said from '@/design/Said.vue'
</script>

<template>
  <main class="page">
    <div class="page-head"><h1>Not here</h1></div>
    <Said>There is nothing at this address. <RouterLink :to="{ name: 'formulas' }">All formulas</RouterLink></Said>
  </main>
</template>
