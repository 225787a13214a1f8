<script setup lang="ts">
/** One learned figure: the trade's, the kitchen's with its range, what is used now; opened, how it moved and which bakes count. */
import { computed, ref } from 'vue'
import { dayText, figureText, straysText } from './words'
import type { KitchensFigure } from '@/api/client'
import type { Units } from '@/base/format'
import FigureMoved from '@/drawings/FigureMoved.vue'

export interface FigureCardProps {
  figure: KitchensFigure
  units: Units
  open: boolean
}
const props = defineProps<FigureCardProps>()
const emit = defineEmits<{ toggle: []; take: []; back: []; leave: [bake: string, reason: string] }>()
const text = (value: number) => figureText(value, props.figure, props.units)
const leaving = ref('')
const reason = ref('')
function leave(): void {
  emit('leave', leaving.value, reason.value.trim())
  leaving.value = reason.value = ''
}
/** Taken, and no bake since has moved it by more than can be seen. */
const isUsed = computed(() => props.figure.taken != null && text(props.figure.taken.value) === text(props.figure.usual))
const WHERE: Record<string, string> = { count: 'the count', method: 'the method', day: 'the method and the day', label: 'weights to sell by' }
const reads = computed(() => {
  const { working } = props.figure
  return working.reads.replace(/\{(\w+)\}/g, (_, name: string) => {
    const input = working.inputs.find((one) => one.name === name)
    return input ? (input.unit === 'count' && name === 'bakes' ? String(input.value) : text(input.value)) : name
  })
})
const name = computed(() => (props.figure.way_name ? `${props.figure.label}, ${props.figure.way_name}` : props.figure.label))
</script>

<template>
  <article class="figure">
    <div class="row">
      <div class="name"><b>{{ name }}</b><small class="quiet">{{ figure.says }} For {{ WHERE[figure.taken_for] ?? figure.taken_for }}.</small></div>
      <div class="cell"><small class="quiet">without the book</small><span>{{ text(figure.trade) }}</span></div>
      <div class="cell own"><small class="quiet">from {{ figure.bakes }} {{ figure.bakes === 1 ? 'bake' : 'bakes' }}</small><b class="worked">{{ text(figure.usual) }}</b></div>
      <div class="cell"><small class="quiet">four times in five</small><span>{{ text(figure.low) }} to {{ text(figure.high) }}</span></div>
      <div class="cell"><small class="quiet">one bake strays</small><span>{{ straysText(figure, units) }}</span></div>
      <div class="acts">
        <span v-if="isUsed" class="used">in use<small v-if="figure.taken" class="quiet"> since {{ dayText(`${figure.taken.on}T12:00:00`) }}</small></span>
        <el-button v-else-if="figure.bakes" type="primary" :aria-label="`Take ${name}`" @click="emit('take')">{{ figure.taken ? 'Take it anew' : 'Take it' }}</el-button>
        <el-button v-if="figure.taken" text :aria-label="`Give back ${name}`" @click="emit('back')">Give back</el-button>
        <el-button text :aria-expanded="open" :aria-label="`How ${name} was worked out`" @click="emit('toggle')">{{ open ? 'Close' : 'Working' }}</el-button>
      </div>
    </div>
    <div v-if="open" class="working">
      <p>{{ figure.working.says }}</p>
      <p class="figures">{{ reads }}.</p>
      <p class="quiet">Without the book: {{ figure.source }}. Used now: {{ text(figure.in_use) }}<template v-if="figure.taken">, taken from {{ figure.taken.bakes }} bakes</template>.</p>
      <FigureMoved v-if="figure.moved.length" :figure="figure" :text="text" />
      <ul class="said">
        <li v-for="(one, n) in figure.said" :key="n" :class="{ out: !one.counts }">
          <RouterLink :to="{ name: 'book-bake', params: { id: one.bake } }">{{ dayText(one.begun_s) }}</RouterLink><span class="bake">{{ one.name }}</span><b>{{ text(one.value) }}</b>
          <span class="why quiet">{{ one.why }}</span>
          <el-button v-if="one.why.startsWith('Left out')" text size="small" @click="emit('leave', one.bake, '')">Count it again</el-button>
          <el-button v-else text size="small" :aria-label="`Leave out the bake of ${dayText(one.begun_s)}`" @click="(leaving = one.bake), (reason = '')">Leave out</el-button>
        </li>
      </ul>
      <form v-if="leaving" class="leave" @submit.prevent="leave"><label class="label">Why does it not count?<el-input v-model="reason" maxlength="300" aria-label="Why does it not count?" placeholder="weighed hot; the oven door stood open" /></label><el-button native-type="submit" :disabled="!reason.trim()">Leave it out</el-button><el-button text @click="leaving = ''">Cancel</el-button></form>
    </div>
  </article>
</template>

<style scoped>
.figure { border-top: 1px solid var(--rim-faint); padding: 8px 0 }
.row { display: grid; grid-template-columns: minmax(200px, 1.5fr) 116px 100px 150px 104px 250px; gap: 4px 14px; align-items: center }
.name, .cell { display: grid }
.cell span, .cell b { font-size: 1.05rem; white-space: nowrap }
.own b { font-size: 1.3rem }
.acts { display: flex; align-items: center; justify-content: end; gap: 2px; flex-wrap: wrap }
.used { color: var(--ok); font-weight: 650; padding: 0 8px }
.working { background: var(--enamel); border-radius: 12px; padding: 10px 14px; margin-top: 8px; display: grid; gap: 6px }
.figures { font-weight: 650 }
.said { list-style: none; margin: 0; padding: 0; max-height: 280px; overflow: auto }
.said li { display: grid; grid-template-columns: 140px minmax(100px, 1fr) 90px minmax(120px, 1.4fr) auto; gap: 10px; align-items: center; border-top: 1px solid var(--rim-faint); min-height: 38px }
.out b { text-decoration: line-through; color: var(--ink-2) }
.bake { overflow: hidden; text-overflow: ellipsis; white-space: nowrap }
.leave { display: grid; grid-template-columns: 1fr auto auto; gap: 8px; align-items: end }
@media (max-width: 900px) { .row { grid-template-columns: 1fr 1fr } .name, .acts { grid-column: 1 / -1 } .acts { justify-content: start } .said li { grid-template-columns: 1fr auto; padding: 4px 0 } .bake, .why { grid-column: 1 / -1 } }
</style>
