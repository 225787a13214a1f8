<script setup lang="ts">
/** The recipe as written, and what the line with the caret is taken to be. */
import { computed, ref } from 'vue'
import RecipeText from './RecipeText.vue'
import type { Settled, TakenLine } from '@/api/client'
import SelectField from '@/design/SelectField.vue'
import { LINE_KINDS } from '@/screens/takein/things/where'

export interface WrittenTrayProps {
  lines: readonly TakenLine[]
  /** The line that is looked at, or −1. */
  at: number
}
const props = defineProps<WrittenTrayProps>()
const text = defineModel<string>({ required: true })
const emit = defineEmits<{ look: [line: number]; kind: [kind: Settled['kind']] }>()

const recipe = ref<InstanceType<typeof RecipeText>>()
defineExpose({ show: (line: number) => recipe.value?.show(line) })
const looked = computed(() => props.lines[props.at])
const READ_ONLY = { title: 'the title', yield: 'what it makes' } as const
/** A title and a yield are only what they were read as; anything else can be told. */
const kinds = computed(() => {
  const kind = looked.value?.kind
  const own = kind === 'title' || kind === 'yield' ? [{ value: kind, label: READ_ONLY[kind] }] : []
  return [...own, ...LINE_KINDS]
})
</script>

<template>
  <section class="tray written" aria-labelledby="written-head">
    <div class="tray-head"><h2 id="written-head">As written</h2><span class="quiet">kept just as it is</span></div>
    <RecipeText ref="recipe" v-model="text" :lines="lines" :at="at" @look="emit('look', $event)" />
    <label v-if="looked && looked.kind !== 'blank'" class="line-kind quiet">Line {{ at + 1 }} is taken as
      <SelectField :value="looked.kind" :options="kinds" :label="`Line ${at + 1} is taken as`" @choose="emit('kind', $event as Settled['kind'])" />
    </label>
  </section>
</template>

<style scoped>
.written { display: flex; flex-direction: column; min-height: 0 }
.line-kind { display: grid; grid-template-columns: auto minmax(0, 1fr); align-items: center; gap: 8px; padding-top: 6px }
</style>
