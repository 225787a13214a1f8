<script setup lang="ts">
/**
 * A worked-out number, or the sign beside it, that opens its working. A link, since a working has an address, and so
 * that it also opens in a revision that is only read, where buttons are switched off.
 */
export interface OpenWorkingProps {
  /** What to open, as in workings.ts. */
  name: string
  /** Which number it is, for those who do not see it. */
  label?: string
}
const props = defineProps<OpenWorkingProps>()
const emit = defineEmits<{ open: [name: string] }>()
const open = () => emit('open', props.name)
</script>

<template>
  <a role="button" class="opens worked" :href="`?working=${name}`" :aria-label="label && `${label} How was it worked out?`" :title="label ? undefined : 'How was this worked out?'" @click.exact.prevent="open" @keydown.space.prevent="open"><slot /></a>
</template>

<style scoped>
.opens { text-decoration: none; border-radius: 8px; cursor: pointer; padding: 2px 5px }
.opens:hover { background: var(--crust-soft) }
</style>
