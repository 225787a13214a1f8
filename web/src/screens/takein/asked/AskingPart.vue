<script setup lang="ts">
/** What is still open of a recipe, what is doubtful, and the questions worth asking. */
import { computed } from 'vue'
import QuestionCard from './QuestionCard.vue'
import type { Asked, TakenIn } from '@/api/client'
import type { Units } from '@/base/format'
import Said from '@/design/Said.vue'
import SelectField from '@/design/SelectField.vue'

export interface AskingPartProps {
  taken: TakenIn
  questions: readonly Asked[]
  disagreements: readonly { said: string; number: number }[]
  /** In words; blank where all is settled. */
  stillOpen: string
  /** Whether a line of it is flour by the cup. */
  hasCup: boolean
  /** Whose cups this one recipe uses, as the baker says; and the kitchen's own. */
  system: string | null | undefined
  ownSystem: string | null | undefined
  units: Units
}
const props = defineProps<AskingPartProps>()
const emit = defineEmits<{ show: [line: number]; weighCup: []; answer: [asked: Asked, option: string | null]; system: [system: string] }>()

const systems = computed(() => {
  const known = props.units.reference.questions.system?.options ?? {}
  const hint = props.taken.hint
  const says = hint ? `${known[hint]}, as its own words say` : props.ownSystem ? `${known[props.ownSystem]}, as this kitchen’s` : 'not said'
  return [{ value: '', label: says }, ...Object.entries(known).map(([value, label]) => ({ value, label }))]
})
</script>

<template>
  <div class="asking">
    <Said class="state" :tone="stillOpen ? 'now' : 'ok'" role="status">
      <div class="row"><span>{{ stillOpen ? `${stillOpen}.` : 'All is settled. What range is left is in the measuring itself.' }}</span>
      <el-button v-if="taken.open_lines.length" @click="emit('show', taken.open_lines[0] ?? 0)">Go to what moves it most</el-button>
      <el-button v-if="hasCup" @click="emit('weighCup')">Weigh my cup</el-button></div>
    </Said>
    <Said v-for="doubt in taken.doubts" :key="doubt" tone="now">{{ doubt }}</Said>
    <Said v-for="{ said, number } in disagreements" :key="said + number" tone="now">{{ said }} <el-button text size="small" @click="emit('show', number)">line {{ number + 1 }}</el-button></Said>
    <div class="cards"><QuestionCard v-for="asked in questions" :key="asked.key" :asked="asked" @answer="emit('answer', asked, $event)" /></div>
    <label v-if="taken.measured" class="system quiet">Cups and spoons of this recipe are
      <SelectField :value="system ?? ''" :options="systems" label="Cups and spoons of this recipe are" @choose="emit('system', $event)" />
    </label>
  </div>
</template>

<style scoped>
.asking { display: grid; gap: 10px }
.state .row { margin: 0; align-items: center; gap: 12px; justify-content: space-between; min-height: 34px }
.state span:first-child { flex: 1 1 240px }
.cards { display: grid; gap: 14px; grid-template-columns: repeat(auto-fill, minmax(min(272px, 100%), 1fr)) }
.system { display: flex; flex-wrap: wrap; align-items: center; gap: 8px; padding-top: 6px }
.system .el-select { width: 300px }
</style>
