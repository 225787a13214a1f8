/** Who writes: this window of this device, by a name that no other window has at the same time, and what people call it. */
import { useLocalStorage } from '@vueuse/core'
import { windowStore } from '@/base/storage'

const KEY = 'pancount:bench-writer'
let taken: Promise<string> | null = null

const hold = (name: string): Promise<boolean> =>
  new Promise((resolve) => {
    if (!('locks' in navigator)) return resolve(true)
    void navigator.locks.request(`pancount-writer-${name}`, { ifAvailable: true }, (lock) => {
      resolve(lock !== null)
      return lock === null ? undefined : new Promise(() => undefined) // as long as this window is open
    })
  })

async function take(): Promise<string> {
  const known = windowStore.getItem(KEY)
  if (known && (await hold(known))) return known
  const own = crypto.randomUUID()
  await hold(own)
  windowStore.setItem(KEY, own)
  return own
}

/** The same after a reload; another where this window was opened as a copy of one that is still there. */
export const writerName = (): Promise<string> => (taken ??= take())

/** What this device is called in what happened. */
export const useCalled = () => useLocalStorage('pancount.bench.called', window.matchMedia('(max-width: 760px)').matches ? 'Phone' : 'Tablet')
