/**
 * The plan of a day: asked for anew when anything of the day changes, told line by line as better timetables are found. A change ends what is
 * being looked for and goes on from the last answer.
 */
import { useDebounceFn } from '@vueuse/core'
import { computed, onScopeDispose, ref, shallowRef, toRaw, watch, type Ref } from 'vue'
import { refusedBy, UNREACHED, type Day, type PlanProgress, type Problem, type Timetable } from '@/api/client'

const AFTER_MS = 250
const TRY_AGAIN_MS = 2500

/** What a plan depends on: not its name, and not what was told before the day runs. */
const asked = (day: Day): string => JSON.stringify({ ...day, name: '', told: day.now_min == null ? [] : day.told })

export function usePlan(day: Ref<Day>, ready: Ref<boolean>) {
  const progress = shallowRef<PlanProgress | null>(null)
  const timetable = shallowRef<Timetable | null>(null)
  const problem = shallowRef<Problem | null>(null)
  /** It is being looked for. */
  const looking = ref(false)
  /** What would help, or what else would be good, is being worked out. */
  const helping = ref(false)
  /** The timetable shown is not that of what is told now. */
  const stale = ref(false)
  /** What the plan that is shown was asked for. */
  const shownFor = ref('')
  let ending: AbortController | null = null
  let key = ''

  async function look(): Promise<void> {
    ending?.abort()
    const mine = (ending = new AbortController())
    key = asked(day.value)
    const own = key
    looking.value = true
    problem.value = null
    try {
      const hint = timetable.value?.starts ?? day.value.told
      const response = await fetch('/api/days/plan', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ day: toRaw(day.value), hint }), signal: mine.signal })
      if (!response.ok || !response.body) {
        problem.value = refusedBy(response, await response.json().catch(() => null)).problem
        if (response.status >= 500) setTimeout(() => key === own && ready.value && void look(), TRY_AGAIN_MS)
        return
      }
      for await (const line of linesOf(response.body)) hear(JSON.parse(line) as PlanProgress, own)
    } catch (caught) {
      if (caught instanceof DOMException && caught.name === 'AbortError') return
      problem.value = UNREACHED
      setTimeout(() => key === own && ready.value && void look(), TRY_AGAIN_MS)
    } finally {
      if (ending === mine) looking.value = helping.value = false
    }
  }

  function hear(told: PlanProgress, own: string): void {
    if (told.stage === 'failed') {
      problem.value = { ...UNREACHED, title: 'The day could not be planned', detail: 'Looking for a timetable broke off. The last one stays; try again.' }
      return
    }
    progress.value = told
    looking.value = told.stage === 'first' || told.stage === 'better'
    helping.value = told.stage === 'offers'
    if (told.timetable) timetable.value = told.timetable
    shownFor.value = own
    stale.value = false
  }

  const soon = useDebounceFn(() => ready.value && void look(), AFTER_MS)
  watch(
    [day, ready],
    () => {
      if (!ready.value || asked(day.value) === key) return
      stale.value = timetable.value !== null
      ending?.abort()
      void soon()
    },
    { deep: true, immediate: true },
  )
  /** Stop looking; the best so far stays. */
  function stop(): void {
    ending?.abort()
    looking.value = helping.value = false
  }
  onScopeDispose(() => ending?.abort())

  /** By how much better any timetable could be, of a hundred; 0 where it is proven. */
  const couldBe = computed(() => {
    const own = timetable.value
    return !own || own.proven || own.weighs <= 0 ? 0 : Math.min(99, Math.max(1, Math.round((100 * (own.weighs - own.bound)) / own.weighs)))
  })
  return { progress, timetable, problem, looking, helping, stale, shownFor, couldBe, look, stop }
}

async function* linesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<string> {
  const reader = body.getReader()
  const decoder = new TextDecoder()
  let rest = ''
  for (;;) {
    const { done, value } = await reader.read()
    rest += decoder.decode(value, { stream: !done })
    const lines = rest.split('\n')
    rest = lines.pop() ?? ''
    for (const line of lines) if (line.trim()) yield line
    if (done) return
  }
}
