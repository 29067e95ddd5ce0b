import type { JobView, PlanView, ValveView, Verdict } from '@/shared/api/client'
import { figureOf } from '@/shared/engine/figure'
import type { ValveShown } from '@/shared/engine/HeadDrawing.vue'

/** How each valve is shown on the head; of some, what was done is not on the disk yet. */
export function valvesShown(view: JobView, waits: string[] = []): Record<string, ValveShown> {
  const { state, engine } = view
  const numbered = state.plan?.school === 'sum_rule'
  const here = state.plan && state.stop >= 0 ? state.plan.stops[state.stop]!.valves : []
  return Object.fromEntries(
    state.valves.map((v) => {
      const inHand = v.round.length > 0 ? v.judgement : null
      const judgement = inHand ?? v.last?.judgement
      return [
        v.name,
        {
          number: numbered ? engine.valves.find((x) => x.name === v.name)!.row_number : 0,
          figure: figureOf(judgement, v.limits.in_thou),
          inThou: v.limits.in_thou,
          void: inHand ? '' : v.last?.void,
          verdict: judgement && !judgement.conflict ? judgement.verdict : null,
          settable: v.settable,
          here: here.includes(v.name),
          chosen: v.name === state.now.valve,
          waits: waits.includes(v.name),
        },
      ]
    }),
  )
}

/** The word under each cylinder that matters now. */
export function cylinderNotes(view: JobView): Record<number, { text: string; strong: boolean }> {
  return Object.fromEntries(view.state.now.notes.map((n) => [n.cylinder, n]))
}

/** From how many valves on the band does not show all of them at once, and how many bars can be read from a step away. */
const manyBars = 24
const readBars = 12

/** Which valves of a large engine the band shows: the bank in hand where it is small enough, else those of the stop; of others none but all. */
export function barsOf({ engine, state }: JobView): string[] {
  const stop = state.plan?.stops[state.stop]
  if (engine.valves.length < manyBars || !stop) return []
  const inHand = state.now.valve || stop.valves[0]!
  const bank = engine.banks.map((b) => b.rows.flatMap((r) => r.valves)).find((names) => names.includes(inHand))
  return bank && bank.length <= readBars ? bank : stop.valves
}

/** The stop the band shows as present: none while another sequence is looked at. */
export function stopShown(view: JobView, preview: PlanView | null): number {
  return preview ? -1 : view.state.stop
}

/** The valve that is drawn from the side, and what is known of it. */
export interface SideShown {
  valve: ValveView
  settable: boolean
  verdict: Verdict | null
  /** The leaf in hand. */
  leaf: string
}

/** The valve seen from the side, as the bench says. */
export function sideShown({ state, engine }: JobView): SideShown {
  const { side } = state.now
  const valve = state.valves.find((v) => v.name === side.valve)!
  const judgement = valve.round.length > 0 ? valve.judgement : valve.last?.judgement
  return {
    valve: engine.valves.find((v) => v.name === side.valve)!,
    settable: valve.settable,
    verdict: judgement?.verdict ?? null,
    leaf: side.leaf,
  }
}
