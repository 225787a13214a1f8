<script setup lang="ts">
/** Two formulas on the same flour: what differs, line by line and gauge by gauge, the most first. */
import { computed, ref } from 'vue'
import type { Compared, ComparedLine } from '@/api/client'
import { shown, withUnit, type Units } from '@/base/format'

export interface DifferenceTableProps {
  compared: Compared
  units: Units
  /** What the two sides are called, ours first. */
  sides: readonly [string, string]
  /** Whether theirs can be brought over. */
  canBring?: boolean
}
const props = defineProps<DifferenceTableProps>()
const emit = defineEmits<{
  line: [line: ComparedLine]
  stage: [line: ComparedLine]
}>()

const showsAll = ref(false)
const different = computed(() => props.compared.lines.filter((line) => !line.alike))
const alike = computed(() => props.compared.lines.length - different.value.length)
const stages = computed(() => new Set(props.compared.lines.map((line) => line.kind)).size)
const figure = (percent: number | null | undefined) => (percent == null ? '–' : shown(percent, 'percent', props.units))
const signed = (percent: number, alike: boolean) => (alike ? '' : `${percent > 0 ? '+' : ''}${shown(percent, 'percent', props.units)}`)
const lines = computed(() =>
  (showsAll.value ? props.compared.lines : different.value).map((line) => ({
    line,
    called: `${line.name || 'Line without a name'}${stages.value > 1 ? `, ${line.stage || line.kind}` : ''}`,
    ours: figure(line.ours_percent),
    theirs: figure(line.theirs_percent),
    oursG: line.ours_g == null ? '' : withUnit(line.ours_g, 'g', props.units),
    theirsG: line.theirs_g == null ? '' : withUnit(line.theirs_g, 'g', props.units),
    change: signed(line.differs, line.alike),
  })),
)
const gauges = computed(() =>
  props.compared.gauges
    .filter((gauge) => showsAll.value || !gauge.alike)
    .map((gauge) => ({
      key: gauge.key,
      label: props.units.reference.gauges[gauge.key]?.label ?? gauge.key,
      ours: shown(gauge.ours, 'percent', props.units, 3),
      theirs: shown(gauge.theirs, 'percent', props.units, 3),
      change: signed(gauge.differs, gauge.alike),
    })),
)
</script>

<template>
  <div class="differences">
    <p v-if="compared.same" class="said ok">The same, line by line.</p>
    <table v-if="lines.length">
      <thead><tr><th scope="col">Line, % of flour</th><th scope="col" class="n">{{ sides[1] }}</th><th scope="col" class="n">{{ sides[0] }}</th><th scope="col" class="n">change</th><th v-if="canBring"><span class="visually-hidden">Bring over</span></th></tr></thead>
      <tbody>
        <tr v-for="{ line, called, ours, theirs, oursG, theirsG, change } in lines" :key="`${line.ours?.stage}.${line.ours?.line}-${line.theirs?.stage}.${line.theirs?.line}`">
          <td>{{ called }}</td>
          <td class="n">{{ theirs }}<small class="quiet">{{ theirsG }}</small></td>
          <td class="n">{{ ours }}<small class="quiet">{{ oursG }}</small></td>
          <td class="n worked">{{ change }}</td>
          <td v-if="canBring" class="bring">
            <button v-if="line.theirs && change" type="button" class="button bare" :aria-label="`Bring ${called} over`" @click="emit('line', line)">Bring</button>
            <button v-if="line.theirs && !line.ours" type="button" class="button bare" :aria-label="`Bring the stage of ${called} over`" @click="emit('stage', line)">its stage</button>
          </td>
        </tr>
      </tbody>
    </table>
    <table v-if="gauges.length">
      <thead><tr><th scope="col">The dough, %</th><th scope="col" class="n">{{ sides[1] }}</th><th scope="col" class="n">{{ sides[0] }}</th><th scope="col" class="n">change</th></tr></thead>
      <tbody>
        <tr v-for="gauge in gauges" :key="gauge.key"><td>{{ gauge.label }}</td><td class="n">{{ gauge.theirs }}</td><td class="n">{{ gauge.ours }}</td><td class="n worked">{{ gauge.change }}</td></tr>
      </tbody>
    </table>
    <p v-if="compared.ours.feel.key !== compared.theirs.feel.key || compared.ours.richness.key !== compared.theirs.richness.key">
      In a word: {{ compared.theirs.feel.label }} and {{ compared.theirs.richness.label }} → <b>{{ compared.ours.feel.label }} and {{ compared.ours.richness.label }}</b>.
    </p>
    <button v-if="alike || showsAll" type="button" class="button bare" :aria-expanded="showsAll" @click="showsAll = !showsAll">{{ showsAll ? 'Only what differs' : `${alike} alike` }}</button>
  </div>
</template>

<style scoped>
.differences { display: grid; gap: 8px; justify-items: start }
table { border-collapse: collapse; width: 100% }
th { text-align: left; font-weight: 600; font-size: .82rem; color: var(--ink-2); border-bottom: 2px solid var(--rim-soft); padding: 2px 4px }
td { border-bottom: 1px solid var(--rim-faint); padding: 4px; vertical-align: top }
.n { text-align: right; white-space: nowrap }
.n small { display: block; line-height: 1.1 }
.bring { text-align: right; padding: 0 }
.bring .button { padding: 2px 6px }
@media (max-width: 1180px) { .bring .button { min-height: 44px } }
</style>
