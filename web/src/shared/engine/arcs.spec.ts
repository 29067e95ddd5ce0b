// @vitest-environment node
import { describe, expect, it } from 'vitest'
import type { EngineView, PlanView } from '@/shared/api/client'
import { onArc, stopAt, valvesAt } from './arcs'

const plan = { stops: [{ crank_deg: 0 }, { crank_deg: 180 }] } as unknown as PlanView
const engine = {
  valves: [
    { name: 'E1', may_set: [{ from_deg: 392, to_deg: 108 }] },
    { name: 'I1', may_set: [] },
  ],
} as unknown as EngineView

describe('arcs of crank positions', () => {
  it('wrap through 0 where their end is smaller than their start', () => {
    expect(onArc({ from_deg: 20, to_deg: 60 }, 60)).toBe(true)
    expect(onArc({ from_deg: 20, to_deg: 60 }, 61)).toBe(false)
    expect(onArc({ from_deg: 700, to_deg: 20 }, 710)).toBe(true)
    expect(onArc({ from_deg: 700, to_deg: 20 }, 10)).toBe(true)
    expect(onArc({ from_deg: 700, to_deg: 20 }, 300)).toBe(false)
  })
  it('finds the stop at which the drawn crank stands, over the end of the cycle too', () => {
    expect(stopAt(plan, 181)).toBe(1)
    expect(stopAt(plan, 719)).toBe(0)
    expect(stopAt(plan, 90)).toBe(-1)
    expect(stopAt(null, 0)).toBe(-1)
  })
  it('shows what may be set there, and the valves of the stop picked out', () => {
    const shown = valvesAt(engine, 500, ['E1'])
    expect(shown['E1']).toMatchObject({ settable: true, here: true })
    expect(shown['I1']).toMatchObject({ settable: false, here: false })
    expect(valvesAt(engine, null)['I1']!.settable).toBe(true)
  })
})
