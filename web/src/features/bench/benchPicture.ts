import type { JobView, PlanView } from '@/shared/api/client'
import { figureOf } from '@/shared/engine/figure'
import type { ValveShown } from '@/shared/engine/HeadDrawing.vue'

/** How each valve is shown on the head. */
export function valvesShown(view: JobView): Record<string, ValveShown> {
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
          stale: !inHand && Boolean(v.last?.stale),
          verdict: judgement && !judgement.conflict ? judgement.verdict : null,
          settable: v.settable,
          here: here.includes(v.name),
          chosen: v.name === state.now.valve,
        },
      ]
    }),
  )
}

/** The word under each cylinder that matters now. */
export function cylinderNotes(view: JobView): Record<number, { text: string; strong: boolean }> {
  const { state, engine } = view
  const notes: Record<number, { text: string; strong: boolean }> = {}
  const cylinderOf = (valve: string) => engine.valves.find((v) => v.name === valve)!.cylinder
  const stop = state.plan?.stops[state.now.action === 'turn' ? state.now.stop : state.stop]
  if (!stop) return notes
  const turning = state.now.action === 'turn'
  for (const s of stop.watch) {
    if (s.what === 'rocking') notes[s.cylinder!] = { text: turning ? 'watch it rock' : 'rocking', strong: false }
    if (s.what === 'full_lift')
      notes[cylinderOf(s.valve!)] = { text: turning ? `watch ${s.valve}` : `${s.valve} is down`, strong: false }
  }
  const word = state.phase === 'adjust' ? 'set here' : state.phase === 'verify' ? 'check here' : 'read here'
  const waiting = turning ? stop.valves : state.now.here
  for (const valve of waiting) {
    if (!state.valves.find((v) => v.name === valve)?.pending) continue
    notes[cylinderOf(valve)] = { text: turning ? 'next' : word, strong: !turning }
  }
  return notes
}

/** The stop the band shows as present: none while another sequence is looked at. */
export function stopShown(view: JobView, preview: PlanView | null): number {
  return preview ? -1 : view.state.stop
}
