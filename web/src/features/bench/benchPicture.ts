import type { JobView, PlanView, ValveState, ValveView, Verdict } from '@/shared/api/client'
import { figureOf } from '@/shared/engine/figure'
import type { ValveShown } from '@/shared/engine/HeadDrawing.vue'
import { settingLeaf } from './benchWords'

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

/** The valve that is drawn from the side, and what is known of it. */
export interface SideShown {
  valve: ValveView
  settable: boolean
  verdict: Verdict | null
  /** The leaf in hand. */
  leaf: string
}

/** The valve seen from the side: the one in hand; while the crank is turned, the first that waits at the next stop; else the one worked on last. */
export function sideShown(view: JobView): SideShown {
  const { state, engine } = view
  const { now } = state
  const next = ['turn', 'bar_over'].includes(now.action) ? (state.plan?.stops[now.stop]?.valves ?? []) : []
  const waits = next.find((name) => state.valves.find((v) => v.name === name)?.pending)
  const name = [now.valve, waits, state.undo_valve, engine.valves[0]!.name].find(Boolean)!
  const valve = state.valves.find((v) => v.name === name)!
  const judgement = valve.round.length > 0 ? valve.judgement : valve.last?.judgement
  return {
    valve: engine.valves.find((v) => v.name === name)!,
    settable: valve.settable,
    verdict: judgement?.verdict ?? null,
    leaf: name === now.valve ? leafInHand(view, valve) : '',
  }
}

function leafInHand({ state }: JobView, valve: ValveState): string {
  const { action, ladder } = state.now
  if (['adjust', 'lock'].includes(action)) return settingLeaf(valve)
  const tried = valve.round.at(-1)
  return valve.judgement?.try_next || tried?.name || (ladder.find((r) => r.first)?.name ?? '')
}
