import type { Schemas, Verdict } from '@/shared/api/client'
import type { ValveShown } from '@/shared/engine/HeadDrawing.vue'
import { mm } from '@/shared/units'

type Result = Schemas['PracticeResult']

export const wearWord = {
  even: 'worn evenly',
  sunken_seat: 'its seat has sunk',
  worn_tip: 'a dip worn into its tip',
  flat_lobe: 'its lobe is worn flat',
} as const

const shown = (valves: Result[], of: (v: Result) => Partial<ValveShown>): Record<string, ValveShown> =>
  Object.fromEntries(
    valves.map((v) => [
      v.valve,
      { figure: '', verdict: null, settable: true, untold: true, here: false, chosen: false, ...of(v) },
    ]),
  )

/** The valves as they truly are, and were. */
export const trulyShown = (valves: Result[]) =>
  shown(valves, (v) => ({
    figure: mm(v.left_mm).slice(0, 4),
    verdict: v.truly,
    was: v.disturbed ? mm(v.found_mm).slice(0, 4) : undefined,
  }))

/** The same as they were held to be. */
export const heldShown = (valves: Result[]) =>
  shown(valves, (v) => ({
    figure: v.believed_mm === null ? '' : mm(v.believed_mm).slice(0, 4),
    verdict: v.verdict ? (v.verdict as Verdict) : null,
  }))
