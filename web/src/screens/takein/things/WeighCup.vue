<script setup lang="ts">
/** Weigh my cup: fill it as always, once or more, and say what it came to. It narrows every line measured so. */
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, ask, Refused, type CupWeighing, type Ingredient } from '@/api/client'
import ChoiceRow from '@/design/ChoiceRow.vue'
import NumberBox from '@/design/NumberBox.vue'
import { withUnit, type Units } from '@/base/format'
import { useCups } from '@/base/kitchen'
import { tell } from '@/base/notice'
import IngredientField from '@/screens/formula/lines/IngredientField.vue'
import Said from '@/design/Said.vue'

export interface WeighCupProps {
  /** What to weigh, as the line has it. */
  start: { ingredient: string; measure: string; way: string; count: number }
  pantry: readonly Ingredient[]
  units: Units
}
const props = defineProps<WeighCupProps>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{
  /** A weighing was kept, or one forgotten. */
  weighed: []
}>()

const cache = useQueryClient()
const cups = useCups()
const ingredient = ref('')
const measure = ref('cup')
const way = ref('')
const count = ref<number | null>(1)
const weight = ref<number | null>(null)
const refused = ref('')

watch(
  open,
  (now) => {
    if (!now) return
    ;({ ingredient: ingredient.value, measure: measure.value, way: way.value } = props.start)
    count.value = Math.max(1, Math.round(props.start.count))
    weight.value = null
    refused.value = ''
  },
  { immediate: true },
)

const MEASURES = ['cup', 'tbsp', 'tsp', 'el', 'tl'] as const
const measures = computed(() => [...new Set([...MEASURES.slice(0, 3), measure.value])].map((value) => ({ value, label: props.units.reference.measures[value]?.label ?? value })))
const known = computed(() => props.pantry.find((one) => one.name === ingredient.value))
const ways = computed(() => [...new Set((known.value?.measures ?? []).map((m) => m.way).filter((w) => ['scooped', 'spooned', 'packed', 'loose'].includes(w)))].map((value) => ({ value, label: { scooped: 'dipped and scooped', spooned: 'spooned and levelled' }[value] ?? value })))
watch(ways, (now) => {
  if (!now.some((w) => w.value === way.value)) way.value = now[0]?.value ?? ''
})
const label = computed(() => props.units.reference.measures[measure.value]?.label ?? measure.value)
const each = computed(() => (count.value && weight.value ? withUnit(weight.value / count.value, 'g', props.units) : ''))
const before = computed(() => (cups.data.value ?? []).filter((c) => c.weighing.ingredient === ingredient.value && c.weighing.measure === measure.value && c.weighing.way === way.value))

async function changed(): Promise<void> {
  await cache.invalidateQueries({ queryKey: ['cups'] })
  emit('weighed')
}
async function forget(id: number): Promise<void> {
  await ask(api.DELETE('/api/cups/{cup_id}', { params: { path: { cup_id: id } } }))
  await changed()
}
async function keep(): Promise<void> {
  if (!count.value || !weight.value) {
    refused.value = 'Say how many you filled, and what they weighed together.'
    return
  }
  const body: CupWeighing = { ingredient: ingredient.value, measure: measure.value, way: way.value, count: count.value, weight_g: weight.value, note: '' }
  try {
    const kept = await ask(api.POST('/api/cups', { body }))
    open.value = false
    tell(`Your ${label.value} of ${body.ingredient}: ${each.value}. Remembered.`, () => forget(kept.id))
    await changed()
  } catch (caught) {
    if (!(caught instanceof Refused)) throw caught
    refused.value = caught.problem.errors?.[0]?.detail ?? caught.message
  }
}
</script>

<template>
  <el-dialog v-model="open" :title="`Weigh my ${label}`" width="min(560px, 94vw)" append-to-body>
    <form class="weigh" @submit.prevent="keep">
      <p>Put a bowl on the scale and set it to zero. Fill the {{ label }} as you always do, more than once if you can, and tip each into the bowl.</p>
      <label class="label">Of what
        <IngredientField :name="ingredient" :pantry="pantry" label="What was weighed" @change="ingredient = $event" />
      </label>
      <div><span class="quiet">Measure</span><ChoiceRow label="Measure" :options="measures" :value="measure" @choose="measure = $event" /></div>
      <div v-if="ways.length"><span class="quiet">Filled</span><ChoiceRow label="How it was filled" :options="ways" :value="way" @choose="way = $event" /></div>
      <div class="numbers">
        <label class="label">How many you filled<NumberBox :value="count" kind="count" :units="units" label="How many you filled" @change="count = $event" /></label>
        <label class="label">Together they weigh<NumberBox :value="weight" kind="g" :units="units" label="Together they weigh" with-unit @change="weight = $event" /></label>
        <p v-if="each" class="each"><span class="quiet">so one {{ label }} is</span><b class="worked">{{ each }}</b></p>
      </div>
      <ul v-if="before.length">
        <li v-for="cup in before" :key="cup.id"><span class="quiet">Weighed before: {{ cup.weighing.count }} came to {{ withUnit(cup.weighing.weight_g, 'g', units) }}</span> <el-button text @click="forget(cup.id)">Forget it</el-button></li>
      </ul>
      <Said tone="stop" v-if="refused">{{ refused }}</Said>
      <div class="dialog-foot">
        <el-button @click="open = false">Not now</el-button>
        <el-button type="primary" native-type="submit">Keep this weight</el-button>
      </div>
    </form>
  </el-dialog>
</template>

<style scoped>
.weigh { display: grid; gap: 12px }
.numbers { display: flex; flex-wrap: wrap; gap: 12px; align-items: end }
.numbers .el-input { width: 150px }
.weigh :deep(.ingredient input) { border: 1.5px solid var(--rim-soft); border-radius: 10px; min-height: var(--touch) }
.each { display: grid }
.each b { font-size: 1.3rem }
ul { list-style: none; margin: 0; padding: 0 }
</style>
