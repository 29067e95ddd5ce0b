import '@/testing'
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { PlanView } from '@/shared/api/client'
import { engine } from './engine.fixture'
import TurnBand from './TurnBand.vue'

const two = engine([{ side: 'left', valves: ['E1', 'I1', 'I2', 'E2'] }], 'left')
two.valves[0]!.may_set = [{ from_deg: 600, to_deg: 120 }]
two.valves[1]!.may_set = [{ from_deg: 90, to_deg: 270 }]
const plan = {
  stops: [
    { crank_deg: 0, valves: ['E1', 'I1'] },
    { crank_deg: 360, valves: ['I2', 'E2'] },
  ],
} as unknown as PlanView
const band = (props: Partial<InstanceType<typeof TurnBand>['$props']> = {}) =>
  mount(TurnBand, {
    props: { engine: two, plan, crank: 0, stop: 0, finished: [], here: ['E1'], across: 720, ...props },
  })
const spans = (w: ReturnType<typeof band>) => w.findAll('.may').map((r) => Number(r.attributes('width')))

describe('the band of two turns', () => {
  it('draws where each valve may be set, in two pieces over the end of the cycle', () => {
    // at a point a degree: 0 to 120, 600 to 720, 90 to 270
    expect(spans(band())).toEqual([120, 120, 180])
    expect(
      band()
        .findAll('.here .name')
        .map((n) => n.text()),
    ).toEqual(['E1'])
  })
  it('has a peg a stop: the present one numbered, those that are done ticked', () => {
    const pegs = band({ stop: 1, finished: [0] }).findAll('.peg')
    expect(pegs.map((p) => p.text())).toEqual(['', '2'])
    expect(pegs[1]!.classes()).toContain('at')
    expect(pegs[0]!.find('path').exists()).toBe(true)
    expect(band({ plan: null }).findAll('.peg')).toHaveLength(0)
  })
  it('counts the valves along their row where the sequence does', () => {
    const numbered = engine([{ side: 'left', valves: ['E1', 'I1'] }], 'left')
    numbered.valves.forEach((v, i) => (v.row_number = i + 1))
    expect(
      band({ engine: numbered, numbered: true })
        .findAll('.name')
        .map((n) => n.text()),
    ).toEqual(['1 · E1', '2 · I1'])
  })
  it('shows where the crank may stand, and its plumb line only where it is known', () => {
    const w = band({ crank: null, places: [{ from_deg: 700, to_deg: 20 }] })
    expect(w.findAll('.place').map((p) => Number(p.attributes('width')))).toEqual([20, 20])
    expect(w.findAll('g[transform]')).toHaveLength(0)
    expect(band({ crank: 180 }).findAll('g[transform]')).toHaveLength(1)
  })
})
