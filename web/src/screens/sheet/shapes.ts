/** Shapes and loads in a baker's words, for the sheet on screen. */
import type { Shaped, Turns } from '@/api/client'
import { withUnit, type Units } from '@/base/format'

export function shapeWords(shaped: Shaped, units: Units): string {
  const cm = (value: number | null | undefined) => withUnit(value ?? 0, 'cm', units)
  if (shaped.kind === 'ball') return `round up: a ball about ${cm(shaped.across_cm)} across`
  if (shaped.kind === 'disc') return `roll out to ${cm(shaped.across_cm)} across, ${cm(shaped.thickness_cm)} thick`
  if (shaped.kind === 'log') return `a log ${cm(shaped.length_cm)} long, ${cm(shaped.thickness_cm)} thick: ${shaped.cuts} pieces, cut every ${cm(shaped.slice_cm)}`
  const rope = `a rope ${cm(shaped.length_cm)} long, ${cm(shaped.thickness_cm)} thick`
  if (shaped.kind === 'ring') return `${rope}, closed to a ring with an opening of ${cm(shaped.opening_cm)} (${shaped.risen_opening_cm ? `${cm(shaped.risen_opening_cm)} when doubled` : 'closes as it doubles'})`
  return `${rope}${shaped.kind === 'knot' ? ', knotted' : ''}`
}

/** What each is called. */
export const WHERE: Record<Turns['through'], string> = { oven: 'Oven', pot: 'Pot', griddle: 'Griddle', fridge: 'Fridge' }
/** How many lie where. */
export const HOLDS: Record<Turns['through'], string> = { oven: 'on each sheet', pot: 'in the pot', griddle: 'on the griddle', fridge: 'on each sheet' }

export function turnsWords(turns: Turns, units: Units): string {
  const each = turns.packing ? ` (${turns.per_holder} ${HOLDS[turns.through]}, ${turns.packing.words})` : ''
  const waits = turns.wait_min ? `; the last waits ${withUnit(turns.wait_min, 'min', units)}` : ''
  return `${WHERE[turns.through]}: ${turns.loads} ${turns.loads === 1 ? 'load' : 'loads'} of up to ${turns.per_load}${each}${waits}`
}
