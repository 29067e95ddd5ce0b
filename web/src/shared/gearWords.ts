import type { Schemas } from './api/client'
import { degrees } from './units'

export type Gear = Schemas['Gear']

/** What is done until a leaf drags: "Slacken the lock nut, turn the screw until 0.30 drags." */
export const untilDrags = (gear: Gear, leaf: string) => gear.words.turn.replace('{leaf}', leaf)

/** Which way an adjuster goes and how far, "Screw E3 in 36°, clockwise". */
export function turnOf(
  screw: { turn_deg?: number | null; travel: string; rotation: string },
  { words }: Gear,
  valve = '',
): string {
  const way = { in: words.in, out: words.out }[screw.travel]
  return `${[words.part, valve, way].filter(Boolean).join(' ')} ${degrees(screw.turn_deg ?? 0)}, ${screw.rotation}`
}
