/** The line looked at, the thing that is open, and what the baker settles of them. */
import { computed, nextTick, ref, type Ref } from 'vue'
import { settle, unsettle, type Row, type Taking } from '@/screens/takein/recipe/useTaking'
import type { Settled, TakenIn, TakenLine } from '@/api/client'

export interface Settling {
  taking: Ref<Taking>
  step: () => void
}

/** `showInText` brings a line of the text into view. */
export function useSettling(kept: Settling, taken: Ref<TakenIn | null>, showInText: (line: number) => void) {
  const at = ref(-1)
  const openKey = ref('')
  const lookedLine = computed(() => taken.value?.lines[at.value])

  function look(line: number): void {
    at.value = line
    void nextTick(() => document.querySelector('.lines .looked')?.scrollIntoView({ block: 'nearest' }))
  }
  function show(line: number): void {
    look(line)
    showInText(line)
  }
  function toggle(row: Row): void {
    openKey.value = openKey.value === row.key ? '' : row.key
    at.value = row.number
    showInText(row.number)
  }
  function settled(line: TakenLine, part: number, what: Partial<Settled>): void {
    kept.step()
    settle(kept.taking.value, { line, part }, what)
  }
  const settleRow = (row: Row, what: Partial<Settled>) => settled(row.line, row.thing.part, what)
  /** Where everything under a heading goes. */
  const settleGroup = (line: TakenLine, where: Settled['where']) => settled(line, 0, { where })
  function settleKind(kind: Settled['kind']): void {
    if (lookedLine.value) settled(lookedLine.value, 0, { kind })
  }
  function unsettleRow(row: Row): void {
    kept.step()
    unsettle(kept.taking.value, { line: row.line, part: row.thing.part })
  }
  return { at, openKey, lookedLine, look, show, toggle, settleRow, settleGroup, settleKind, unsettleRow }
}
