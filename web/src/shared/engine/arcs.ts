import type { EngineView, PlanView, Schemas } from '@/shared/api/client'
import type { ValveShown } from './HeadDrawing.vue'

/** Whether a crank position lies on an arc; one whose end is smaller than its start wraps through 0. */
export function onArc(arc: Schemas['Arc'], deg: number): boolean {
  return arc.from_deg <= arc.to_deg
    ? arc.from_deg <= deg && deg <= arc.to_deg
    : deg >= arc.from_deg || deg <= arc.to_deg
}

/** The stop of a plan at which the drawn crank stands, −1 for none. */
export function stopAt(plan: PlanView | null, crank: number, within = 2): number {
  return (plan?.stops ?? []).findIndex((s) => {
    const apart = Math.abs(s.crank_deg - crank) % 720
    return Math.min(apart, 720 - apart) <= within
  })
}

/** How the valves look at a crank position: those that may be set there, and those of a stop picked out. */
export function valvesAt(engine: EngineView, crank: number | null, here: string[] = []): Record<string, ValveShown> {
  return Object.fromEntries(
    engine.valves.map((v) => [
      v.name,
      {
        figure: '',
        verdict: null,
        settable: crank === null || v.may_set.some((a) => onArc(a, crank)),
        here: here.includes(v.name),
        chosen: false,
      },
    ]),
  )
}
