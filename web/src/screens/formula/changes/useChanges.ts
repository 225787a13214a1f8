/** Changes that take more than typing: asked of the core, shown before they are taken where that helps, undone in one step. */
import { shallowRef, toRaw, type Ref } from 'vue'
import { api, ask, type Change, type Changed, type Known } from '@/api/client'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import type { Desk } from '@/screens/formula/desk/useDesk'

export interface Pending {
  title: string
  change: Change
  changed: Changed
}

export interface Keeper {
  desk: Ref<Desk>
  step: () => void
  undo: () => void
}

export function useChanges(keeper: Keeper, known: Ref<Known>) {
  /** A change that is looked at and not taken yet. */
  const pending = shallowRef<Pending | null>(null)
  const { refused, attempt } = useAttempt()
  let queue: Promise<void> = Promise.resolve()

  const reckoned = (change: Change) =>
    ask(api.POST('/api/reckon/change', { body: { formula: toRaw(keeper.desk.value.formula), change, ...known.value } }))

  /** One after the other, each on what the one before left. */
  const inTurn = (act: () => Promise<void>): Promise<void> => (queue = queue.then(() => attempt(act)))

  /** Make it at once: `says` tells what was done, with a way to undo it; nothing is told of what is merely typed. */
  const apply = (change: Change, says?: string) =>
    inTurn(async () => {
      const changed = await reckoned(change)
      if (says) keeper.step()
      keeper.desk.value.formula = changed.formula
      if (says) tell(says, keeper.undo)
    })

  const look = (title: string, change: Change) =>
    inTurn(async () => {
      pending.value = { title, change, changed: await reckoned(change) }
    })

  /** Reckoned anew, since the formula may have been typed in since. */
  const take = async () => {
    const taken = pending.value
    if (!taken) return
    await apply(taken.change, `${taken.title}.`)
    if (!refused.value) pending.value = null
  }

  return { pending, refused, apply, look, take, leave: () => (pending.value = null) }
}
