/** The kitchen's settings: each change is kept at once, with its undo; numbers once nothing was typed for a moment. */
import { useQueryClient } from '@tanstack/vue-query'
import { onBeforeUnmount, ref, watch } from 'vue'
import { api, ask, Refused, type Settings } from '@/api/client'
import { plainCopy } from '@/base/copy'
import { useKitchenState } from '@/base/kitchen'
import { hush, tell } from '@/base/notice'

const SOON_MS = 600

/** `quiet`: nothing is told of what is kept, where the screen itself shows it. */
export function useSettings({ quiet = false } = {}) {
  const cache = useQueryClient()
  const kitchen = useKitchenState()
  const name = ref('')
  const settings = ref<Settings | null>(null)
  const refused = ref('')
  let waiting: ReturnType<typeof setTimeout> | undefined
  let sending: Promise<void> = Promise.resolve()
  let unsent = 0

  watch(
    () => kitchen.data.value,
    (now) => {
      // What is still being typed or waits to be sent is not taken back by the answer to what was sent before.
      if (!now || waiting !== undefined || unsent) return
      name.value = now.name
      settings.value = plainCopy(now.settings)
    },
    { immediate: true },
  )

  async function send(): Promise<void> {
    const now = kitchen.data.value
    if (!settings.value || !now) return
    const before = { name: now.name, settings: now.settings }
    refused.value = ''
    try {
      const kept = await ask(api.PUT('/api/kitchen', { body: { name: name.value, settings: settings.value, version: now.version } }))
      cache.setQueryData(['kitchen'], kept)
      if (!quiet) {
        tell('Settings kept.', async () => {
          name.value = before.name
          settings.value = plainCopy(before.settings)
          await keep()
        })
      }
    } catch (caught) {
      if (!(caught instanceof Refused)) throw caught
      refused.value = caught.problem.errors?.[0]?.detail ?? caught.message
      if (caught.isBehind) await kitchen.refetch()
    }
  }
  /** One after the other: each rests on the version that the one before left. */
  function keep(): Promise<void> {
    hush()
    unsent += 1
    const next = () => ((unsent -= 1), send())
    return (sending = sending.then(next, next))
  }

  function set(change: Partial<Settings>): Promise<void> {
    if (settings.value) settings.value = { ...settings.value, ...change }
    return keep()
  }
  function setSoon(change: Partial<Settings>): void {
    if (settings.value) settings.value = { ...settings.value, ...change }
    clearTimeout(waiting)
    waiting = setTimeout(() => {
      waiting = undefined
      void keep()
    }, SOON_MS)
  }
  onBeforeUnmount(() => {
    if (waiting === undefined) return
    clearTimeout(waiting)
    void keep()
  })
  return { kitchen, name, settings, refused, keep, set, setSoon }
}
