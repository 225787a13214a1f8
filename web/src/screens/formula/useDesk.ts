/**
 * The formula on the desk: what is being typed, kept as it is typed, on the server and until then in this browser.
 * Nothing typed is lost where the server is away, where another window changed the formula, or on a reload.
 */
import { useDebouncedRefHistory, useDebounceFn, useIntervalFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, ask, Refused, type Count, type Formula, type FormulaHead, type FormulaState } from '@/api/client'
import { emptyFormula } from './lines'
import { plainCopy } from '@/copy'

export interface Desk {
  formula: Formula
  count: Count
}

/** kept: on the server · keeping: on its way · away: only in this browser, tried again · behind: another window was first. */
export type Keeping = 'kept' | 'keeping' | 'away' | 'behind'

const KEEP_AFTER_MS = 500
const TRY_AGAIN_MS = 3000
const UNDO_STEPS = 100

const tab = sessionStorage.getItem('pancount:tab') ?? crypto.randomUUID()
sessionStorage.setItem('pancount:tab', tab)

export const emptyCount = (): Count => ({ pins: {}, pan: null, leave_remainder: false, leave_gaps: false })

export function useDesk(started: (id: number) => void) {
  const desk = ref<Desk>({ formula: emptyFormula(), count: emptyCount() })
  const history = useDebouncedRefHistory(desk, { deep: true, debounce: 400, capacity: UNDO_STEPS, clone: plainCopy })
  const head = shallowRef<FormulaHead | null>(null)
  const keeping = ref<Keeping>('kept')
  const loaded = ref(false)
  const error = shallowRef<Refused | null>(null)
  /** True where text that had not reached the server was brought back from this browser. */
  const broughtBack = ref(false)
  let version = 0
  let base = 0
  let sending: Promise<void> | null = null
  let dirty = false
  /** The desk as it was laid or last seen, so that opening a formula is not taken for changing it. */
  let seen = ''

  const mirrorKey = () => `pancount:desk:${head.value?.id ?? 'new'}:${tab}`

  function mirror(): void {
    try {
      localStorage.setItem(mirrorKey(), JSON.stringify({ version, base, desk: desk.value }))
    } catch {
      // A full store only loses the second copy; the server still gets the first.
    }
  }
  const dropMirror = () => localStorage.removeItem(mirrorKey())

  function readMirror(): { version: number; base: number; desk: Desk } | null {
    try {
      return JSON.parse(localStorage.getItem(mirrorKey()) ?? 'null')
    } catch {
      return null
    }
  }

  function lay(next: Desk, keepHistory: boolean): void {
    history.pause()
    desk.value = plainCopy(next)
    seen = JSON.stringify(desk.value)
    history.resume(true)
    if (!keepHistory) history.clear()
  }

  function take(state: FormulaState): void {
    head.value = state.head
    version = state.version
    base = state.base_number
  }

  async function open(id: number | null): Promise<void> {
    loaded.value = false
    error.value = null
    broughtBack.value = false
    head.value = null
    version = base = 0
    dirty = false
    try {
      if (id === null) {
        lay({ formula: emptyFormula(), count: emptyCount() }, false)
      } else {
        const state = await ask(api.GET('/api/formulas/{formula_id}', { params: { path: { formula_id: id } } }))
        take(state)
        lay({ formula: state.formula, count: state.count }, false)
      }
      keeping.value = 'kept'
      const own = readMirror()
      if (own) {
        lay(own.desk, false)
        broughtBack.value = true
        dirty = true
        keeping.value = own.version === version ? 'away' : 'behind'
        if (keeping.value === 'away') void keep()
      }
      loaded.value = true
    } catch (caught) {
      if (!(caught instanceof Refused)) throw caught
      error.value = caught
    }
  }

  async function send(): Promise<void> {
    dirty = false
    const body = plainCopy(desk.value)
    try {
      if (head.value === null) {
        const state = await ask(api.POST('/api/formulas', { body }))
        dropMirror()
        take(state)
        started(state.head.id)
      } else {
        const params = { path: { formula_id: head.value.id } }
        take(await ask(api.PUT('/api/formulas/{formula_id}/desk', { params, body: { ...body, version } })))
      }
      if (!dirty) {
        dropMirror()
        keeping.value = 'kept'
      }
    } catch (caught) {
      if (!(caught instanceof Refused)) throw caught
      dirty = true
      keeping.value = caught.isBehind ? 'behind' : 'away'
    }
  }

  /** Send what is on the desk, one sending at a time, until nothing is unsent or it cannot be sent now. */
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
    desk,
    () => {
      const now = JSON.stringify(desk.value)
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
  }, TRY_AGAIN_MS)

  /** Send what is not sent yet, before something reads it from the server. */
  const flush = async (): Promise<void> => (dirty && keeping.value === 'keeping' ? keep() : sending ?? undefined)

  /** Make what was changed until now one step of undo, whatever comes next; typing becomes one after a pause. */
  function step(): void {
    if (JSON.stringify(desk.value) !== JSON.stringify(history.last.value.snapshot)) history.commit()
  }
  function undo(): void {
    step()
    history.undo()
  }

  /** Save a revision. Throws `Refused`; what is on the desk stays there either way. */
  async function save(note: string, formula = plainCopy(desk.value.formula), baseNumber = base): Promise<void> {
    if (dirty || sending || head.value === null) await keep()
    if (head.value === null) throw new Refused({ type: '', title: '', status: 0, detail: 'It cannot be saved just now; it is kept in this browser.', errors: [] })
    const params = { path: { formula_id: head.value.id } }
    const state = await ask(api.POST('/api/formulas/{formula_id}/revisions', { params, body: { formula, base_number: baseNumber, note } }))
    take(state)
    lay({ formula: state.formula, count: desk.value.count }, true)
    dropMirror()
    dirty = false
    keeping.value = 'kept'
  }

  /** After another window was first: take its state, or put ours on top of it. */
  async function takeTheirs(): Promise<void> {
    dropMirror()
    await open(head.value?.id ?? null)
  }
  async function keepMine(): Promise<number> {
    if (!head.value) return 0
    const state = await ask(api.GET('/api/formulas/{formula_id}', { params: { path: { formula_id: head.value.id } } }))
    take(state)
    dirty = true
    keeping.value = 'keeping'
    await keep()
    return state.head.latest_number
  }

  return {
    desk,
    head,
    keeping,
    loaded,
    error,
    broughtBack,
    open,
    save,
    takeTheirs,
    keepMine,
    flush,
    step,
    undo,
    redo: history.redo,
    canUndo: history.canUndo,
    /** True where what is on the desk is not the latest revision. */
    unsaved: computed(() => head.value === null || head.value.unsaved || keeping.value !== 'kept'),
  }
}
