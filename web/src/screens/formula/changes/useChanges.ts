/** Changes that take more than typing: asked of the core, shown before they are taken where that helps, undone in one step. */
import { shallowRef, toRaw, type Ref } from 'vue'
import { api, ask, type Change, type Changed, type Known } from '@/api/client'
import { plainCopy } from '@/base/copy'
import { tell } from '@/base/notice'
import { useAttempt } from '@/base/useAttempt'
import type { Desk } from '@/screens/formula/desk/useDesk'
import { wayNumber } from '@/screens/method/steps'

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

  /** The way that is shown, where it has stages of its own: these are changed, and not those of the other ways. */
  const apart = (change: Change) => {
    const { formula, count } = keeper.desk.value
    const way = formula.ways[wayNumber(formula, count)]
    return change.change !== 'way_yeast' && way?.stages ? way : null
  }
  const reckoned = async (change: Change) => {
    const { formula } = keeper.desk.value
    const way = apart(change)
    const changed = await ask(api.POST('/api/reckon/change', { body: { formula: toRaw(way?.stages ? { ...formula, stages: way.stages } : formula), change, ...known.value } }))
    if (!way) return changed
    const ways = changed.formula.ways.map((one) => (one.key === way.key ? { ...one, stages: changed.formula.stages } : one))
    return { ...changed, formula: { ...changed.formula, stages: plainCopy(formula.stages), ways } }
  }

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
