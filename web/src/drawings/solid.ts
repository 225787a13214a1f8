/** A pan's solid as outlines to draw: widths at a height, cut through the middle. All measures in cm. */
import type { Solid, Turns } from '@/api/client'

/** The two measures at a height: from base to top evenly, above the brim as at the brim. */
function section(solid: Solid, height: number): [number, number] {
  const share = solid.depth_cm ? Math.min(1, height / solid.depth_cm) : 1
  const at = (i: 0 | 1) => (solid.base[i] ?? 0) + ((solid.top[i] ?? 0) - (solid.base[i] ?? 0)) * share
  return [at(0), at(1)]
}

/** Hollows beside each other as the cut through the pan shows them: [middle, half width at a height]. */
export interface Hollow {
  middle: number
  half: (height: number) => number
}

/** What a cut through the middle shows: one hollow, a ring's two sides, or a row of cups. */
export function hollows(solid: Solid, across: number): Hollow[] {
  if (solid.form === 'ring') {
    const wide = (h: number) => (section(solid, h)[0] - section(solid, h)[1]) / 2
    const middle = (h: number) => (section(solid, h)[0] + section(solid, h)[1]) / 4
    return [-1, 1].map((side) => ({ middle: across / 2 + side * middle(solid.depth_cm), half: (h) => wide(h) / 2 }))
  }
  if (solid.count > 1) {
    const pitch = (solid.top[0] ?? 1) * 1.2
    const columns = Math.max(1, Math.round(across / pitch))
    return Array.from({ length: columns }, (_, i) => ({ middle: pitch * (i + 0.5), half: (h) => section(solid, h)[0] / 2 }))
  }
  return [{ middle: across / 2, half: (h) => section(solid, h)[0] / 2 }]
}

/** The outline of what fills a hollow up to a height, as an SVG path with y upward negative. */
export function filled(hollow: Hollow, height: number, rim: number, scale: number): string {
  const at = (h: number, side: 1 | -1) => `${((hollow.middle + side * hollow.half(h)) * scale).toFixed(2)} ${(-h * scale).toFixed(2)}`
  const stops = height > rim && rim > 0 ? [0, rim, height] : [0, height]
  return `M${stops.map((h) => at(h, -1)).join('L')}L${[...stops].reverse().map((h) => at(h, 1)).join('L')}Z`
}

/** The walls and bottom of a hollow. */
export function walls(hollow: Hollow, rim: number, scale: number): string {
  const x = (h: number, side: 1 | -1) => ((hollow.middle + side * hollow.half(h)) * scale).toFixed(2)
  return `M${x(rim, -1)} ${(-rim * scale).toFixed(2)}L${x(0, -1)} 0H${x(0, 1)}L${x(rim, 1)} ${(-rim * scale).toFixed(2)}`
}

/** What pieces lie on: a sheet, the pot or the griddle from above. */
export interface Flat {
  form: 'rectangle' | 'disc'
  across: number
  down: number
}

/** What the pieces of a load lie on; null where pans hold them. */
export function flat(turns: Turns): Flat | null {
  const holder = turns.holder as Partial<Record<'length_cm' | 'width_cm' | 'diameter_cm', number>> | null | undefined
  if (!holder || !turns.packing) return null
  if (holder.diameter_cm !== undefined) return { form: 'disc', across: holder.diameter_cm, down: holder.diameter_cm }
  return holder.length_cm === undefined || holder.width_cm === undefined ? null : { form: 'rectangle', across: holder.length_cm, down: holder.width_cm }
}
