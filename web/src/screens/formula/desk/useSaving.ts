/** Saving a revision: a word or two on what was tried; branching a formula off one, and bringing one back. */
import { useQueryClient } from '@tanstack/vue-query'
import { ref, shallowRef, type Ref } from 'vue'
import type { useDesk } from './useDesk'
import type { View } from './useView'
import { api, ask, Refused, type Formula } from '@/api/client'
import { plainCopy } from '@/base/copy'
import { tell } from '@/base/notice'

export interface SavingNeeds {
  desk: ReturnType<typeof useDesk>
  view: View
  /** The formula that is shown: the desk's, or that of the revision being read; null until it is here. */
  shown: () => Formula | null
  /** Where a refusal that concerns the formula itself is told. */
  problem: Ref<Refused['problem'] | null>
  attempt: (act: () => Promise<unknown>) => Promise<void>
}

export function useSaving({ desk, view, shown, problem, attempt }: SavingNeeds) {
  const cache = useQueryClient()
  const asking = ref(false)
  const note = ref('')
  const saving = ref(false)
  const saveProblem = shallowRef<Refused | null>(null)

  function askToSave(): void {
    if (view.reading.value !== undefined) return
    saveProblem.value = null
    asking.value = true
  }
  async function saved(): Promise<void> {
    asking.value = false
    note.value = ''
    tell(`Saved as revision ${desk.head.value?.latest_number}.`)
    for (const queryKey of [['formulas'], ['pantry'], ['revisions']]) await cache.invalidateQueries({ queryKey })
  }
  async function save(): Promise<void> {
    saving.value = true
    saveProblem.value = null
    try {
      await desk.save(note.value.trim())
      await saved()
    } catch (caught) {
      if (!(caught instanceof Refused)) throw caught
      if (caught.isBehind || caught.isAway) {
        saveProblem.value = caught
      } else {
        asking.value = false
        problem.value = caught.problem
      }
    } finally {
      saving.value = false
    }
  }
  async function saveOnTop(): Promise<void> {
    await desk.keepMine()
    await save()
  }
  async function takeTheirs(): Promise<void> {
    asking.value = false
    await desk.takeTheirs()
  }
  /** Ours as a formula of its own, beside what the other window left. */
  async function asOwn(): Promise<void> {
    asking.value = false
    await attempt(async () => {
      await desk.keepBoth()
      await cache.invalidateQueries({ queryKey: ['formulas'] })
      tell(`${desk.head.value?.name} is a formula of its own now; the other window’s stays as it is.`)
    })
  }
  const branch = () =>
    attempt(async () => {
      if (!desk.head.value) return
      const state = await ask(api.POST('/api/formulas/{formula_id}/copy', { params: { path: { formula_id: desk.head.value.id }, query: { revision: view.reading.value } } }))
      await cache.invalidateQueries({ queryKey: ['formulas'] })
      await view.router.push({ name: 'formula', params: { id: state.head.id }, query: {} })
      tell(`${state.head.name} is a formula of its own now.`)
    })
  async function bringBack(): Promise<void> {
    const now = shown()
    if (!now || !desk.head.value) return
    const number = view.reading.value
    const formula = plainCopy(now)
    await attempt(async () => {
      await desk.save(`Brought back revision ${number}`, formula)
      await view.router.replace({ query: {} })
      await saved()
    })
  }
  return { asking, note, saving, saveProblem, askToSave, save, saveOnTop, takeTheirs, asOwn, branch, bringBack }
}
