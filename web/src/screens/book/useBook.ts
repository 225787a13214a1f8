/** What is looked for in the book: in the address, so that it can be kept and sent. */
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

export interface SoughtFor {
  words?: string
  formula_id?: number
  ingredient?: string
  least_score?: number
  month?: string
}
export const VIEWS = [{ value: 'list', label: 'List' }, { value: 'calendar', label: 'Calendar' }, { value: 'charts', label: 'Charts' }] as const
export type View = (typeof VIEWS)[number]['value']

export function useBook() {
  const route = useRoute()
  const router = useRouter()
  const one = (name: string): string => (typeof route.query[name] === 'string' ? (route.query[name] as string) : '')
  const sought = computed<SoughtFor>(() => {
    const found: SoughtFor = {}
    if (one('words')) found.words = one('words').slice(0, 200)
    if (/^\d{1,9}$/.test(one('formula'))) found.formula_id = Number(one('formula'))
    if (one('ingredient')) found.ingredient = one('ingredient').slice(0, 300)
    if (/^[1-5]$/.test(one('score'))) found.least_score = Number(one('score'))
    if (/^(19[7-9]\d|20\d\d)-(0[1-9]|1[0-2])$/.test(one('month'))) found.month = one('month')
    return found
  })
  const view = computed<View>(() => VIEWS.find((own) => own.value === one('view'))?.value ?? 'list')
  /** Bakes that are to be put beside each other. */
  const chosen = computed(() => one('with').split(',').filter((own) => /^[0-9a-f-]{36}$/.test(own)).slice(0, 4))
  const set = (change: Record<string, string | undefined>) => router.replace({ query: { ...route.query, ...change } })
  const offset = computed(() => Math.max(0, Math.min(100_000, Number(one('from')) || 0)))
  return { sought, view, chosen, offset, set }
}
