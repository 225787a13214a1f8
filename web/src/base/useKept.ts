/**
 * Something that is being typed, kept as it is typed: on the server, and until then in this browser. Nothing typed is
 * lost where the server is away, where another window changed it, or on a reload.
 */
import { useDebounceFn, useIntervalFn } from '@vueuse/core'
import { ref, shallowRef, watch, type Ref } from 'vue'
import { Refused } from '@/api/client'
import { plainCopy } from './copy'
import type { Keeper, Keeping } from './keeper'
import { useMirror } from './mirror'
import { useHistory } from './useHistory'

const KEEP_AFTER_MS = 500
const TRY_AGAIN_MS = 3000

export function useKept<T extends object, S extends object, K extends number | string = number>(keeper: Keeper<T, S, K>) {
  const body = ref(keeper.empty()) as Ref<T>
  const history = useHistory(body)
  /** The server's last word; null before the first. */
  const state = shallowRef<S | null>(null)
  const keeping = ref<Keeping>('kept')
  const loaded = ref(false)
  const error = shallowRef<Refused | null>(null)
  /** True where text that had not reached the server was brought back from this browser. */
  const broughtBack = ref(false)
  /** While ours is behind: what the other window left, as it is shown beside ours. */
  const theirs = shallowRef<S | null>(null)
  /** While it is away: why, as it was told. */
  const why = shallowRef<Refused | null>(null)
  let sending: Promise<void> | null = null
  let dirty = false
  /** What was sent and never answered: sent again as it was before anything newer, since the server knows the very same text for no other window's. */
  let unanswered: T | null = null
  /** The version that ours rests on, where the server has a newer one. */
  let restsOn: number | null = null
  const copy = useMirror<T>(() => `${keeper.kind}:${id() ?? 'new'}`, keeper.broughtUp)
  const mirror = () => copy.write({ version: version(), body: body.value, unanswered })
  /** The body as it was laid or last seen, so that opening it is not taken for changing it. */
  let seen = ''

  const id = () => (state.value ? keeper.read(state.value).id : null)
  const version = () => restsOn ?? (state.value ? keeper.read(state.value).version : 0)

  function lay(next: T, keepHistory: boolean): void {
    history.lay(next, keepHistory)
    seen = JSON.stringify(body.value)
  }

  async function open(wanted: K | null): Promise<void> {
    loaded.value = false
    error.value = null
    broughtBack.value = false
    state.value = theirs.value = null
    dirty = false
    unanswered = restsOn = null
    try {
      if (wanted !== null) state.value = await keeper.fetch(wanted)
      lay(state.value ? keeper.read(state.value).body : keeper.empty(), false)
      keeping.value = 'kept'
      const own = copy.read()
      if (own) {
        lay(own.body, false)
        broughtBack.value = true
        dirty = true
        unanswered = own.unanswered ?? null
        restsOn = own.version
        keeping.value = 'away'
        void keep()
      }
      loaded.value = true
    } catch (caught) {
      if (!(caught instanceof Refused)) throw caught
      error.value = caught
    }
  }

  async function send(): Promise<void> {
    dirty = false
    const sent = unanswered ?? plainCopy(body.value)
    const number = id()
    try {
      if (number === null) {
        const made = await keeper.start(sent)
        copy.drop()
        state.value = made
        keeper.started(keeper.read(made).id)
      } else {
        unanswered = sent
        mirror()
        state.value = await keeper.put(number, sent, version())
      }
      unanswered = restsOn = null
      dirty ||= JSON.stringify(sent) !== JSON.stringify(body.value)
      keeping.value = dirty ? 'keeping' : 'kept'
      if (!dirty) copy.drop()
    } catch (caught) {
      if (!(caught instanceof Refused)) throw caught
      dirty = true
      if (caught.isBehind) void fallBehind()
      else {
        if (!caught.isAway) unanswered = null // it was answered: no
        keeping.value = 'away'
        why.value = caught
      }
    }
  }

  /** Another window was first: ours stays here, and is shown beside theirs until the baker says which goes on. */
  async function fallBehind(): Promise<void> {
    keeping.value = 'behind'
    dirty = true
    unanswered = null
    mirror()
    try {
      theirs.value = await keeper.fetch(id() as K)
    } catch (caught) {
      if (!(caught instanceof Refused)) throw caught // it is fetched again until it is had
    }
  }

  /** Send what there is, one sending at a time, until nothing is unsent or it cannot be sent now. */
  async function keep(): Promise<void> {
    if (sending) return sending
    sending = (async () => {
      do await send()
      while (dirty && keeping.value === 'keeping')
    })()
    try {
      await sending
    } finally {
      sending = null
    }
  }
  const keepSoon = useDebounceFn(() => (dirty && keeping.value === 'keeping' ? keep() : undefined), KEEP_AFTER_MS)

  watch(
    body,
    () => {
      const now = JSON.stringify(body.value)
      if (!loaded.value || now === seen) return
      seen = now
      dirty = true
      mirror()
      if (keeping.value === 'kept') keeping.value = 'keeping'
      void keepSoon()
    },
    { deep: true },
  )
  useIntervalFn(() => {
    if (keeping.value === 'away' && dirty) void keep()
    if (keeping.value === 'behind' && theirs.value === null) void fallBehind()
  }, TRY_AGAIN_MS)

  /** Send what is not sent yet, before something reads it from the server. */
  const flush = async (): Promise<void> => (dirty && keeping.value === 'keeping' ? keep() : sending ?? undefined)

  /** Send at once what may be unsent. */
  const keepNow = async (): Promise<void> => (dirty || sending || state.value === null ? keep() : undefined)

  /** The server has all of it now, as it says: that is laid, and can be undone. */
  function settle(next: S): void {
    state.value = next
    lay(keeper.read(next).body, true)
    copy.drop()
    dirty = false
    unanswered = restsOn = null
    keeping.value = 'kept'
  }

  /** After another window was first: take its state, or put ours on top of it. */
  async function takeTheirs(): Promise<void> {
    copy.drop()
    await open(id())
  }
  /** Ours goes on top of what was shown of theirs; where they went on since, that is shown first. */
  async function keepMine(): Promise<void> {
    if (theirs.value === null) return
    state.value = theirs.value
    theirs.value = restsOn = null
    dirty = true
    keeping.value = 'keeping'
    await keep()
  }
  /** Ours becomes one of its own, and theirs stays as it is. */
  async function keepBoth(): Promise<void> {
    const made = await keeper.start(keeper.asOwn?.(plainCopy(body.value)) ?? plainCopy(body.value))
    copy.drop()
    theirs.value = null
    settle(made)
    keeper.started(keeper.read(made).id)
  }

  return {
    ...{ body, state, keeping, loaded, error, broughtBack, theirs, why },
    ...{ open, flush, keepNow, settle, fallBehind, takeTheirs, keepMine, keepBoth },
    ...{ step: history.step, quietly: history.quietly, undo: history.undo, redo: history.redo, canUndo: history.canUndo },
  }
}
