<script setup lang="ts">
/** Sheets and loads of the target looked at, drawn to scale; the pot, the griddle and the fridge; and the mixes in the bowl. */
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Formula, Whole, Turns } from '@/api/client'
import NumberBox from '@/design/NumberBox.vue'
import OpenWorking from '@/design/OpenWorking.vue'
import SheetTop from '@/drawings/SheetTop.vue'
import { flat } from '@/drawings/solid'
import { plain, withUnit, type Units } from '@/base/format'
import { HOLDS, WHERE } from '@/screens/sheet/shapes'
import LockedPart from '@/design/LockedPart.vue'

export interface LoadTrayProps {
  /** The desk's own formula; it is edited in place. */
  formula: Formula
  whole: Whole | null
  units: Units
  locked: boolean
}
const props = defineProps<LoadTrayProps>()
const emit = defineEmits<{ working: [opened: string] }>()

const looked = computed(() => props.whole?.looked_at ?? null)

const box = ref<HTMLElement>()
const { width: room } = useElementSize(box, { width: 330, height: 0 })

const MOST_DRAWN = 4
const MOST_TOLD = 4
/** The sheets of a turn with how many lie on each; alike ones beyond a few are counted. */
const drawn = computed(() =>
  (looked.value?.turns ?? []).map((turns) => {
    const solid = flat(turns)
    // One pot is filled again and again: the first filling and the last are enough.
    const most = turns.through === 'oven' ? MOST_DRAWN : 2
    const pieces = (turns.loads - 1) * turns.per_load + turns.last
    const sheets = solid ? Array.from({ length: Math.min(most, turns.holders) }, (_, i) => Math.min(turns.per_holder, pieces - i * turns.per_holder)) : []
    if (solid && turns.holders > most) sheets[most - 1] = pieces - (turns.holders - 1) * turns.per_holder
    const columns = turns.through === 'fridge' ? 0 : Math.min(2, sheets.length)
    const scale = solid && columns ? Math.min(((room.value - 12) / columns - 14) / solid.across, 130 / solid.down) : 1
    return { turns, solid, scale, sheets: columns ? sheets : [], more: Math.max(0, turns.holders - most) }
  }),
)
const plural = (n: number, word: string) => `${n} ${word}${n === 1 ? '' : word.endsWith('x') ? 'es' : 's'}`
const gap = computed(() => looked.value?.gap_cm ?? null)
const heat = computed(() => looked.value?.turns.find((turns) => turns.load_min != null)?.load_min ?? null)
const mixes = computed(() => props.whole?.mixes ?? null)
const isSheet = (turns: Turns) => turns.packing != null || turns.through === 'pot' || turns.through === 'griddle'
</script>

<template>
  <section class="tray" aria-labelledby="load-head">
    <div class="tray-head"><h2 id="load-head">Sheets and loads</h2><RouterLink class="quiet" :to="{ name: 'kitchen' }">Kit</RouterLink></div>
    <LockedPart :locked="locked">
      <div class="fields">
        <label class="label">Gap, baked<NumberBox :value="gap" kind="cm" :units="units" label="Gap between pieces, baked" :worked="formula.usual.gap_cm == null" with-unit @change="formula.usual.gap_cm = $event" /></label>
        <label class="label">In the heat<NumberBox :value="formula.usual.bake_min ?? heat" kind="min" :units="units" label="Minutes one load is in the heat" :worked="formula.usual.bake_min == null" with-unit @change="formula.usual.bake_min = $event" /></label>
      </div>
    </LockedPart>
    <div ref="box">
      <p v-if="!whole || whole.count.fights.length" class="quiet empty">Drawn when no pins fight.</p>
      <template v-else>
        <div v-for="{ turns, solid, scale, sheets, more } in drawn" :key="turns.through" class="turns">
          <h3>{{ WHERE[turns.through] }}
            <span class="counts"><OpenWorking :name="`${turns.through}_loads`" @open="emit('working', $event)">{{ plural(turns.loads, turns.through === 'fridge' ? 'filling' : 'load') }}</OpenWorking>
            of <OpenWorking :name="`${turns.through}_per_load`" @open="emit('working', $event)">{{ turns.per_load }}</OpenWorking></span>
          </h3>
          <p class="quiet">
            <template v-if="isSheet(turns) && turns.packing"><OpenWorking :name="`${turns.through}_per_holder`" @open="emit('working', $event)">{{ turns.per_holder }}</OpenWorking> {{ HOLDS[turns.through] }}: {{ turns.packing.words }}, {{ withUnit(turns.packing.across_cm, 'cm', units) }} across, {{ withUnit(turns.packing.gap_cm, 'cm', units) }} apart.</template>
            <template v-else>{{ plural(turns.holders, 'pan') }} of {{ turns.per_holder }}, {{ turns.at_once }} at once.</template>
            <template v-if="turns.loads > 1"> The last has {{ turns.last }}.</template>
            <template v-if="turns.wait_min"> It waits <OpenWorking :name="`${turns.through}_wait`" @open="emit('working', $event)">{{ withUnit(turns.wait_min, 'min', units) }}</OpenWorking>: leave it cool.</template>
          </p>
          <div v-if="solid && sheets.length" class="sheets">
            <figure v-for="(pieces, i) in sheets" :key="i"><SheetTop :turns="turns" :solid="solid" :pieces="pieces" :units="units" :scale="scale" :label="WHERE[turns.through]" /><figcaption class="quiet">{{ pieces }}</figcaption></figure>
          </div>
          <p v-if="more" class="quiet">and {{ more }} more like the first</p>
          <p v-if="turns.through === 'pot'" class="caution">Boiling water scalds: lower pieces in with a skimmer, sleeves back, the pot at the rear of the stove.</p>
        </div>
        <p v-if="!drawn.length" class="quiet empty">Tell the kitchen’s sheets, oven, pot and griddle once, under <RouterLink :to="{ name: 'kitchen' }">Kitchen</RouterLink>, and the loads are laid out here.</p>
        <div v-if="whole.small.length" class="turns">
          <h3>Small weights</h3>
          <div v-for="small in whole.small.slice(0, MOST_TOLD)" :key="small.name" class="small">
            <p><b>{{ small.name }} {{ plain(Number(small.amount)) }} {{ units.weight }}</b> on a scale of {{ Number(small.step) }} {{ units.weight }} may be <b>{{ plain(Math.min(1, small.off) * 100, 2) }} %</b> out.</p>
            <ul>
              <li v-if="small.finer_step">A scale of {{ Number(small.finer_step) }} {{ units.weight }} would do.</li>
              <li v-if="small.at_once">Weigh it once for all {{ small.mixes }} mixes: {{ Number(small.at_once) }} {{ units.weight }}, and share it out.</li>
              <li v-if="small.dilution">Stir {{ Number(small.dilution.whole) }} {{ units.weight }} into {{ Number(small.dilution.water) }} {{ units.weight }} of water; take {{ Number(small.dilution.take) }} {{ units.weight }} of that, and only {{ Number(small.dilution.water_left) }} {{ units.weight }} of the formula’s water.</li>
              <li v-if="!small.finer_step && !small.at_once && !small.dilution">Make a bigger mix.</li>
            </ul>
          </div>
          <p v-if="whole.small.length > MOST_TOLD" class="quiet">and {{ whole.small.length - MOST_TOLD }} more lines like these</p>
        </div>
        <div v-if="mixes" class="turns">
          <h3>Bowl <span class="counts"><OpenWorking name="mixes" @open="emit('working', $event)">{{ plural(mixes.mixes, 'mix') }}</OpenWorking> of <OpenWorking name="mix" @open="emit('working', $event)">{{ withUnit(mixes.each_g, 'g', units) }}</OpenWorking></span></h3>
          <p class="quiet">It takes {{ withUnit(mixes.bowl_g, 'g', units) }} of this dough<template v-if="mixes.stiff">: stiff, so less than of a soft one</template>. The weigh sheet is for one mix.</p>
        </div>
      </template>
    </div>
  </section>
</template>

<style scoped>
.fields { display: grid; grid-template-columns: 1fr 1fr; gap: 8px }
.turns { border-top: 2px solid var(--rim-faint); margin-top: 8px; padding-top: 6px }
.turns p { margin: 2px 0; font-size: .92rem }
h3 { display: flex; justify-content: space-between; align-items: baseline; font-size: 1rem; margin: 0 }
.counts { font: 700 1.02rem var(--body) }
.sheets { display: flex; flex-wrap: wrap; gap: 8px; justify-content: center; margin: 4px 0 }
figure { margin: 0; text-align: center }
figcaption { font-size: .86rem }
.small ul { margin: 0 0 4px; padding-left: 20px; font-size: .92rem }
.caution { border-left: 4px solid var(--stop); padding-left: 8px }
.empty { padding: 20px 12px; text-align: center }
</style>
