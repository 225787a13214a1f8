/** The formula made of a recipe, with the way back. */
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import type { FileIn } from './useFileIn'
import type { useTaking } from './useTaking'
import { api, ask } from '@/api/client'
import { tell } from '@/base/notice'

export function useMake(taking: ReturnType<typeof useTaking>, needs: Omit<FileIn, 'begin'>) {
  const router = useRouter()
  const making = ref(false)

  async function make(): Promise<void> {
    if (making.value) return
    making.value = true
    await needs.attempt(async () => {
      await taking.keepNow()
      const head = taking.state.value?.head
      if (!head || taking.keeping.value !== 'kept') return // what keeps it from the records is told already
      const { id, version } = head
      const state = await ask(api.POST('/api/takings/{taking_id}/formula', { params: { path: { taking_id: id }, query: { version } } }))
      tell(`Made the formula ${state.head.name || 'without a name'}.`, async () => {
        await needs.undo(state)()
        await router.push({ name: 'take-in', params: { id } })
      })
      await needs.refresh()
      await router.push({ name: 'formula', params: { id: state.head.id } })
    })
    making.value = false
  }
  return { making, make }
}
