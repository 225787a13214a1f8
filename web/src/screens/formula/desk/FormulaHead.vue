<script setup lang="ts">
/** The head of a formula: its name and style, whether it is kept, and what can be done with it. On a phone most of it is in a menu. */
import { computed } from 'vue'
import type { RouteLocationRaw } from 'vue-router'
import { FILES, type OutFile } from './useTakeOut'
import LinkButton from '@/design/LinkButton.vue'

export interface FormulaHeadProps {
  keepingSays: string
  unsaved: boolean
  locked: boolean
  isPhone: boolean
  canUndo: boolean
  canSave: boolean
  canTakeOut: boolean
  /** Why nothing can be taken out; nothing before the formula is kept at all. */
  whyNot: string | undefined
  isKept: boolean
  wrongName: boolean
  sheet: RouteLocationRaw
  /** Where a bake of it is begun. */
  bench: RouteLocationRaw
}
const props = defineProps<FormulaHeadProps>()
const name = defineModel<string>('name', { required: true })
const styles = defineModel<string[]>('styles', { required: true })
const emit = defineEmits<{ undo: []; revisions: []; save: []; flush: []; takeOut: [file: OutFile]; sheet: []; bench: []; keys: [] }>()

const words = computed({
  get: () => styles.value.join(', '),
  set: (text: string) => {
    const found = text.split(',').map((word) => word.trim().slice(0, 40)).filter(Boolean)
    styles.value = [...new Set(found)].slice(0, 12)
  },
})
const asWord = (event: Event) => (words.value = (event.target as HTMLInputElement).value)
const MORE = { undo: () => emit('undo'), revisions: () => emit('revisions'), sheet: () => emit('sheet'), bench: () => emit('bench'), keys: () => emit('keys') }
function act(what: keyof typeof MORE | OutFile): void {
  if (what in MORE) MORE[what as keyof typeof MORE]()
  else emit('takeOut', what as OutFile)
}
const more = computed(() => [
  ...(props.isPhone ? [{ key: 'undo', label: 'Undo', off: !props.canUndo }, { key: 'revisions', label: 'Revisions', off: false }, { key: 'bench', label: 'Bake', off: !props.canTakeOut }, { key: 'sheet', label: 'Weigh sheet', off: !props.canTakeOut }] : []),
  ...FILES.map(([key, label]) => ({ key, label, off: !props.canTakeOut })),
])
</script>

<template>
  <div class="page-head formula-head">
    <!-- A heading that is typed in: ours, so that it is as wide as its name. -->
    <h1 class="name">
      <input v-model="name" maxlength="300" placeholder="Name of the formula" aria-label="Name of the formula" :disabled="locked" :class="{ wrong: wrongName }" />
    </h1>
    <input v-if="!isPhone" :value="words" class="styles chip" placeholder="style words" aria-label="Style words, comma between" :disabled="locked" @change="asWord" />
    <span class="chip state" :class="{ draft: unsaved }" role="status">{{ keepingSays }}</span>
    <span class="spacer" />
    <template v-if="!isPhone">
      <el-button text :disabled="!canUndo" title="Undo (Ctrl Z)" @click="emit('undo')">Undo</el-button>
      <el-button text @click="emit('revisions')">Revisions</el-button>
    </template>
    <el-dropdown trigger="click" :disabled="!isPhone && !canTakeOut" @visible-change="emit('flush')" @command="act">
      <el-button text :disabled="!isPhone && !canTakeOut" :title="whyNot">{{ isPhone ? 'More' : 'Take out' }}</el-button>
      <template #dropdown>
        <el-dropdown-menu>
          <el-dropdown-item v-for="one in more" :key="one.key" :command="one.key" :disabled="one.off">{{ one.label }}</el-dropdown-item>
        </el-dropdown-menu>
      </template>
    </el-dropdown>
    <template v-if="!isPhone">
      <LinkButton v-if="canTakeOut" text :to="bench">Bake</LinkButton>
      <LinkButton v-if="canTakeOut" class="to-sheet" :to="sheet">Weigh sheet</LinkButton>
      <el-button v-else-if="isKept" disabled :title="whyNot">Weigh sheet</el-button>
    </template>
    <el-button type="primary" :disabled="!canSave" @click="emit('save')">{{ isPhone ? 'Save' : 'Save revision' }}</el-button>
  </div>
</template>

<style scoped>
.name { flex: 0 1 auto; min-width: 0; max-width: 100% }
.name input { field-sizing: content; min-width: 130px; max-width: min(460px, 88vw); border: 1.5px solid transparent; background: none; border-radius: 10px; padding: 2px 6px; margin-left: -8px; text-overflow: ellipsis; font-weight: 700 }
.name input:hover, .name input:focus { border-color: var(--rim-soft) }
.name input.wrong { border-color: var(--stop); background: var(--stop-soft) }
.styles { background: none; field-sizing: content; min-width: 90px; max-width: 190px; min-height: 30px; text-overflow: ellipsis }
@media (max-width: 760px) {
  .formula-head { display: grid; grid-template-columns: minmax(0, 1fr) auto auto; gap: 0 4px; margin-bottom: 4px; min-height: 0 }
  .name input { width: 100%; max-width: none; field-sizing: fixed; font-size: 1.2rem; padding-block: 0; margin-left: 0 }
  .state { grid-row: 2; justify-self: start; border: 0; padding: 0 7px; font-size: .76rem; line-height: 1 }
  .formula-head > :not(.name, .state) { grid-row: 1 / 3 }
}
</style>
