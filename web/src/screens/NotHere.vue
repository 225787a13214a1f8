<template>
  <main class="page">
    <div class="page-head"><h1>Not here</h1></div>
    <p class="said">There is nothing at this address. <RouterLink :to="{ name: 'formulas' }">All formulas</RouterLink></p>
  </main>
</template>
