/** The demo kitchen's formulas as examples: brought in together, removed in one go. */
import { useQueryClient } from '@tanstack/vue-query'
import { api, ask } from '@/api/client'

/** Both ask the server and show the list anew. */
export function useExamples() {
  const cache = useQueryClient()
  async function shownAnew<T>(answer: Promise<T>): Promise<T> {
    const told = await answer
    await cache.invalidateQueries({ queryKey: ['formulas'] })
    return told
  }
  return {
    /** How many came. */
    bringIn: () => shownAnew(ask(api.POST('/api/beginnings/examples'))),
    remove: () => shownAnew(ask(api.DELETE('/api/beginnings/examples'))),
  }
}
