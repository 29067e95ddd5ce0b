import type { Schemas, Verdict } from '@/shared/api/client'
import { mm } from '@/shared/units'
import { untold } from './untold'

type Result = Schemas['PracticeResult']

export const wearWord = {
  even: 'worn evenly',
  sunken_seat: 'its seat has sunk',
  worn_tip: 'a dip worn into its tip',
  flat_lobe: 'its lobe is worn flat',
} as const

/** The valves as they truly are, and were. */
export const trulyShown = (valves: Result[]) =>
  untold(valves, (v) => ({
    name: v.valve,
    figure: mm(v.left_mm).slice(0, 4),
    verdict: v.truly,
    was: v.disturbed ? mm(v.found_mm).slice(0, 4) : undefined,
  }))

/** The same as they were held to be. */
export const heldShown = (valves: Result[]) =>
  untold(valves, (v) => ({
    name: v.valve,
    figure: v.believed_mm === null ? '' : mm(v.believed_mm).slice(0, 4),
    verdict: v.verdict ? (v.verdict as Verdict) : null,
  }))
