/** Pans as forms: which measures a shape has, and what a new one starts from. */
import type { Pan, Reference } from '@/api/client'

export type Shape = Pan['shape']

export const MEASURE_LABELS: Record<string, string> = {
  length_cm: 'Length',
  width_cm: 'Width',
  side_cm: 'Side',
  diameter_cm: 'Across',
  hole_cm: 'Hole, top',
  depth_cm: 'Depth',
  base_length_cm: 'Base length',
  base_width_cm: 'Base width',
  base_side_cm: 'Base side',
  base_diameter_cm: 'Base across',
  base_hole_cm: 'Hole, base',
  corner_cm: 'Corner radius',
  cups: 'Cups',
}

const START: Record<string, number> = { length_cm: 30, width_cm: 20, side_cm: 23, diameter_cm: 26, hole_cm: 7, depth_cm: 5, cups: 12 }
const OF_SHAPE: Partial<Record<Shape, Record<string, number>>> = {
  loaf: { length_cm: 23, width_cm: 13, base_length_cm: 20.5, base_width_cm: 10.5, depth_cm: 7 },
  lidded: { length_cm: 33, width_cm: 10, depth_cm: 10 },
  cups: { cups: 12, diameter_cm: 7, base_diameter_cm: 5, depth_cm: 3.2 },
  sheet: { length_cm: 44, width_cm: 33, depth_cm: 2 },
}

/** A pan of a shape; measures that the one before had as well are kept. */
export function panOf(shape: Shape, reference: Reference, before?: Pan | null): Pan {
  const rule = reference.pan_shapes[shape]
  const kept = (before ?? {}) as Record<string, unknown>
  const own = OF_SHAPE[shape] ?? {}
  const measures = (rule?.measures ?? []).map((name) => [name, kept[name] ?? own[name] ?? START[name] ?? 10])
  const slopes = (rule?.optional ?? []).flatMap((name) => (before && kept[name] !== undefined ? [[name, kept[name]]] : own[name] === undefined ? [] : [[name, own[name]]]))
  return { shape, name: before?.name ?? '', ...Object.fromEntries([...measures, ...(before ? [] : slopes)]) } as Pan
}

/** A measure of a pan by name. */
export const measureOf = (pan: Pan, name: string): number | null => ((pan as unknown as Record<string, number | null>)[name] ?? null)

/** The pan with one measure changed. */
export const withMeasure = (pan: Pan, name: string, value: number | null): Pan => ({ ...pan, [name]: value }) as Pan
