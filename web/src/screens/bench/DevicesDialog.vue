<script setup lang="ts">
/** Scale, thermometer, sound and pedal of this device. What is set here stays on it. */
import { useEventListener } from '@vueuse/core'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import type { useBell } from './useBell'
import type { useScale } from './useScale'
import type { useThermometer } from './useThermometer'
import { useCalled } from './writer'
import { api, ask } from '@/api/client'
import Said from '@/design/Said.vue'

export interface DevicesDialogProps {
  scale: ReturnType<typeof useScale>
  thermometer: ReturnType<typeof useThermometer>
  bell: ReturnType<typeof useBell>
}
const props = defineProps<DevicesDialogProps>()
const open = defineModel<boolean>({ required: true })
const speaks = defineModel<boolean>('speaks', { required: true })
const pedal = defineModel<string>('pedal', { required: true })
const called = useCalled()
const found = useQuery({ queryKey: ['devices'], queryFn: () => ask(api.GET('/api/devices')), staleTime: 60_000 })
const page = (kind: string) => found.data.value?.find((one) => one.kind === kind)?.page
const hears = ref(false)
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if (!hears.value) return
  event.preventDefault()
  event.stopPropagation()
  pedal.value = event.code || event.key
  hears.value = false
}, { capture: true })
/** What is closed does not keep the keys: the next press is for what is to do. */
const letGo = (): void => (document.activeElement as HTMLElement | null)?.blur()
const scaleMode = computed(() => props.scale.mode.value)
const heatMode = computed(() => props.thermometer.mode.value)
</script>

<template>
  <el-dialog v-model="open" title="On this device" width="min(560px, 96vw)" append-to-body @closed="letGo">
    <div class="parts">
      <section>
        <h3>Scale</h3>
        <div class="row">
          <el-button :type="scaleMode === 'none' ? 'primary' : undefined" :aria-pressed="scaleMode === 'none'" @click="scale.none()">None: I type</el-button>
          <el-button v-if="scale.canUsb" :type="scaleMode === 'usb' ? 'primary' : undefined" :aria-pressed="scaleMode === 'usb'" @click="scale.usb()">At the USB port</el-button>
          <el-button v-if="page('scale')" :type="scaleMode === 'practice' ? 'primary' : undefined" :aria-pressed="scaleMode === 'practice'" @click="scale.practise()">Practice scale</el-button>
          <a v-if="page('scale')" :href="page('scale')" target="_blank" rel="noopener">Its page</a>
        </div>
        <p v-if="!scale.canUsb" class="quiet">This browser cannot reach a scale at its USB port.</p>
        <Said v-if="scale.why.value" tone="stop">{{ scale.why.value }}</Said>
      </section>
      <section>
        <h3>Thermometer</h3>
        <div class="row">
          <el-button :type="heatMode === 'none' ? 'primary' : undefined" :aria-pressed="heatMode === 'none'" @click="thermometer.none()">None: I type</el-button>
          <el-button v-if="thermometer.canBluetooth" :type="heatMode === 'bluetooth' ? 'primary' : undefined" :aria-pressed="heatMode === 'bluetooth'" @click="thermometer.connect()">Over Bluetooth</el-button>
          <el-button v-if="page('thermometer')" :type="heatMode === 'practice' ? 'primary' : undefined" :aria-pressed="heatMode === 'practice'" @click="thermometer.practise()">Practice thermometer</el-button>
          <a v-if="page('thermometer')" :href="page('thermometer')" target="_blank" rel="noopener">Its page</a>
        </div>
        <Said v-if="thermometer.why.value" tone="stop">{{ thermometer.why.value }}</Said>
      </section>
      <section>
        <h3>What it does</h3>
        <el-checkbox v-model="bell.loud.value">Sound when a timer rings</el-checkbox>
        <el-checkbox v-model="speaks">Say what is next aloud</el-checkbox>
        <div class="row"><el-button v-if="bell.notifies.value === 'default'" @click="bell.allow()">Notify me when I look elsewhere</el-button></div>
      </section>
      <section>
        <h3>Pedal</h3>
        <div class="row"><el-button @click="hears = !hears">{{ hears ? 'Press it now …' : 'Set the key it sends' }}</el-button><span v-if="pedal">{{ pedal }} does what the large button does.</span><el-button v-if="pedal" text @click="pedal = ''">Forget it</el-button></div>
      </section>
      <label class="label">This device is called<el-input v-model="called" maxlength="30" aria-label="This device is called" /></label>
    </div>
  </el-dialog>
</template>

<style scoped>
.parts { display: grid; gap: 16px }
h3 { font-size: 1.05rem; color: var(--rim); margin-bottom: 6px }
.row { display: flex; flex-wrap: wrap; gap: 8px; align-items: center }
.row :deep(.el-button) { min-height: 44px; margin-left: 0 }
section { display: grid; gap: 6px; justify-items: start }
</style>
