/** What happens at the bench, as it happens, and what time it is at the server: one stream for each window, on from the last event seen. */
import { useIntervalFn } from '@vueuse/core'
import { onScopeDispose, ref } from 'vue'

export interface Heard {
  number: number
  bake: string
}

const SILENT_MS = 25_000
const AGAIN_MS = 1_500
const LOOK_MS = 3_000

/** By how much the server's clock is ahead of this device's. [s] */
const ahead = ref(0)
let sure = Infinity

/** Learn from an answer that says what time it is; the quickest answer knows best. */
export function learnTime(now_s: number, asked_ms: number): void {
  const took = Date.now() - asked_ms
  if (took > sure * 1.5 + 20) return
  sure = Math.min(sure, took)
  ahead.value = now_s - (Date.now() - took / 2) / 1000
}
/** What time it is at the server. [s since 1970, UTC] */
export const serverNow = (): number => Date.now() / 1000 + ahead.value

export function useNow(every = 250) {
  const now = ref(serverNow())
  useIntervalFn(() => (now.value = serverNow()), every)
  return now
}

/** `heard` is called for each event, `back` whenever the stream is open again. */
export function useLive(heard: (one: Heard) => void, back: () => void) {
  /** Whether the stream is open. */
  const open = ref(false)
  let source: EventSource | null = null
  let last: number | null = null
  let at = Date.now()
  let stopped = false

  function connect(): void {
    source?.close()
    if (stopped) return
    at = Date.now()
    source = new EventSource(`/api/bench/live${last === null ? '' : `?after=${last}`}`)
    source.onopen = () => {
      at = Date.now()
      open.value = true
      back()
    }
    source.onerror = () => {
      open.value = false
      if (source?.readyState === EventSource.CLOSED) setTimeout(connect, AGAIN_MS)
    }
    source.addEventListener('alive', (message) => {
      at = Date.now()
      const { now_s } = JSON.parse((message as MessageEvent<string>).data) as { now_s: number }
      if (sure === Infinity) ahead.value = now_s - Date.now() / 1000
    })
    source.addEventListener('happened', (message) => {
      at = Date.now()
      const told = JSON.parse((message as MessageEvent<string>).data) as Heard
      last = told.number
      heard(told)
    })
  }
  connect()
  // A stream that was cut without a word stays silent: it is begun again.
  useIntervalFn(() => {
    if (Date.now() - at > SILENT_MS) {
      open.value = false
      connect()
    }
  }, LOOK_MS)
  onScopeDispose(() => {
    stopped = true
    source?.close()
  })
  return { open }
}
