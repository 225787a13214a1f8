/** What stands in a number's field: as typed while it is being typed, as shown otherwise. */
import { computed, nextTick, ref, watch } from 'vue'
import { DIGITS, plain, read, ungrouped, worth, type Kind, type Units } from '@/base/format'

export interface NumberProps {
  /** In the core's unit; null for none. */
  value: number | null | undefined
  kind: Kind
  units: Units
  /** What the number is, for those who cannot see where it stands. */
  label: string
  /** Worked out, not typed: shown in crust. */
  worked?: boolean
  /** Why it is not right, where the server says so. */
  wrong?: string
  /** Shows the unit behind the number. */
  withUnit?: boolean
}

/** `change`: a number was typed, or null where it was cleared. `working`: "=" was pressed: how was it worked out? */
export function useNumberText(props: NumberProps, change: (value: number | null) => void, working: () => void) {
  const typing = ref(false)
  const text = ref('')
  const asShown = computed(() => (props.value == null ? '' : plain(props.value / worth(props.kind, props.units), props.worked ? DIGITS.worked : DIGITS.typed)))
  const unread = computed(() => Number.isNaN(read(text.value, props.kind, props.units)))
  const notRead = computed(() => (unread.value ? `“${text.value}” is not read as a number, so ${asShown.value || 'nothing'} still stands.` : ''))
  const why = computed(() => props.wrong || notRead.value)

  // What is being typed stands as typed; a number that came from elsewhere (an undo, a new reckoning) takes its place.
  watch(
    asShown,
    (now) => {
      if (!typing.value) text.value = now
      else if (read(text.value, props.kind, props.units) !== (props.value ?? null)) text.value = ungrouped(now)
    },
    { immediate: true },
  )

  /** Thousands are not spaced while typing, or a digit more would leave the spaces in the wrong places. */
  async function enter(event: FocusEvent): Promise<void> {
    typing.value = true
    if (!unread.value) text.value = ungrouped(text.value)
    await nextTick()
    ;(event.target as HTMLInputElement).select()
  }
  function leave(): void {
    typing.value = false
    if (!unread.value) text.value = asShown.value
  }
  function type(typed: string): void {
    text.value = typed
    const value = read(typed, props.kind, props.units)
    if (value === null || !Number.isNaN(value)) change(value)
  }
  function key(event: KeyboardEvent): void {
    if (event.key === '=') {
      event.preventDefault()
      working()
    } else if (event.key === 'Escape' && unread.value) {
      text.value = asShown.value
    }
  }
  return { text, why, enter, leave, type, key }
}
