<script setup lang="ts">
/** What a recipe was taken to be: its things by heading, in grams or in percent of flour, and its method. */
import { computed, ref } from 'vue'
import TakenThing from './TakenThing.vue'
import { WHERE } from './where'
import type { Ingredient, Settled, TakenIn, TakenLine } from '@/api/client'
import { withUnit, type Units } from '@/base/format'
import ChoiceRow from '@/design/ChoiceRow.vue'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'
import type { Row } from '@/screens/takein/recipe/useTaking'

export interface TakenTrayProps {
  taken: TakenIn | null
  rows: readonly Row[]
  pantry: readonly Ingredient[]
  units: Units
  /** The line that is looked at, or −1; and the thing that is open. */
  at: number
  openKey: string
}
const props = defineProps<TakenTrayProps>()
const emit = defineEmits<{
  toggle: [row: Row]
  settle: [row: Row, what: Partial<Settled>]
  unsettle: [row: Row]
  group: [head: TakenLine, where: Settled['where']]
  weigh: [row: Row]
}>()

const groups = computed(() => {
  const heads = (props.taken?.lines ?? []).map((line, number) => ({ line, number })).filter(({ line }) => line.kind === 'heading' && line.where)
  const found: { name: string; rows: Row[]; head: { line: TakenLine; number: number } | undefined }[] = []
  for (const row of props.rows) {
    if (found.at(-1)?.name !== row.line.group) found.push({ name: row.line.group, rows: [], head: heads.find(({ line }) => line.group === row.line.group) })
    found.at(-1)?.rows.push(row)
  }
  return found
})
const percents = computed(() => new Map((props.taken?.percents ?? []).map((p) => [`${p.line}:${p.part}`, p])))
const KINDS = computed(() => [
  { value: 'g' as const, label: props.units.weight },
  { value: 'percent' as const, label: '% of flour' },
])
const kind = ref<'g' | 'percent'>('g')
const steps = computed(() => (props.taken?.lines ?? []).map((line, number) => ({ line, number })).filter(({ line }) => line.kind === 'step' && line.text.trim()))
</script>

<template>
  <section class="tray taken" aria-labelledby="taken-head">
    <div class="tray-head">
      <h2 id="taken-head">Taken to be</h2>
      <span v-if="taken?.flour" class="quiet">{{ withUnit(taken.flour.usual_g, 'g', units, 3) }} flour · low · usual · high in</span>
      <ChoiceRow v-if="rows.length" class="kinds" label="Shown in" :options="KINDS" :value="kind" @choose="kind = $event" />
    </div>
    <el-skeleton v-if="!taken" :rows="5" animated aria-label="Reading" />
    <Said v-else-if="!rows.length" tone="now"><strong>Nothing was understood as an ingredient.</strong>Write one a line, the amount first: “4 cups bread flour”, “320 g water”, “2 tsp salt”. Or put the caret on a line and say below the text what it is.</Said>
    <div v-else class="lines">
      <template v-for="(group, g) in groups" :key="g">
        <h3 v-if="group.name">{{ group.name }}</h3>
        <div v-if="group.head" class="group-ask" :class="{ open: group.head.line.asks, looked: group.head.number === at }">
          <p v-if="group.head.line.asks">{{ group.head.line.asks }}</p>
          <label class="quiet">All of it goes
            <SelectField :value="group.head.line.where" :options="WHERE" :label="`Where all under ${group.name} goes`" @choose="emit('group', group.head.line, $event)" />
          </label>
          <el-button v-if="group.head.line.asks" size="small" @click="emit('group', group.head.line, (group.head.line.where ?? 'dough') as Settled['where'])">That is right</el-button>
        </div>
        <ul>
          <TakenThing
            v-for="row in group.rows"
            :key="row.key"
            :row="row"
            :open="openKey === row.key"
            :looked="row.number === at"
            :percent="percents.get(row.key)"
            :kind="kind"
            :pantry="pantry"
            :units="units"
            @toggle="emit('toggle', row)"
            @settle="emit('settle', row, $event)"
            @unsettle="emit('unsettle', row)"
            @weigh="emit('weigh', row)"
          />
        </ul>
      </template>
      <details v-if="steps.length" class="method">
        <summary>Method: {{ steps.length }} {{ steps.length === 1 ? 'step' : 'steps' }}, kept as the draft of its steps</summary>
        <ol><li v-for="{ line, number } in steps" :key="number">{{ line.text.trim() }} <span v-for="fact in line.facts" :key="fact.text" class="chip">{{ fact.text }}</span></li></ol>
      </details>
    </div>
  </section>
</template>

<style scoped>
.taken { display: flex; flex-direction: column }
.tray-head .quiet { margin-left: auto }
.kinds { flex: 0 0 auto }
.lines { overflow: auto; min-height: 0; margin: 0 calc(-1 * var(--side)); padding: 0 var(--side) }
.group-ask { display: flex; flex-wrap: wrap; align-items: center; gap: 8px; padding: 4px 0; font-size: .92rem }
.group-ask.looked { background: var(--crust-soft) }
.group-ask.open { color: var(--crust) }
.group-ask p { flex: 1 1 240px; margin: 0 }
.group-ask label { display: grid; grid-template-columns: auto 150px; gap: 8px; align-items: center }
h3 { font: 700 .95rem var(--body); color: var(--rim); border-bottom: 2px solid var(--rim-soft); padding: 7px 0 3px }
ul { list-style: none; margin: 0; padding: 0 }
.method { margin-top: 8px; font-size: .92rem }
.method summary { cursor: pointer; min-height: 34px; color: var(--ink-2) }
.method li { margin-bottom: 6px }
</style>
