<script setup lang="ts">
/** What is typed cannot reach the records now: why, and that it is kept in this browser until it can. */
import { computed } from 'vue'
import type { Refused } from '@/api/client'
import Said from '@/design/Said.vue'

export interface KeptHereProps {
  /** What the records, or the way to them, said. */
  why: Refused | null
}
const props = defineProps<KeptHereProps>()
/** Something else than that they are away: a full disk, no room for more, a fault. */
const said = computed(() => (props.why && props.why.problem.status !== 0 && !props.why.problem.type.endsWith(':away') ? props.why.problem : null))
</script>

<template>
  <Said tone="stop">
    <strong>{{ said ? said.title : 'The kitchen’s records cannot be reached.' }}</strong>
    <template v-if="said">{{ said.detail }} </template>
    What you type is kept in this browser, and goes in by itself as soon as it can.
  </Said>
</template>
