import type { Schemas } from './api/client'
import { degrees } from './units'

export type Gear = Schemas['Gear']

/** Which way an adjuster goes and how far, "Screw E3 in 36°, clockwise". */
export function turnOf(
  screw: { turn_deg?: number | null; travel: string; rotation: string },
  { words }: Gear,
  valve = '',
): string {
  const way = { in: words.in, out: words.out }[screw.travel]
  return `${[words.part, valve, way].filter(Boolean).join(' ')} ${degrees(screw.turn_deg ?? 0)}, ${screw.rotation}`
}
