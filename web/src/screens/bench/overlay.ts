/**
 * What this device did and the server does not know yet, laid over the last state: lines weighed, things begun and done. What it makes of the
 * rest is reckoned by the server; until it answers, the figures that were there stand.
 */
import { taskName } from './words'
import type { BakeNow, BenchEvent, LineNow, TaskNow } from '@/api/client'

const MINUTE = 60

function weighed(line: LineNow, g: number, event: BenchEvent): LineNow {
  const off = g - (line.target_g ?? g)
  const status = Math.abs(off) <= line.tolerance_g + 1e-9 ? 'in' : off > 0 ? 'over' : 'under'
  return { ...line, in_g: g, status, at_s: event.at_s, who: event.who }
}

function task(one: TaskNow, event: BenchEvent): TaskNow {
  const { what, at_s } = event
  if (what.deed === 'began') return { ...one, status: 'running', began_s: at_s, rings_s: one.usual_min < 0.3 ? null : at_s + one.look_min * MINUTE, look_s: at_s + one.look_min * MINUTE, usual_s: at_s + one.usual_min * MINUTE }
  if (what.deed === 'done') return { ...one, status: 'done', done_s: at_s, rings_s: null }
  if (what.deed === 'skipped') return { ...one, status: 'skipped', rings_s: null }
  if (what.deed === 'turned') return { ...one, touched: one.touched + 1 }
  if (what.deed === 'tested') return what.passed ? { ...one, passed: true } : { ...one, passed: false, tries: one.tries + 1, rings_s: at_s + Math.max(one.again_min, 0.3) * MINUTE }
  return one
}

/** What cannot begin yet in a run of loads: the load before is in, or pieces are still in the pot. */
function shutLoads(tasks: readonly TaskNow[]): Set<string> {
  const loads = tasks.filter((one) => one.load >= 0)
  const steps = [...new Set(loads.map((one) => one.step))]
  const pieces = (of: readonly TaskNow[]): number => of.reduce((sum, one) => sum + one.pieces, 0)
  const shut = tasks.filter((one) => {
    const from = steps.filter((step) => step < one.step).at(-1)
    const before = loads.filter((own) => own.step === from)
    const out = pieces(before.filter((own) => own.status === 'done' || own.status === 'skipped'))
    if (one.load < 0) return !one.ready && before.length > 0 && !out && steps.some((step) => step > one.step)
    const wanted = pieces(loads.filter((own) => own.step === one.step && own.load <= one.load))
    return loads.some((own) => own.step === one.step && own.status === 'running') || Math.min(wanted, pieces(before)) > out
  })
  return new Set(shut.map((one) => one.key))
}

/** After something is done, what follows on the same may begin. */
function opened(tasks: TaskNow[]): TaskNow[] {
  const held = new Set<string>()
  const shut = shutLoads(tasks)
  return tasks.map((one) => {
    const on = `${one.on}.${one.mix}`
    const ready = (one.ready || one.ahead || Boolean(one.during) || !held.has(on)) && !shut.has(one.key)
    if (one.status !== 'done' && one.status !== 'skipped' && one.load < 0 && !one.ahead && !one.during) held.add(on)
    return { ...one, ready }
  })
}

export function overlaid(bake: BakeNow, events: readonly BenchEvent[]): BakeNow {
  if (!events.length) return bake
  let { lines, tasks, timers, strips, log, status } = bake
  for (const event of events) {
    const { what } = event
    if ('line' in what && what.line && what.deed !== 'added') {
      const change = (one: LineNow): LineNow => {
        if (one.key !== what.line) return one
        if (what.deed === 'weighed') return weighed(one, what.g, event)
        if (what.deed === 'took_out') return weighed(one, Math.max(0, (one.in_g ?? 0) - what.g), event)
        return what.deed === 'accepted' ? { ...one, status: 'accepted' } : one
      }
      lines = lines.map(change)
    } else if ('task' in what && what.task && what.deed !== 'measured' && what.deed !== 'noted') {
      if (what.deed === 'skipped') lines = lines.map((one) => (one.key === what.task ? { ...one, status: 'skipped' } : one))
      tasks = tasks.map((one) => (one.key === what.task ? task(one, event) : one))
    } else if (what.deed === 'piece') strips = strips.map((one) => (one.target === what.target ? { ...one, pieces: [...one.pieces, what.g], off: [...one.off, 0], left: Math.max(0, one.left - 1) } : one))
    else if (what.deed === 'timer_set') timers = [...timers, { key: event.id, name: what.name || 'Timer', began_s: event.at_s, rings_s: event.at_s + what.minutes * MINUTE, seconds: what.minutes <= 3, task: '' }]
    else if (what.deed === 'quiet') timers = timers.filter((one) => one.key !== what.timer)
    else if (what.deed === 'ended') status = what.how
    else if (what.deed === 'noted') log = [{ id: event.id, at_s: event.at_s, who: event.who, writer: event.writer, says: what.text, about: what.task ?? '' }, ...log]
  }
  tasks = opened(tasks)
  const running = tasks.filter((one) => one.status === 'running' && one.rings_s != null && !timers.some((own) => own.task === one.key))
  const known = new Map(tasks.map((one) => [one.key, one]))
  timers = [
    ...timers.filter((one) => !one.task || known.get(one.task)?.rings_s != null).map((one) => ({ ...one, rings_s: known.get(one.task)?.rings_s ?? one.rings_s })),
    ...running.map((one) => ({ key: one.key, name: taskName(one), began_s: one.began_s ?? 0, rings_s: one.rings_s ?? 0, seconds: one.seconds, task: one.key })),
  ].sort((a, b) => a.rings_s - b.rings_s)
  return { ...bake, lines, tasks, timers, strips, log, status }
}
