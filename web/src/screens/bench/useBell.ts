/** What rings: a sound until it is heard, a flash, and a notification where the baker allowed it and looks elsewhere. */
import { useIntervalFn, useLocalStorage } from '@vueuse/core'
import { computed, onScopeDispose, ref, watch, type Ref } from 'vue'
import type { TimerNow } from '@/api/client'

const EVERY_MS = 3_000
const TONES = [880, 1175]

export function useBell(timers: Ref<readonly TimerNow[]>, now: Ref<number>) {
  const loud = useLocalStorage('pancount.bench.loud', true)
  /** Rung and not heard yet, the first first. */
  const rung = computed(() => timers.value.filter((one) => one.rings_s <= now.value))
  const notifies = ref('Notification' in window ? Notification.permission : 'denied')
  let audio: AudioContext | null = null

  function sound(): void {
    if (!loud.value) return
    try {
      audio ??= new AudioContext()
      TONES.forEach((tone, n) => {
        const own = audio as AudioContext
        const begin = own.currentTime + n * 0.22
        const gain = new GainNode(own, { gain: 0 })
        const wave = new OscillatorNode(own, { frequency: tone, type: 'triangle' })
        gain.gain.setValueAtTime(0.35, begin)
        gain.gain.exponentialRampToValueAtTime(0.001, begin + 0.2)
        wave.connect(gain).connect(own.destination)
        wave.start(begin)
        wave.stop(begin + 0.22)
      })
    } catch {
      audio = null // no sound on this device; it flashes
    }
  }
  watch(
    () => rung.value.map((one) => one.key).join(),
    (keys, before) => {
      const fresh = rung.value.find((one) => !(before ?? '').split(',').includes(one.key))
      if (!keys || !fresh) return
      sound()
      if (notifies.value === 'granted' && document.visibilityState !== 'visible') new Notification(fresh.name, { tag: fresh.key, icon: '/icon.svg' })
    },
  )
  useIntervalFn(() => rung.value.length && sound(), EVERY_MS)
  const allow = async (): Promise<void> => {
    notifies.value = await Notification.requestPermission()
  }
  onScopeDispose(() => void audio?.close())
  return { rung, loud, notifies, allow }
}
