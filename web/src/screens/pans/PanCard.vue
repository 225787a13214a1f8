<script setup lang="ts">
/** One pan: from a common size or measured, with water or by its measures; what it is made of, and what that does in the oven. */
import { computed, nextTick, onMounted, ref, toRaw } from 'vue'
import { api, ask, type Measured, type PanState, type ShelfPan } from '@/api/client'
import { plainCopy } from '@/base/copy'
import NumberBox from '@/design/NumberBox.vue'
import PanForm from '@/design/PanForm.vue'
import PanTop from '@/drawings/PanTop.vue'
import { hollows, walls } from '@/drawings/solid'
import { outline, plain, withUnit, type Units } from '@/base/format'
import { useAnswer } from '@/base/useAnswer'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'

export interface PanCardProps {
  shelved: ShelfPan
  /** As it is on the shelf; null for a new one. */
  state: PanState | null
  units: Units
  /** It was opened over something else, which closing it shows again. */
  closes?: boolean
}
const props = defineProps<PanCardProps>()
const emit = defineEmits<{ keep: [shelved: ShelfPan]; away: [state: PanState]; remove: [state: PanState]; close: [] }>()

const draft = ref<ShelfPan>(plainCopy(props.shelved))
const { answer, problem } = useAnswer<Measured>([() => draft.value.pan], ref(true), () => ask(api.POST('/api/reckon/pan', { body: toRaw(draft.value.pan) })))
const measured = computed(() => answer.value)
const wrong = (name: string) => problem.value?.errors?.find((issue) => issue.pointer.endsWith(name))?.detail
const wrongAtAll = computed(() => problem.value?.errors?.[0]?.detail ?? problem.value?.detail)
const common = ref('')
function takeCommon(wanted: string): void {
  common.value = wanted
  const found = props.units.reference.common_pans[Number(common.value)]
  if (found) draft.value.pan = plainCopy(found.pan)
}
const source = computed(() => (common.value === '' ? '' : props.units.reference.common_pans[Number(common.value)]?.source))
const material = computed(() => (draft.value.material ? props.units.reference.materials[draft.value.material] : undefined))

const scale = computed(() => {
  const solid = measured.value?.solid
  if (!solid) return 1
  const [across, down] = outline(solid)
  return Math.min(190 / across, 130 / down, 90 / Math.max(1, solid.depth_cm))
})
const cut = computed(() => (measured.value ? hollows(measured.value.solid, outline(measured.value.solid)[0]) : []))
const promise = computed(() => {
  const m = measured.value
  if (!m || m.promise_is === 'none') return ''
  const said = m.promise.dough_g != null ? `${withUnit(m.promise.dough_g, 'g', props.units)} of dough` : `${(m.promise.size_cm ?? []).map((cm) => withUnit(cm, 'cm', props.units)).join(' × ')}`
  const share = Math.abs((m.promised_share ?? 0) * 100)
  return m.promise_is === 'kept' ? `The name promises ${said}, and it keeps to it.` : `The name promises ${said}; this one ${m.promise.dough_g != null ? 'takes' : 'is'} ${plain(share, 2)} % ${m.promise_is}.`
})
const head = ref<HTMLElement>()
onMounted(() => {
  if (props.closes) void nextTick(() => head.value?.focus())
})
</script>

<template>
  <section class="tray" aria-labelledby="pan-card-head" @keydown.esc="emit('close')">
    <div class="tray-head">
      <h2 id="pan-card-head" ref="head" tabindex="-1">{{ state ? draft.pan.name || 'A pan' : 'New pan' }}</h2>
      <el-button v-if="closes" text @click="emit('close')">Close <kbd>Esc</kbd></el-button>
    </div>
    <form @submit.prevent="emit('keep', plainCopy(draft))">
      <!-- At the head, where it is in sight however long the card is, and no notice lies over it. -->
      <div class="row acts">
        <el-button type="primary" native-type="submit" :disabled="!!problem">{{ state ? 'Keep' : 'Put on the shelf' }}</el-button>
        <template v-if="state">
          <el-button @click="emit('away', state)">{{ state.archived ? 'Back on the shelf' : 'Put away' }}</el-button>
          <el-button text @click="emit('remove', state)">Remove</el-button>
        </template>
      </div>
      <label v-if="!state" class="label">Start from a common size
        <SelectField :value="common" :options="[{ value: '', label: 'measured by myself' }, ...units.reference.common_pans.map((one, i) => ({ value: String(i), label: one.pan.name ?? '' }))]" label="Start from a common size" @choose="takeCommon" />
        <small v-if="source" class="quiet">{{ source }}. Measure yours: sizes of one name differ.</small>
      </label>
      <div v-if="measured" class="drawn">
        <PanTop :solid="measured.solid" :units="units" :scale="scale" />
        <svg v-if="measured.solid.depth_cm" :viewBox="`-4 ${-measured.solid.depth_cm * scale - 4} ${outline(measured.solid)[0] * scale + 8} ${measured.solid.depth_cm * scale + 10}`" :width="outline(measured.solid)[0] * scale + 8" :height="measured.solid.depth_cm * scale + 10" role="img" :aria-label="`From the side, ${withUnit(measured.solid.depth_cm, 'cm', units)} deep`"><path v-for="(part, i) in cut" :key="i" class="wall" :d="walls(part, measured.solid.depth_cm, scale)" /></svg>
      </div>
      <dl v-if="measured" class="facts">
        <div><dt>Area, mid-height</dt><dd>{{ plain(measured.area_cm2) }} cm²</dd></div>
        <div v-if="measured.volume_ml"><dt>To the brim{{ measured.measured_ml != null ? ', by water' : '' }}</dt><dd>{{ plain(measured.volume_ml) }} ml</dd></div>
        <div><dt>Inside, to oil</dt><dd>{{ plain(measured.inside_cm2) }} cm²</dd></div>
      </dl>
      <p v-if="promise" class="promise" :class="measured?.promise_is">{{ promise }}</p>
      <PanForm :pan="draft.pan" :units="units" :measured="measured" :wrong="wrong" @change="draft.pan = $event" />
      <div class="more">
        <label class="label">Made of<SelectField :value="draft.material ?? ''" :options="[{ value: '', label: 'not told' }, ...Object.values(units.reference.materials).map((one) => ({ value: one.key, label: one.label }))]" label="Made of" @choose="draft.material = $event || null" /></label>
        <label class="label">Colour<el-input v-model="draft.colour" maxlength="300" aria-label="Colour" /></label>
        <label class="label">How many<NumberBox :value="draft.owned" kind="count" :units="units" label="How many of them" @change="draft.owned = $event ?? 0" /></label>
        <el-checkbox v-model="draft.sticks">It sticks</el-checkbox>
      </div>
      <p v-if="material" class="quiet small">{{ material.in_the_oven }}</p>
      <p v-if="draft.sticks" class="quiet small">Oil it well, corners too, or line it with paper.</p>
      <label class="label">Note<el-input v-model="draft.note" maxlength="300" aria-label="Note" /></label>
      <Said tone="stop" v-if="wrongAtAll">{{ wrongAtAll }}</Said>
    </form>
  </section>
</template>

<style scoped>
form { display: grid; gap: 10px }
h2:focus { outline: none }
.drawn { display: flex; flex-wrap: wrap; gap: 4px 18px; align-items: end; justify-content: center }
.wall { fill: var(--rim-faint); stroke: var(--rim); stroke-width: 5; stroke-linejoin: round; stroke-linecap: round }
.facts { display: flex; flex-wrap: wrap; gap: 4px 20px; margin: 0; justify-content: center }
.facts div { display: flex; gap: 6px; align-items: baseline }
dt { color: var(--ink-2); font-size: .9rem }
dd { margin: 0; font-weight: 700; color: var(--crust) }
.promise { margin: 0; text-align: center }
.promise.less, .promise.more { color: var(--crust); font-weight: 600 }
.promise.kept { color: var(--ok) }
.more { display: grid; grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr) 84px auto; gap: 8px; align-items: end }
.small { font-size: .9rem; margin: 0 }
.acts { display: flex; flex-wrap: wrap; gap: 8px }
@media (max-width: 760px) { .more { grid-template-columns: 1fr 1fr } }
</style>
