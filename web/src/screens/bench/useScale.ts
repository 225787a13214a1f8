/**
 * The scale on the bench: a real one through the browser's HID access, or the simulated one. Either's raw reports go the same way to the server,
 * which says what they mean. Typing always works beside it.
 */
import { useIntervalFn, useLocalStorage } from '@vueuse/core'
import { onScopeDispose, ref, shallowRef, type Ref } from 'vue'
import { serverNow } from './useLive'
import { api, ask, Refused, type OnScale } from '@/api/client'

interface Report {
  report: number
  data: string
  at_s: number
}
interface HidReport extends Event {
  reportId: number
  data: DataView
}
interface HidDevice extends EventTarget {
  opened: boolean
  productName: string
  open(): Promise<void>
  close(): Promise<void>
}
interface Hid extends EventTarget {
  requestDevice(options: { filters: { usagePage: number }[] }): Promise<HidDevice[]>
  getDevices(): Promise<HidDevice[]>
}
const hid = (navigator as Navigator & { hid?: Hid }).hid
const USAGE_PAGE = 0x8d
const DATA_REPORT = 3
const QUIET_MS = 1_000
const MOST_HELD = 60

const NONE: OnScale = { tare_g: null, gross_g: null, net_g: null, step_g: 0, coarse: false, steady: false, since_s: null, heard_s: null, was_off: false, zeroing: false, phase: 'none', armed: true, take: false, says: '', trouble: false }
const hex = (view: DataView): string => Array.from(new Uint8Array(view.buffer, view.byteOffset, view.byteLength), (byte) => byte.toString(16).padStart(2, '0')).join('')

export function useScale(target: Ref<{ target_g: number | null; tolerance_g: number; bowl: boolean }>, taken: (g: number) => void) {
  const mode = useLocalStorage<'none' | 'practice' | 'usb'>('pancount.bench.scale', 'none')
  const shown = shallowRef<OnScale>(NONE)
  const why = ref('')
  const canUsb = hid !== undefined
  let held: Report[] = []
  let asking = false
  let zero = false
  let source: EventSource | null = null
  let device: HidDevice | null = null

  async function ask_server(): Promise<void> {
    if (asking) return
    asking = true
    const some = held
    const zeroing = zero
    held = []
    zero = false
    try {
      const { target_g, tolerance_g, bowl } = target.value
      const next = await ask(api.POST('/api/devices/scale/read', { body: { before: shown.value, reports: some, target_g, tolerance_g, now_s: serverNow(), bowl, zero: zeroing } }))
      shown.value = next
      why.value = ''
      if (next.take && next.net_g != null) taken(next.net_g)
    } catch (caught) {
      if (!(caught instanceof Refused)) throw caught
      zero ||= zeroing
      why.value = caught.isAway ? 'The scale cannot be read while Pan Count is away: type what it shows.' : caught.message
      shown.value = { ...shown.value, take: false }
      return // the next report, or the next second, asks again
    } finally {
      asking = false
    }
    if (held.length || zero) void ask_server()
  }
  function hear(report: Report): void {
    held = [...held, report].slice(-MOST_HELD)
    void ask_server()
  }
  const onReport = (event: Event): void => {
    const own = event as HidReport
    hear({ report: own.reportId, data: hex(own.data), at_s: serverNow() })
  }

  function off(): void {
    source?.close()
    source = null
    device?.removeEventListener('inputreport', onReport)
    void device?.close()
    device = null
    held = []
    shown.value = NONE
    why.value = ''
  }
  function practise(): void {
    off()
    mode.value = 'practice'
    source = new EventSource('/api/devices/scale/reports')
    source.onmessage = (message) => {
      const { data } = JSON.parse(message.data as string) as { data: string }
      hear({ report: DATA_REPORT, data, at_s: serverNow() })
    }
    source.addEventListener('wire', (message) => {
      const { there } = JSON.parse((message as MessageEvent<string>).data) as { there: boolean }
      if (!there) why.value = 'There is no practice scale: it comes with ./pancount demo.'
    })
  }
  async function connect(own: HidDevice): Promise<void> {
    off()
    if (!own.opened) await own.open()
    device = own
    mode.value = 'usb'
    own.addEventListener('inputreport', onReport)
  }
  /** Ask for the scale at the USB port; the browser asks the baker. */
  async function usb(): Promise<void> {
    try {
      const [own] = (await hid?.requestDevice({ filters: [{ usagePage: USAGE_PAGE }] })) ?? []
      if (own) await connect(own)
    } catch (caught) {
      why.value = `The scale could not be opened: ${caught instanceof Error ? caught.message : 'it is in use'}. Type what it shows.`
    }
  }
  function none(): void {
    off()
    mode.value = 'none'
  }
  /** What is on it counts as nothing from here, as soon as it stands. */
  function setZero(): void {
    if (mode.value === 'none') return
    zero = true
    void ask_server()
  }
  // Where nothing comes any more the server says so, by the time that went by.
  useIntervalFn(() => mode.value !== 'none' && (shown.value.heard_s !== null || zero) && !held.length && void ask_server(), QUIET_MS)
  if (mode.value === 'practice') practise()
  if (mode.value === 'usb') void hid?.getDevices().then(async ([own]) => {
    if (own) await connect(own)
    else why.value = 'The scale is not plugged in: type what it shows.'
  })
  onScopeDispose(off)
  return { mode, shown, why, canUsb, practise, usb, none, setZero }
}
