/** One bake at the bench: as the server has it, with what this device did since; what is done goes on the device first, and then to the server. */
import { useIntervalFn } from '@vueuse/core'
import { computed, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'
import { drop, keep, pendingOf, type Pending } from './kept'
import { overlaid } from './overlay'
import { learnTime, serverNow, useLive } from './useLive'
import { useCalled, writerName } from './writer'
import { api, ask, Refused, type BakeState, type BenchEvent, type Deed } from '@/api/client'

const SENT_AT_ONCE = 100
const TRY_AGAIN_MS = 1_500

const path = (bake_id: string) => ({ params: { path: { bake_id } } })
/** Only one window of a device sends at a time, so that what it kept goes in order. */
async function alone(name: string, work: () => Promise<void>): Promise<void> {
  if ('locks' in navigator) await navigator.locks.request(name, work)
  else await work()
}

export function useBake(id: Ref<string>) {
  const state = shallowRef<BakeState | null>(null)
  const error = shallowRef<Refused | null>(null)
  const pending = shallowRef<Pending[]>([])
  /** The server does not answer: what is done stays on this device until it does. */
  const away = ref(false)
  const called = useCalled()
  let fetching = false
  let again = false
  let clock = 0

  function take(next: BakeState, asked_ms: number): void {
    learnTime(next.now_s, asked_ms)
    away.value = false
    error.value = null
    // An answer that was longer on its way does not put an older state in its place.
    if (!state.value || state.value.head.id !== next.head.id || next.head.number >= state.value.head.number) state.value = next
  }

  async function fetch(): Promise<void> {
    again = true
    if (fetching) return
    fetching = true
    try {
      while (again) {
        again = false
        const asked = Date.now()
        try {
          take(await ask(api.GET('/api/bakes/{bake_id}', path(id.value))), asked)
        } catch (caught) {
          if (!(caught instanceof Refused)) throw caught
          if (caught.isAway) away.value = true
          if (!state.value) error.value = caught
        }
      }
    } finally {
      fetching = false
    }
  }

  async function load(): Promise<void> {
    state.value = null
    pending.value = await pendingOf(id.value)
    clock = 0
    await fetch()
    void send()
  }

  /** The next count of this writer: over all that it has seen. */
  function next(): number {
    const seen = Object.values(state.value?.bake.seen ?? {})
    clock = Math.max(clock, ...seen, ...pending.value.map((one) => one.event.clock)) + 1
    return clock
  }

  /** Something happened. It is kept on this device before this returns, and sent as soon as it can be. */
  async function act(...deeds: Deed[]): Promise<string[]> {
    if (!deeds.length || !state.value) return []
    const writer = await writerName()
    const saw = { ...(state.value?.bake.seen ?? {}) }
    const bake = id.value
    const some = deeds.map((what): Pending => {
      const event: BenchEvent = { id: crypto.randomUUID(), writer, clock: next(), saw, at_s: serverNow(), who: called.value, what }
      return { id: event.id, bake, event, refused: '' }
    })
    pending.value = [...pending.value, ...some]
    await keep(some)
    void send()
    return some.map((one) => one.id)
  }

  function send(): Promise<void> {
    const bake = id.value
    return alone(`pancount-bench-${bake}`, async () => {
      for (;;) {
        const some = (await pendingOf(bake)).filter((one) => !one.refused).slice(0, SENT_AT_ONCE)
        if (!some.length) break
        const asked = Date.now()
        try {
          const answer = await ask(api.POST('/api/bakes/{bake_id}/events', { ...path(bake), body: { events: some.map((one) => one.event) } }))
          await drop(some.map((one) => one.id))
          if (bake !== id.value) break
          take(answer, asked)
        } catch (caught) {
          if (!(caught instanceof Refused)) throw caught
          if (caught.isAway) {
            away.value = true
            break
          }
          // One of them cannot be taken: told, and put aside, so that the others are not held up by it.
          const [first, ...rest] = some
          if (rest.length) await one(bake, first as Pending)
          else if (first) await keep([{ ...first, refused: caught.message }])
        }
      }
      if (bake === id.value) pending.value = await pendingOf(bake)
    })
  }

  /** The first alone, where several together were refused. */
  async function one(bake: string, own: Pending): Promise<void> {
    try {
      await ask(api.POST('/api/bakes/{bake_id}/events', { ...path(bake), body: { events: [own.event] } }))
      await drop([own.id])
    } catch (caught) {
      if (!(caught instanceof Refused)) throw caught
      if (!caught.isAway) await keep([{ ...own, refused: caught.message }])
    }
  }

  const { open } = useLive(
    (heard) => heard.bake === id.value && heard.number > (state.value?.head.number ?? 0) && void fetch(),
    () => void fetch(),
  )
  useIntervalFn(() => {
    if (pending.value.some((own) => !own.refused)) void send()
    else if (away.value || !state.value) void fetch()
  }, TRY_AGAIN_MS)
  watch(id, () => void load(), { immediate: true })
  const seeing = () => document.visibilityState === 'visible' && void fetch()
  document.addEventListener('visibilitychange', seeing)
  onScopeDispose(() => document.removeEventListener('visibilitychange', seeing))

  const unsent = computed(() => pending.value.filter((own) => !own.refused && own.bake === id.value))
  const refused = computed(() => pending.value.filter((own) => own.refused && own.bake === id.value))
  const bake = computed(() => (state.value ? overlaid(state.value.bake, unsent.value.map((own) => own.event)) : null))
  /** Leave out what the server would not take. */
  async function forget(): Promise<void> {
    await drop(refused.value.map((own) => own.id))
    pending.value = await pendingOf(id.value)
  }
  return { state, bake, error, away, open, unsent, refused, act, fetch, forget }
}
