<script setup lang="ts">
/** The screen that stands on the worktop: one thing at a time, what is next in sight, every timer; by knuckle, keys or pedal. */
import { useEventListener, useLocalStorage, useWakeLock } from '@vueuse/core'
import { useQuery } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import DevicesDialog from './DevicesDialog.vue'
import EndPanel from './EndPanel.vue'
import InBowl from './InBowl.vue'
import NextTray from './NextTray.vue'
import QuestionPanel from './QuestionPanel.vue'
import StepPanel from './StepPanel.vue'
import { useBake } from './useBake'
import { useBell } from './useBell'
import { useNow } from './useLive'
import { useScale } from './useScale'
import { useThermometer } from './useThermometer'
import WeighPanel from './WeighPanel.vue'
import { writerName } from './writer'
import { clockOf, lineText, spanText, taskName, untilText } from './words'
import { keepsOffline } from './offline'
import { api, ask, type Deed, type TaskNow } from '@/api/client'
import { upper } from '@/base/format'
import { useUnits } from '@/base/kitchen'
import KeysDialog from '@/design/KeysDialog.vue'
import LinkButton from '@/design/LinkButton.vue'
import Said from '@/design/Said.vue'

const KEYS = [
  ['Space', 'what the large button does; so do Page Down and the pedal'],
  ['0 – 9', 'type what is in'],
  ['O', 'not yet: look again later'],
  ['1 2 3', 'where something is asked: the first, second, third way'],
  ['Z', 'zero the scale'],
  ['U', 'undo the last'],
  ['N', 'leave it out'],
  ['← →', 'look at what was before, what comes after'],
  ['H', 'heard: quiet the timer'],
  ['B', 'the next bake'],
  ['Tab', 'from thing to thing'],
  ['Esc', 'back to what is to do now; again: leave the bench'],
  ['?', 'these keys'],
] as const

const route = useRoute()
const router = useRouter()
const id = computed(() => String(route.params.id))
const { units } = useUnits()
const { state, bake, error, away, unsent, refused, act, fetch, forget } = useBake(id)
const now = useNow()
const { isSupported: canStayAwake, request: stayAwake } = useWakeLock()
if (canStayAwake.value) void stayAwake('screen').catch(() => undefined)
keepsOffline()

const lines = computed(() => new Map((bake.value?.lines ?? []).map((one) => [one.key, one])))
const tasks = computed(() => new Map((bake.value?.tasks ?? []).map((one) => [one.key, one])))
const timers = computed(() => bake.value?.timers ?? [])
const bell = useBell(timers, now)
const SOON_S = 60

/** What is still to do, in order: lines to weigh, and what may be begun or is under way. */
const open = computed(() =>
  (bake.value?.order ?? []).filter((key) => {
    const line = lines.value.get(key)
    if (line) return line.status === 'open' || line.status === 'under'
    const task = tasks.value.get(key)
    return task !== undefined && (task.status === 'open' || task.status === 'running')
  }),
)
/** Whether something to do waits for hands: not what goes on by itself, what something else must come before, or what is for later. */
function waits(task: TaskNow): boolean {
  if (task.status === 'running') return task.rings_s == null
  if (!task.ready) return false
  if (task.during) return task.rings_s != null && task.rings_s <= now.value
  return !task.ahead || (task.from_s ?? 0) <= now.value + SOON_S
}
/** A line is weighed when what it is for waits: the honey bath not the evening before. */
function weighsNow(key: string): boolean {
  const order = bake.value?.order ?? []
  const after = order.slice(order.indexOf(key) + 1).flatMap((own) => tasks.value.get(own) ?? [])[0]
  return !after || after.status !== 'open' || waits(after)
}
/** What is to do now: what rings, else the first that waits for hands, else what is under way. */
const due = computed(() => {
  const rings = bell.rung.value.find((one) => one.task && tasks.value.has(one.task))
  if (rings) return rings.task
  const first = open.value.find((key) => {
    const task = tasks.value.get(key)
    return task ? waits(task) : weighsNow(key)
  })
  return first ?? open.value.find((key) => tasks.value.get(key)?.status === 'running') ?? open.value[0] ?? ''
})
const chosen = ref('')
const at = computed(() => (chosen.value && (lines.value.has(chosen.value) || tasks.value.has(chosen.value) || chosen.value === 'end') ? chosen.value : due.value))
const line = computed(() => lines.value.get(at.value) ?? null)
const task = computed(() => tasks.value.get(at.value) ?? null)
const question = computed(() => {
  const asked = bake.value?.questions ?? []
  return asked.find((one) => one.line === at.value) ?? asked.find((one) => one.kind === 'over' || one.kind === 'twice') ?? null
})
/** What is short may be poured on: it is only asked about where the baker wants to decide. */
const deciding = ref('')
/** It is asked before anything else, unless the baker went to something else. */
const asks = computed(() => question.value !== null && !over.value && (question.value.kind === 'under' ? deciding.value === question.value.key : !chosen.value || question.value.line === chosen.value))
function decide(): void {
  deciding.value = question.value?.key ?? ''
  chosen.value = question.value?.line ?? ''
}
const over = computed(() => bake.value !== null && bake.value.status !== 'running')
const ends = computed(() => over.value || at.value === 'end' || (bake.value !== null && !at.value))
const next = computed(() => open.value.filter((key) => key !== at.value).flatMap((key) => tasks.value.get(key) ?? []).filter((one) => one.status === 'open').slice(0, 3))
const nextLine = computed(() => lines.value.get(open.value.filter((key) => key !== at.value)[0] ?? '') ?? null)
const bowl = computed(() => {
  const own = line.value ?? (task.value && task.value.group === 'dough' ? [...lines.value.values()].find((one) => one.what !== 'beside' && one.mix === task.value?.mix && one.of === (task.value?.on || mainName.value)) : null)
  if (!own) return null
  return { title: own.of || 'In the bowl', lines: [...lines.value.values()].filter((one) => one.of === own.of && one.mix === own.mix && (one.what === 'beside') === (own.what === 'beside')) }
})
const mainName = computed(() => [...lines.value.values()].filter((one) => one.what !== 'beside').at(-1)?.of ?? '')

/** Stations of the bake, for the strip at the top: bowls and steps, loads of one step together. */
const stations = computed(() => {
  const found: { key: string; label: string; done: boolean; here: boolean }[] = []
  for (const key of bake.value?.order ?? []) {
    const own = lines.value.get(key)
    const todo = tasks.value.get(key)
    const several = (bake.value?.mixes ?? 1) > 1
    const label = own ? `Weigh${own.of && own.of !== mainName.value ? ` ${own.of.split(',')[0]?.toLowerCase()}` : ''}${several && own.what !== 'beside' ? `, ${own.mix + 1}` : ''}` : todo ? `${todo.on ? `${todo.on.split(',')[0]}: ` : ''}${todo.label}` : ''
    const name = own ? `w.${own.mix}.${own.of}.${own.what === 'beside'}` : todo ? `s.${todo.step}.${todo.mix}` : ''
    const done = own ? !['open', 'under', 'over', 'twice'].includes(own.status) : todo?.status === 'done' || todo?.status === 'skipped'
    const last = found.find((one) => one.key === name)
    if (last) Object.assign(last, { done: last.done && done, here: last.here || key === at.value })
    else found.push({ key: name, label: upper(label), done: Boolean(done), here: key === at.value })
  }
  return found
})
const strip = ref<HTMLElement | null>(null)
watch(() => stations.value.findIndex((one) => one.here), (n) => {
  const own = strip.value?.children[n] as HTMLElement | undefined
  if (own && strip.value) strip.value.scrollTo({ left: own.offsetLeft - strip.value.clientWidth / 3 })
}, { flush: 'post' })
function goStation(name: string): void {
  const key = (bake.value?.order ?? []).filter((own) => {
    const one = lines.value.get(own)
    const todo = tasks.value.get(own)
    return (one ? `w.${one.mix}.${one.of}.${one.what === 'beside'}` : `s.${todo?.step}.${todo?.mix}`) === name
  })
  chosen.value = key.find((own) => open.value.includes(own)) ?? key[0] ?? ''
}

/** The target whose pieces are weighed off, while the dough is divided. */
const dividing = computed(() => (task.value?.kind === 'divide' ? (bake.value?.strips.find((one) => one.left > 0) ?? null) : null))
/** Of a line that was short: the scale counts on from what is in. [g] */
const inAlready = computed(() => (line.value?.status === 'under' ? (line.value.in_g ?? 0) : 0))
const scaleTarget = computed(() => {
  const own = dividing.value
  if (own) return { target_g: bake.value?.making?.targets[own.target]?.piece_g ?? null, tolerance_g: own.tolerance_g, bowl: false }
  const meant = line.value?.target_g ?? null
  return { target_g: meant === null ? null : Math.max(0, meant - inAlready.value), tolerance_g: line.value?.tolerance_g ?? 1, bowl: line.value !== null }
})
const scale = useScale(scaleTarget, (g) => {
  const piece = dividing.value
  if (piece) void act({ deed: 'piece', target: piece.target, g, by: 'scale' })
  else if (line.value && (line.value.status === 'open' || line.value.status === 'under') && !asks.value && !weighPanel.value?.typing) weighed(inAlready.value + g, 'scale')
})
const shownScale = computed(() => (scale.mode.value === 'none' ? null : scale.shown.value))
const thermometer = useThermometer()

async function did(...deeds: Deed[]): Promise<void> {
  await act(...deeds)
  chosen.value = deciding.value = ''
}
function weighed(g: number, by: 'scale' | 'typed' | 'meant'): void {
  const own = line.value
  if (!own) return
  const step = own.step_g
  const rounded = by === 'scale' ? Math.round(Math.max(0, g) / step) * step : g
  scale.setZero() // however it was told: it is in the bowl, and the next line begins from here
  void did({ deed: 'weighed', line: own.key, g: Number(rounded.toFixed(3)), by })
}
const chooseWay = (deeds: Deed[], pours: boolean): void => {
  const own = question.value?.line ?? ''
  deciding.value = ''
  if (pours) chosen.value = own
  else {
    if (deeds.some((one) => one.deed === 'took_out')) scale.setZero()
    void did(...deeds)
  }
}
function skip(): void {
  if (line.value) scale.setZero()
  if (at.value && !ends.value) void did({ deed: 'skipped', task: at.value })
}
/** What this window wrote is taken back first, what others did only where there is none of it. */
const ownName = ref('')
void writerName().then((name) => (ownName.value = name))
async function undo(): Promise<void> {
  const mine = [...unsent.value].reverse().find((one) => one.event.what.deed !== 'undone')?.event.id ?? (bake.value?.log.find((one) => one.writer === ownName.value) ?? bake.value?.log[0])?.id
  if (mine) await act({ deed: 'undone', of: mine })
  chosen.value = ''
}
const heard = (): void => {
  const own = bell.rung.value[0]
  if (own) void act({ deed: 'quiet', timer: own.key })
}
const weighPanel = ref<InstanceType<typeof WeighPanel> | null>(null)
const stepPanel = ref<InstanceType<typeof StepPanel> | null>(null)
function primary(): void {
  if (asks.value) return // a pedal decides nothing
  if (ends.value) {
    if (bake.value?.status === 'running') void did({ deed: 'ended', how: 'done' })
  } else if (line.value) weighPanel.value?.primary()
  else stepPanel.value?.primary()
}
/** What is chosen further down on a small screen is shown at its top. */
function goTo(key: string): void {
  chosen.value = key
  window.scrollTo({ top: 0 })
}
function along(by: number): void {
  const order = bake.value?.order ?? []
  const n = order.indexOf(at.value)
  chosen.value = order[Math.min(order.length - 1, Math.max(0, n + by))] ?? ''
}

const speaks = useLocalStorage('pancount.bench.speaks', false)
watch([() => line.value?.key, () => task.value?.key, speaks], () => {
  if (!speaks.value || !('speechSynthesis' in window) || !units.value) return
  speechSynthesis.cancel()
  const words = line.value ? `${line.value.name}, ${lineText(line.value, units.value).replace('\u202fg', ' grams').replace('\u202foz', ' ounces')}` : task.value ? taskName(task.value) : ''
  if (words) speechSynthesis.speak(new SpeechSynthesisUtterance(words))
})
onScopeDispose(() => 'speechSynthesis' in window && speechSynthesis.cancel())

const pedal = useLocalStorage('pancount.bench.pedal', '')
const devices = ref(false)
const shows = ref(false)
const more = ref(false)
/** What is closed does not keep the keys: the next press is for what is to do. */
const letGo = (): void => (document.activeElement as HTMLElement | null)?.blur()
const leave = () => void router.push({ name: 'bench' })
const isField = (target: EventTarget | null): boolean => target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if (event.ctrlKey || event.metaKey || event.altKey || devices.value || shows.value || more.value || event.defaultPrevented) return
  const { target, key } = event
  const isPedal = (pedal.value && (event.code === pedal.value || key === pedal.value)) || key === 'PageDown'
  if (!isPedal && isField(target)) return
  if (!isPedal && (key === ' ' || key === 'Enter') && target instanceof HTMLElement && target.closest('button, a, summary')) return
  if (event.repeat) return
  const asked = question.value?.options[Number(key) - 1]
  const does: Record<string, (() => void) | undefined> = {
    ' ': primary, Enter: primary, z: () => scale.setZero(), u: () => void undo(), n: skip, o: () => stepPanel.value?.notYet(), h: heard, b: nextBake, '?': () => (shows.value = true),
    ArrowLeft: () => along(-1), ArrowRight: () => along(1), Escape: () => (chosen.value ? (chosen.value = '') : leave()),
  }
  if (isPedal) {
    event.preventDefault()
    primary()
  } else if (asked) {
    event.preventDefault()
    chooseWay(asked.deeds, asked.deeds.length === 0)
  } else if (/^[0-9]$/.test(key) && line.value) weighPanel.value?.focus()
  else {
    const own = does[key.length === 1 ? key.toLowerCase() : key]
    if (!own) return
    event.preventDefault()
    own()
  }
})
// A button that was pressed by hand does not keep the keys: a pedal's next press is for what is to do.
useEventListener(window, 'pointerup', () => setTimeout(() => document.activeElement instanceof HTMLButtonElement && document.activeElement.blur()))

const others = useQuery({ queryKey: ['bench'], queryFn: () => ask(api.GET('/api/bench')), refetchInterval: 5_000 })
const beside = computed(() =>
  (others.data.value?.bakes ?? []).filter((one) => one.head.id !== id.value).map(({ head, card }) => {
    const rings = card?.timers[0] ?? null
    return { head, rings, says: rings && rings.rings_s <= now.value ? `${rings.name}: rang ${spanText(now.value - rings.rings_s)} ago` : (card?.next ?? '…') }
  }),
)
/** The next of the bakes under way, round and round. */
function nextBake(): void {
  const all = (others.data.value?.bakes ?? []).map((one) => one.head.id)
  const own = all[(all.indexOf(id.value) + 1) % Math.max(1, all.length)]
  if (own && own !== id.value) void router.push({ name: 'bake', params: { id: own } })
}
const pieces = computed(() => bake.value?.making?.targets.reduce((sum, one) => sum + one.pieces, 0) ?? 0)
const note = ref('')
function keepNote(): void {
  const text = note.value.trim()
  if (text) void act({ deed: 'noted', text, ...(task.value ? { task: task.value.key } : {}) })
  note.value = ''
}
const end = (how: 'stopped' | 'thrown_away'): void => {
  more.value = false
  void did({ deed: 'ended', how })
}
watch(() => bake.value?.name, (name) => name && (document.title = `${name} · Bench`))
</script>

<template>
  <main class="bench">
    <header class="top">
      <h1>{{ bake?.name || 'Bench' }}</h1>
      <p v-if="bake" class="sub"><template v-if="(line ?? task) && bake.mixes > 1">mix {{ (line ?? task)?.mix! + 1 }} of {{ bake.mixes }} · </template>{{ pieces }} {{ pieces === 1 ? 'piece' : 'pieces' }}<template v-if="bake.way"> · {{ bake.way }}</template></p>
      <span class="spacer" />
      <span class="chip" :class="{ draft: away || unsent.length }" role="status">{{ away ? (unsent.length ? `away, ${unsent.length} kept here` : 'away') : unsent.length ? 'keeping …' : 'kept' }}</span>
      <el-button class="tool" @click="devices = true">{{ scale.mode.value === 'none' ? 'Scale: none' : scale.mode.value === 'practice' ? 'Practice scale' : 'Scale' }}</el-button>
      <el-button class="tool" @click="more = true">More</el-button>
      <LinkButton class="tool" :to="{ name: 'bench' }">Leave bench</LinkButton>
    </header>
    <nav v-if="beside.length" class="others" aria-label="Other bakes">
      <RouterLink v-for="one in beside" :key="one.head.id" :to="{ name: 'bake', params: { id: one.head.id } }" :class="{ late: one.rings && one.rings.rings_s <= now }"><b>{{ one.head.name }}</b><span>{{ one.says }}</span><span v-if="one.rings && one.rings.rings_s > now" class="worked">{{ one.rings.name }} {{ untilText(one.rings.rings_s - now) }}</span></RouterLink>
    </nav>
    <Said v-if="error && !state" tone="stop"><strong>The bake cannot be shown</strong>{{ error.message }}<div class="row"><el-button @click="fetch()">Try again</el-button><LinkButton :to="{ name: 'bench' }">All bakes</LinkButton></div></Said>
    <el-skeleton v-else-if="!bake || !units || !state" :rows="8" animated aria-label="Fetching the bake" />
    <template v-else>
      <div ref="strip" class="strip" role="group" aria-label="Stations of the bake" tabindex="-1"><button v-for="one in stations" :key="one.key" type="button" :class="{ done: one.done, here: one.here }" :aria-current="one.here ? 'step' : undefined" @click="goStation(one.key)"><i aria-hidden="true" />{{ one.label }}<span v-if="one.done" class="visually-hidden">, done</span></button></div>
      <section v-for="one in bell.rung.value.slice(0, 2)" :key="one.key" class="rung" role="alert">
        <div><b>{{ one.name }}</b> <span>rang at {{ clockOf(one.rings_s) }}<template v-if="now - one.rings_s > 20">, {{ spanText(now - one.rings_s) }} ago</template></span></div>
        <el-button v-if="one.task && one.task !== at" class="big" @click="chosen = one.task">Look at it</el-button>
        <el-button class="big" @click="act({ deed: 'quiet', timer: one.key })">Heard<kbd>H</kbd></el-button>
      </section>
      <Said v-if="refused.length" tone="stop"><strong>{{ refused.length === 1 ? 'One thing' : `${refused.length} things` }} that happened could not be kept</strong>{{ refused[0]?.refused }}<div class="row"><el-button @click="forget()">Leave it out</el-button></div></Said>
      <Said v-if="away" tone="now">Pan Count does not answer. Go on: what you do stays on this device and is sent when it is back. What it makes of the rest is reckoned then.</Said>
      <div class="cols" :class="{ bowl: bowl !== null && !ends }">
        <InBowl v-if="bowl && !ends" class="left" :title="bowl.title" :lines="bowl.lines" :at="at" :units="units" @go="goTo" />
        <section class="tray center" aria-label="What is to do now">
          <el-button v-if="question && !asks && !over" class="asked" @click="decide">{{ question.title }}: decide</el-button>
          <QuestionPanel v-if="question && asks" :question="question" @choose="chooseWay" />
          <EndPanel v-else-if="ends" :bake="bake" :head="state.head" :units="units" @act="(...deeds) => did(...deeds)" />
          <WeighPanel v-else-if="line && (line.status === 'open' || line.status === 'under')" ref="weighPanel" :line="line" :in-already="inAlready" :scale="shownScale" :why="scale.why.value" :units="units" :mixes="bake.mixes" @weighed="weighed" @zero="scale.setZero()" @skip="skip" @undo="undo" />
          <div v-else-if="line" class="in"><h2 class="what">{{ line.name }}</h2><p>{{ line.in_g == null ? 'left out' : `${lineText({ ...line, target_g: line.in_g }, units)} in` }}, {{ lineText(line, units) }} meant.</p><div class="row"><el-button class="big" @click="undo">Undo<kbd>U</kbd></el-button><el-button type="primary" class="big" @click="chosen = ''">Go on</el-button></div></div>
          <StepPanel v-else-if="task" ref="stepPanel" :key="task.key" :task="task" :bake="bake" :units="units" :now="now" :celsius="thermometer.celsius.value" :scale="shownScale" @act="(...deeds) => did(...deeds)" @undo="undo" @skip="skip" />
          <p v-if="line && nextLine && !asks && !ends" class="then">Then {{ nextLine.name }}, {{ lineText(nextLine, units) }}.</p>
        </section>
        <NextTray class="right" :bake="bake" :next="next" :now="now" :units="units" @go="goTo" @act="(...deeds) => act(...deeds)">
          <p v-if="!bake.written" class="quiet">No method is written for this, so the usual steps stand in.</p>
          <ul v-if="bake.cautions.length && line" class="cautions"><li v-for="one in bake.cautions.slice(0, 3)" :key="one">{{ one }}</li></ul>
        </NextTray>
      </div>
      <el-dialog v-model="more" title="This bake" width="min(620px, 96vw)" append-to-body class="bench-more" @closed="letGo">
        <form class="note" @submit.prevent="keepNote"><el-input v-model="note" aria-label="A note" placeholder="A note for the book" maxlength="300" /><el-button native-type="submit" :disabled="!note.trim()">Note it</el-button></form>
        <div class="row"><el-button @click="((more = false), did({ deed: 'paused' }))">Put it away until later</el-button><el-button @click="((more = false), (chosen = 'end'))">To the end</el-button><el-button @click="end('stopped')">Stop it</el-button><el-button @click="end('thrown_away')">Throw it away</el-button></div>
        <ol class="log"><li v-for="one in bake.log.slice(0, 14)" :key="one.id"><span class="quiet">{{ clockOf(one.at_s) }} {{ one.who }}</span> {{ one.says }}</li></ol>
      </el-dialog>
      <DevicesDialog v-model="devices" v-model:speaks="speaks" v-model:pedal="pedal" :scale="scale" :thermometer="thermometer" :bell="bell" />
      <KeysDialog v-model="shows" :keys="KEYS" />
    </template>
  </main>
</template>

<style scoped>
.bench { padding: 0 18px 24px; max-width: 1500px; margin: 0 auto; display: grid; gap: 10px }
.top { display: flex; flex-wrap: wrap; align-items: center; gap: 6px 12px; min-height: 54px; border-bottom: 3px solid var(--rim); margin: 0 -18px; padding: 5px 18px; background: var(--tray) }
.top h1 { font-size: 1.3rem }
.sub { color: var(--ink-2); white-space: nowrap; overflow: hidden; text-overflow: ellipsis; min-width: 0; flex: 0 1 auto }
.tool { min-height: 42px; padding: 0 13px }
.asked { justify-self: start; min-height: 48px; border-color: var(--crust); color: var(--crust); font-size: 1.1rem }
.top :deep(.el-button + .el-button) { margin-left: 0 }
.others { display: flex; gap: 8px; overflow-x: auto }
.others a { display: flex; gap: 10px; align-items: center; min-height: 44px; padding: 0 14px; border: 2px solid var(--rim-soft); border-radius: 99px; text-decoration: none; color: var(--ink); white-space: nowrap }
.others .late { border-color: var(--stop); color: var(--stop) }
.strip { position: relative; display: flex; align-items: flex-start; gap: 6px; overflow-x: auto; scrollbar-width: none; padding-top: 2px }
.strip button { flex: 1 0 92px; border: 0; background: none; text-align: left; padding: 0 0 2px; min-height: 50px; font-size: .88rem; line-height: 1.15; color: var(--ink-2); cursor: pointer; display: flex; flex-direction: column; align-items: stretch; justify-content: flex-start }
.strip i { display: block; height: 6px; border-radius: 3px; background: var(--rim-soft); margin-bottom: 6px }
.strip .done i { background: var(--ok) }
.strip .here i { background: var(--crust) }
.strip .here { color: var(--ink); font-weight: 700 }
.rung { display: flex; flex-wrap: wrap; gap: 10px; align-items: center; border: 3px solid var(--stop); border-radius: var(--radius); background: var(--stop-soft); padding: 8px 14px; font-size: 1.35rem; animation: flash 1s 4 alternate }
.rung div { flex: 1 1 220px }
@keyframes flash { to { background: var(--crust-soft) } }
.cols { display: grid; gap: 12px; grid-template-columns: minmax(0, 1fr) 300px; align-items: start }
.cols.bowl { grid-template-columns: 300px minmax(0, 1fr) 290px }
.center { padding: 16px 20px; display: grid; gap: 12px; min-height: 480px; align-content: start }
.what { font-size: 2rem; color: var(--ink) }
.in { display: grid; gap: 12px; font-size: 1.3rem }
.row { display: flex; flex-wrap: wrap; gap: 10px }
.row :deep(.el-button + .el-button) { margin-left: 0 }
.then { color: var(--ink-2); font-size: 1.1rem }
.note { display: flex; gap: 8px; margin-bottom: 10px }
.note :deep(.el-button), .row :deep(.el-button) { min-height: 46px }
.log { list-style: none; margin: 8px 0 0; padding: 0; display: grid; gap: 2px }
.cautions { margin: 0; padding-left: 18px; color: var(--stop); font-size: .95rem }
.bench :deep(.big) { min-height: 64px; font-size: 1.2rem; font-weight: 650; border-radius: 14px; border-width: 2px; padding: 0 20px }
.bench :deep(.big kbd) { margin-left: 10px }
.bench :deep(.acts) { position: sticky; bottom: 0; background: var(--tray); padding: 8px 0; z-index: 1 }
@media (max-width: 1100px) {
  .sub { display: none }
  .cols, .cols.bowl { grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) }
  .center { grid-column: 1 / -1; grid-row: 1 }
  .cols:not(.bowl) .right { grid-column: 1 / -1 }
}
@media (max-width: 760px) {
  .bench { padding: 0 8px 16px; gap: 8px }
  .top { margin: 0 -8px; padding: 4px 8px }
  .top h1 { font-size: 1.1rem; flex: 1 1 auto }
  .top { gap: 4px 8px }
  .top .spacer { display: none }
  .tool { min-height: 38px; flex: 1 1 auto }
  .strip button { min-height: 44px }
  .cols, .cols.bowl { grid-template-columns: minmax(0, 1fr) }
  .center { grid-column: 1; padding: 10px 12px; min-height: 0 }
  .bench :deep(kbd) { display: none }
}
@media (hover: none) { .bench :deep(.big kbd) { display: none } }
</style>
