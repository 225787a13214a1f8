<script setup lang="ts">
/** What is in the finished thing: ingredients by weight, allergens, and ridding it of one. */
import { computed } from 'vue'
import type { Change, Whole } from '@/api/client'
import { shown, type Units } from '@/base/format'
import Said from '@/design/Said.vue'

export interface ContentsTrayProps {
  whole: Whole | null
  units: Units
  /** Reading only: nothing can be swapped. */
  locked: boolean
}
const props = defineProps<ContentsTrayProps>()
const emit = defineEmits<{ look: [title: string, change: Change] }>()

const contents = computed(() => props.whole?.contents)
const freeable = computed(() =>
  (contents.value?.contains ?? []).flatMap(({ allergen }) => {
    const label = props.units.reference.free[allergen]
    return label ? [{ allergen, label }] : []
  }),
)
</script>

<template>
  <section class="tray contents" aria-labelledby="contents-head">
    <div class="tray-head"><h2 id="contents-head">What is in it</h2><span class="quiet">by weight, water as baked</span></div>
    <template v-if="contents">
      <p class="list"><span v-for="(item, i) in contents.ingredients" :key="item.name" :title="`${shown(item.percent, 'percent', units, 3)} % of all that goes in`">{{ i ? ', ' : '' }}{{ item.name }}</span></p>
      <p v-if="contents.contains.length"><b>Contains</b> <span v-for="(one, i) in contents.contains" :key="one.allergen">{{ i ? ', ' : '' }}<b class="allergen">{{ one.allergen }}</b> <small class="quiet">{{ one.names.join(', ') }}</small></span></p>
      <p v-else>No allergen that the pantry knows of<template v-if="contents.read_packet.length || contents.unknown.length">, but not all of it is known</template>.</p>
      <p v-if="contents.may_contain.length"><b>May contain</b> <span v-for="(one, i) in contents.may_contain" :key="one.allergen">{{ i ? ', ' : '' }}{{ one.allergen }} <small class="quiet">{{ one.names.join(', ') }}</small></span></p>
      <Said tone="now" v-if="contents.unknown.length">The pantry does not know what {{ contents.unknown.join(', ') }} may bring: say so there.</Said>
      <Said tone="now" v-if="contents.read_packet.length"><b>Read the packet</b> of {{ contents.read_packet.join(', ') }}: makers differ, so what else {{ contents.read_packet.length > 1 ? 'they bring' : 'it brings' }} only that tells.</Said>
      <div v-if="freeable.length && !locked" class="row">
        <el-button v-for="{ allergen, label } in freeable" :key="allergen" @click="emit('look', `Made ${label}`, { change: 'free_of', allergen })">Make it {{ label }}</el-button>
      </div>
      <p class="quiet">From what the pantry holds. Read the packet in your hand, and check your local rules.</p>
    </template>
  </section>
</template>

<style scoped>
.contents { display: grid; gap: 7px; align-content: start }
p { margin: 0; line-height: 1.4 }
.allergen { color: var(--stop) }
.row { display: flex; flex-wrap: wrap; gap: 8px }
</style>
