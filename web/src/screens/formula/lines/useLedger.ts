/** The ledger by keyboard: going from cell to cell, and lines and stages added, moved and taken out. */
import { nextTick, type Ref } from 'vue'
import { addLine, emptyStage, moveLine, removeLine, type Spot } from './lines'
import type { Formula } from '@/api/client'
import { tell } from '@/base/notice'

export interface LedgerActs {
  /** Lines or stages are about to be added, moved or removed: a step of undo of its own. */
  step: () => void
  undo: () => void
  /** A stage is gone: what was open of it is not there any more. */
  gone: () => void
}

/** `table` holds the cells, each with its place as `data-cell="stage:line:column"`. */
export function useLedger(formula: () => Formula, table: Ref<HTMLElement | undefined>, acts: LedgerActs) {
  function focusCell(spot: Spot | null, column: string): void {
    if (!spot) return
    void nextTick(() => {
      const cell = table.value?.querySelector<HTMLElement>(`[data-cell="${spot.stage}:${spot.line}:${column}"]`)
      ;(cell?.matches('input') ? cell : cell?.querySelector('input'))?.focus()
    })
  }
  /** Which cell the keyboard is in. */
  function cellOf(target: EventTarget | null): { spot: Spot; column: string } | null {
    const at = (target as HTMLElement).closest?.('[data-cell]')?.getAttribute('data-cell')?.split(':')
    return at ? { spot: { stage: Number(at[0]), line: Number(at[1]) }, column: at[2] as string } : null
  }

  function add(spot: Spot): void {
    acts.step()
    focusCell(addLine(formula(), spot), 'name')
  }
  function next({ stage, line }: Spot, column: string): void {
    if (formula().stages[stage]?.lines[line + 1]) focusCell({ stage, line: line + 1 }, column)
    else add({ stage, line })
  }
  function remove(spot: Spot, column = 'name'): void {
    acts.step()
    const name = formula().stages[spot.stage]?.lines[spot.line]?.name || 'a line without a name'
    focusCell(removeLine(formula(), spot), column)
    tell(`Removed ${name}.`, acts.undo)
  }
  function move(spot: Spot, by: 1 | -1, column = 'name'): void {
    acts.step()
    focusCell(moveLine(formula(), spot, by), column)
  }
  function addStage(): void {
    acts.step()
    formula().stages.push(emptyStage(''))
    const last = formula().stages.length - 1
    void nextTick(() => table.value?.querySelector<HTMLElement>(`[data-stage="${last}"]`)?.focus())
  }
  function removeStage(s: number): void {
    acts.step()
    const [gone] = formula().stages.splice(s, 1)
    acts.gone()
    tell(`Removed the stage ${gone?.name || 'without a name'} and its ${gone?.lines.length} lines.`, acts.undo)
  }

  const STEP: Record<string, 1 | -1 | undefined> = { ArrowUp: -1, ArrowDown: 1 }
  function onKey(event: KeyboardEvent): void {
    const at = cellOf(event.target)
    const by = STEP[event.key]
    if (event.key === 'Enter' && event.altKey) {
      event.preventDefault()
      addStage()
    } else if (!at) {
      return
    } else if (event.altKey && by) {
      event.preventDefault()
      move(at.spot, by, at.column)
    } else if (event.altKey && (event.key === 'Backspace' || event.key === 'Delete')) {
      event.preventDefault()
      remove(at.spot, at.column)
    } else if (at.column !== 'name' && by) {
      event.preventDefault()
      focusCell({ stage: at.spot.stage, line: at.spot.line + by }, at.column)
    } else if (at.column !== 'name' && event.key === 'Enter') {
      event.preventDefault()
      next(at.spot, at.column)
    }
  }

  return { focusCell, add, remove, move, addStage, removeStage, onKey }
}
