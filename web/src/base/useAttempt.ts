/** Do something that the server may refuse, and keep what it refused for the screen to tell. */
import { shallowRef } from 'vue'
import { hush } from './notice'
import { Refused } from '@/api/client'

export function useAttempt() {
  const refused = shallowRef<Refused | null>(null)
  async function attempt(act: () => Promise<unknown>): Promise<void> {
    refused.value = null
    hush()
    try {
      await act()
    } catch (caught) {
      if (!(caught instanceof Refused)) throw caught
      refused.value = caught
    }
  }
  return { refused, attempt }
}
