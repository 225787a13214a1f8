<script setup lang="ts">
/** Two formulas on the same flour: what differs, line by line and gauge by gauge, the most first. */
import { computed, ref } from 'vue'
import type { Compared, ComparedLine } from '@/api/client'
import { shown, withUnit, type Units } from '@/base/format'
import Said from '@/design/Said.vue'

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
  way: [number: number, name: string]
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
    key: `${line.ours?.stage}.${line.ours?.line}-${line.theirs?.stage}.${line.theirs?.line}`,
    called: `${line.name || 'Line without a name'}${stages.value > 1 ? `, ${line.stage || line.kind}` : ''}`,
    ours: figure(line.ours_percent),
    theirs: figure(line.theirs_percent),
    oursG: line.ours_g == null ? '' : withUnit(line.ours_g, 'g', props.units),
    theirsG: line.theirs_g == null ? '' : withUnit(line.theirs_g, 'g', props.units),
    change: signed(line.differs, line.alike),
  })),
)
const ways = computed(() =>
  props.compared.ways
    .filter((way) => showsAll.value || !way.alike)
    .map((way, key) => {
      const differ = way.steps.filter((pair) => !pair.alike).length
      const says = way.ours == null ? `only in ${props.sides[1]}` : way.theirs == null ? `only in ${props.sides[0]}` : way.alike ? 'alike' : differ ? `${differ} of its steps differ` : 'another dough, the same steps'
      return { key, name: way.name || 'the way', says, theirs: way.alike ? null : way.theirs }
    }),
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
    <Said tone="ok" v-if="compared.same">The same, line by line.</Said>
    <el-table v-if="lines.length" :data="lines" row-key="key">
      <el-table-column label="Line, % of flour" prop="called" min-width="104" />
      <el-table-column :label="sides[1]" min-width="64" align="right"><template #default="{ row }">{{ row.theirs }}<small class="quiet">{{ row.theirsG }}</small></template></el-table-column>
      <el-table-column :label="sides[0]" min-width="64" align="right"><template #default="{ row }">{{ row.ours }}<small class="quiet">{{ row.oursG }}</small></template></el-table-column>
      <el-table-column label="change" min-width="64" align="right"><template #default="{ row }"><span class="worked">{{ row.change }}</span></template></el-table-column>
      <el-table-column v-if="canBring" width="100" align="right"><template #header><span class="visually-hidden">Bring over</span></template>
        <template #default="{ row }">
          <el-button v-if="row.line.theirs && row.change" text size="small" :aria-label="`Bring ${row.called} over`" @click="emit('line', row.line)">Bring</el-button>
          <el-button v-if="row.line.theirs && !row.line.ours" text size="small" :aria-label="`Bring the stage of ${row.called} over`" @click="emit('stage', row.line)">its stage</el-button>
        </template>
      </el-table-column>
    </el-table>
    <el-table v-if="gauges.length" :data="gauges" row-key="key">
      <el-table-column label="The dough, %" prop="label" min-width="104" />
      <el-table-column :label="sides[1]" prop="theirs" min-width="64" align="right" />
      <el-table-column :label="sides[0]" prop="ours" min-width="64" align="right" />
      <el-table-column label="change" min-width="64" align="right"><template #default="{ row }"><span class="worked">{{ row.change }}</span></template></el-table-column>
      <el-table-column v-if="canBring" width="100" />
    </el-table>
    <p v-for="way in ways" :key="way.key"><b>{{ way.name }}</b>: {{ way.says }} <el-button v-if="canBring && way.theirs != null" text size="small" :aria-label="`Bring the way ${way.name} over`" @click="emit('way', way.theirs, way.name)">Bring</el-button></p>
    <p v-if="compared.ours.feel.key !== compared.theirs.feel.key || compared.ours.richness.key !== compared.theirs.richness.key">
      In a word: {{ compared.theirs.feel.label }} and {{ compared.theirs.richness.label }} → <b>{{ compared.ours.feel.label }} and {{ compared.ours.richness.label }}</b>.
    </p>
    <el-button text v-if="alike || showsAll" :aria-expanded="showsAll" @click="showsAll = !showsAll">{{ showsAll ? 'Only what differs' : `${alike} alike` }}</el-button>
  </div>
</template>

<style scoped>
.differences { display: grid; gap: 8px; justify-items: start }
small { display: block; line-height: 1.1 }
</style>
