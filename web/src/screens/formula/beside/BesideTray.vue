<script setup lang="ts">
/** What is not mixed into the dough: wash, topping, pan oil. It counts in no percentage. */
import { computed } from 'vue'
import { emptyBeside, emptyLine } from '@/screens/formula/lines/lines'
import type { BesideKind, Formula, Whole } from '@/api/client'
import NumberField from '@/design/NumberField.vue'
import { plain, withUnit, type Units } from '@/base/format'
import { tell } from '@/base/notice'
import SelectField from '@/design/SelectField.vue'

export interface BesideTrayProps {
  /** The desk's own formula; it is edited in place. */
  formula: Formula
  whole: Whole | null
  units: Units
}
const props = defineProps<BesideTrayProps>()
const emit = defineEmits<{
  /** A step of undo of its own is about to be made. */
  step: []
  undo: []
}>()

function add(stage?: number): void {
  emit('step')
  if (stage === undefined) props.formula.beside.push(props.formula.beside.length ? emptyBeside('', 'topping') : emptyBeside('Wash', 'wash'))
  else props.formula.beside[stage]?.lines.push(emptyLine())
}
const PER = { pieces: 'pieces', surface: 'pieces', area: 'pieces', inside: 'pans', dough: '', pot: '' } as const
/** By what its weights are scaled; a thing of pans where there is no pan, by the pieces. */
const per = (kind: BesideKind) => PER[props.units.reference.beside[kind]?.per ?? 'dough']
const scaledBy = { pieces: 'by the pieces', surface: 'by the surface of the pieces', area: 'by area, inside a border', inside: 'by the inside of the pans', dough: 'with the dough', pot: 'by the water in the pot' } as const
const kinds = computed(() => Object.values(props.units.reference.beside).map(({ kind, label }) => ({ value: kind, label })))
function remove(s: number, n: number): void {
  emit('step')
  const stage = props.formula.beside[s]
  const [gone] = stage?.lines.splice(n, 1) ?? []
  if (!stage?.lines.length) props.formula.beside.splice(s, 1)
  tell(`Removed ${gone?.name || 'a line without a name'}.`, () => emit('undo'))
}
</script>

<template>
  <section class="tray beside" aria-labelledby="beside-head">
    <div class="tray-head"><h2 id="beside-head">Beside the dough</h2><span class="quiet">wash, topping, pan oil: in no percentage</span></div>
    <div v-for="(stage, s) in formula.beside" :key="s">
      <div class="stage">
        <input v-model="stage.name" class="stage-name" maxlength="300" placeholder="What it is for" :aria-label="`What ${stage.name || 'this'} is for`" />
        <SelectField class="kind" :value="stage.kind" :options="kinds" :label="`What ${stage.name || 'this'} is`" :title="scaledBy[units.reference.beside[stage.kind]?.per ?? 'dough']" @choose="stage.kind = $event" />
        <label v-if="per(stage.kind)" class="quiet serves">for <NumberField :value="stage.serves ?? whole?.[per(stage.kind) === 'pans' ? 'written_pans' : 'written_pieces']" :worked="stage.serves == null" kind="count" :units="units" :label="`${stage.name || 'this'}, for how many ${per(stage.kind)}; nothing for all of the dough`" @change="stage.serves = $event" /> {{ per(stage.kind) }}</label>
      </div>
      <ul>
        <li v-for="(line, n) in stage.lines" :key="n">
          <span class="what">
            <input v-model="line.name" maxlength="300" placeholder="Ingredient" :aria-label="`${stage.name || 'Beside the dough'}, line ${n + 1}`" :title="line.written || undefined" />
            <small v-if="line.note" class="quiet">{{ line.note }}</small>
          </span>
          <span class="counted quiet" :title="`In this count, ${scaledBy[units.reference.beside[stage.kind]?.per ?? 'dough']}`">{{ line.weight_g == null || !whole?.beside[s] ? '' : `→ ${withUnit(line.weight_g * whole.beside[s].times, 'g', units)}` }}</span>
          <NumberField :value="line.weight_g ?? null" kind="g" :units="units" :label="`${line.name || 'line without a name'}, weight beside the dough`" with-unit @change="line.weight_g = $event" />
          <el-button text :aria-label="`Remove ${line.name || 'the line'} beside the dough`" @click="remove(s, n)">×</el-button>
        </li>
      </ul>
      <p v-for="one in whole?.beside[s]?.strengths ?? []" :key="one.name" class="quiet strength">{{ one.name }} {{ plain(one.percent) }} % of the water; usual {{ plain(one.low) }} to {{ plain(one.high) }} %<template v-if="one.percent < one.low || one.percent > one.high">: <b>{{ one.percent < one.low ? 'weaker' : 'stronger' }} than usual</b></template></p>
      <el-button text size="small" @click="add(s)">+ Line</el-button>
      <label v-if="units.reference.beside[stage.kind]?.per === 'area'" class="quiet border">border <NumberField :value="stage.border_cm" kind="cm" :units="units" :label="`Border around ${stage.name || 'this'} on a slab`" with-unit @change="stage.border_cm = $event ?? 0" /></label>
    </div>
    <el-button text size="small" @click="add()">+ Something beside the dough</el-button>
  </section>
</template>

<style scoped>
.stage { display: flex; align-items: center; gap: 6px; border-bottom: 2px solid var(--rim-soft) }
.kind { flex: 0 0 128px }
.kind :deep(.el-select__wrapper) { box-shadow: none; background: none; min-height: var(--touch-small); font-size: .9rem; padding: 2px 6px }
.serves { display: inline-flex; align-items: baseline; gap: 2px; white-space: nowrap; font-size: .86rem }
.serves .number { width: 58px; border-color: var(--rim-faint) }
.stage-name { border: 0; flex: 1; min-width: 90px; background: none; font-weight: 700; color: var(--rim); padding: 3px 4px }
ul { list-style: none; margin: 0; padding: 0 }
li { display: grid; grid-template-columns: 1fr auto 92px 30px; align-items: center; border-bottom: 1px solid var(--rim-faint); min-height: 34px }
.what { display: flex; gap: 6px; align-items: baseline; min-width: 0 }
.what input { border: 1.5px solid transparent; background: none; border-radius: 8px; padding: 3px 5px; field-sizing: content; min-width: 90px; max-width: 100% }
.what input:hover, .what input:focus { border-color: var(--rim-soft) }
.counted { font-size: .88rem; white-space: nowrap; color: var(--crust) }
.strength { font-size: .86rem; margin: 2px 4px }
.border { display: inline-flex; align-items: baseline; gap: 2px; font-size: .86rem; margin-left: 8px }
.border .number { width: 66px; border-color: var(--rim-faint) }
li .el-button { padding: 0; min-height: 30px }
@media (max-width: 700px) { .what input { min-height: 44px } }
</style>
