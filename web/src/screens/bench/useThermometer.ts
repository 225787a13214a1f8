/** The thermometer: a real one over Bluetooth where the browser has it, or the simulated one; their bytes go to the same reader at the server. */
import { useLocalStorage } from '@vueuse/core'
import { onScopeDispose, ref } from 'vue'
import { api, ask, Refused } from '@/api/client'

interface Characteristic extends EventTarget {
  value?: DataView
  startNotifications(): Promise<Characteristic>
}
interface Gatt {
  connect(): Promise<{ getPrimaryService(name: string): Promise<{ getCharacteristic(name: string): Promise<Characteristic> }> }>
  disconnect(): void
}
interface Bluetooth {
  requestDevice(options: { filters: { services: string[] }[] }): Promise<{ gatt?: Gatt }>
}
const bluetooth = (navigator as Navigator & { bluetooth?: Bluetooth }).bluetooth
const EVERY_MS = 500

export function useThermometer() {
  const mode = useLocalStorage<'none' | 'practice' | 'bluetooth'>('pancount.bench.thermometer', 'none')
  const celsius = ref<number | null>(null)
  const why = ref('')
  const canBluetooth = bluetooth !== undefined
  let source: EventSource | null = null
  let gatt: Gatt | null = null
  let heard = 0
  let asking = false

  async function hear(data: string): Promise<void> {
    if (asking || Date.now() - heard < EVERY_MS) return
    asking = true
    heard = Date.now()
    try {
      celsius.value = (await ask(api.POST('/api/devices/thermometer/read', { body: { data } }))).celsius
      why.value = ''
    } catch (caught) {
      if (!(caught instanceof Refused)) throw caught
      celsius.value = null
      why.value = caught.isAway ? 'The thermometer cannot be read while Pan Count is away: type what it shows.' : caught.message
    } finally {
      asking = false
    }
  }
  function off(): void {
    source?.close()
    gatt?.disconnect()
    source = gatt = null
    celsius.value = null
    why.value = ''
  }
  function practise(): void {
    off()
    mode.value = 'practice'
    source = new EventSource('/api/devices/thermometer/reports')
    source.onmessage = (message) => void hear((JSON.parse(message.data as string) as { data: string }).data)
  }
  async function connect(): Promise<void> {
    off()
    try {
      const device = await bluetooth?.requestDevice({ filters: [{ services: ['health_thermometer'] }] })
      gatt = device?.gatt ?? null
      const service = await (await gatt?.connect())?.getPrimaryService('health_thermometer')
      const measured = await (await service?.getCharacteristic('temperature_measurement'))?.startNotifications()
      measured?.addEventListener('characteristicvaluechanged', () => {
        const { value } = measured
        if (value) void hear(Array.from(new Uint8Array(value.buffer), (byte) => byte.toString(16).padStart(2, '0')).join(''))
      })
      mode.value = 'bluetooth'
    } catch (caught) {
      why.value = `The thermometer could not be reached: ${caught instanceof Error ? caught.message : 'is it on?'}. Type what it shows.`
    }
  }
  function none(): void {
    off()
    mode.value = 'none'
  }
  if (mode.value === 'practice') practise()
  onScopeDispose(off)
  return { mode, celsius, why, canBluetooth, practise, connect, none }
}
