/** What the screen shows of a formula, kept in the address, so that a link shows the same. */
import { computed, type Ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { usePhone } from '@/base/phone'

export const VIEWS = [
  { value: 'mixed', label: 'As mixed' },
  { value: 'whole', label: 'Whole formula' },
] as const
const SIDES = [
  { value: 'count', label: 'Count' },
  { value: 'shape', label: 'Shape' },
  { value: 'dough', label: 'Dough' },
  { value: 'method', label: 'Method' },
] as const
/** On a phone one tray stands at a time, the formula itself one of them. */
const PHONE_SIDES = [{ value: 'formula', label: 'Formula' }, { value: 'count', label: 'Count' }, { value: 'shape', label: 'Shape' }, { value: 'dough', label: 'Dough' }, { value: 'method', label: 'Method' }] as const
export type Side = (typeof PHONE_SIDES)[number]['value']

/** A revision of a formula, this one or another. */
export interface Other {
  id: number
  revision: number
}

export function useView(targets: () => number) {
  const route = useRoute()
  const router = useRouter()
  const isPhone = usePhone()
  const show = (query: Record<string, string | undefined>) => router.replace({ query: { ...route.query, ...query } })

  const viewed = computed(() => (route.query.view === 'whole' ? 'whole' : 'mixed'))
  const showView = (view: string) => show({ view: view === 'mixed' ? undefined : view })

  const sides = computed<readonly { value: Side; label: string }[]>(() => (isPhone.value ? PHONE_SIDES : SIDES))
  const usual = computed<Side>(() => (isPhone.value ? 'formula' : 'count'))
  const side = computed<Side>(() => sides.value.find((one) => one.value === route.query.side)?.value ?? usual.value)
  const showSide = (wanted: Side) => show({ side: wanted === usual.value ? undefined : wanted, compare: undefined })
  /** There and back by one key. */
  const turnTo = (wanted: Side) => showSide(side.value === wanted ? usual.value : wanted)

  /** Which target is looked at: its pan, its shape and its choices. */
  const target = computed(() => {
    const asked = Number(route.query.target ?? 1) - 1
    return Number.isInteger(asked) && asked >= 0 && asked < targets() ? asked : 0
  })
  const lookAt = (wanted: number) => show({ target: wanted ? String(wanted + 1) : undefined })

  /** The revision being read in place of the desk. */
  const reading = computed(() => (route.query.revision ? Number(route.query.revision) : undefined))
  const read = (revision: number | undefined) => show({ revision: revision === undefined ? undefined : String(revision) })

  const comparing: Ref<Other | null> = computed(() => {
    const found = /^(\d+)\.(\d+)$/.exec(String(route.query.compare ?? ''))
    return found ? { id: Number(found[1]), revision: Number(found[2]) } : null
  })
  const compare = (other: Other | null) => show({ compare: other ? `${other.id}.${other.revision}` : undefined })

  return { route, router, show, isPhone, viewed, showView, sides, side, showSide, turnTo, target, lookAt, reading, read, comparing, compare }
}
export type View = ReturnType<typeof useView>
