import { describe, expect, it } from 'vitest'
import { sums, type Values } from './sums'

const sum = (id: string) => sums.find((s) => s.id === id)!
const start = (id: string, more: Values = {}): Values => ({
  ...Object.fromEntries(sum(id).fields.map((f) => [f.key, f.start])),
  ...more,
})

describe('the sums', () => {
  it('have names of their own and begin with something to reckon', () => {
    expect(new Set(sums.map((s) => s.id)).size).toBe(sums.length)
    for (const s of sums) expect(s.request(start(s.id)), s.id).toBeTruthy()
  })
  it('send what is entered, a decimal comma too, and leave out what is empty', () => {
    expect(sum('turn').request(start('turn', { gap: '0,4', ratio: '' }))).toEqual({
      adjuster: { kind: 'screw_valve_end', pitch_mm: 1 },
      gap_mm: 0.4,
      aim_mm: 0.3,
    })
    expect(sum('turn').request(start('turn', { kind: 'eccentric' }))).toMatchObject({
      adjuster: { kind: 'eccentric', eccentricity_mm: 1.2 },
    })
    expect(sum('units').request({ value: '0.010', unit: 'in' })).toEqual({ length_in: 0.01 })
    expect(sum('torque').request({ value: '10', unit: 'lbft' })).toEqual({ torque_lbft: 10 })
  })
  it('read lines: a stack and its feel, minute and temperature, valve and shim', () => {
    expect(sum('judge').request(start('judge', { readings: '0.15+0.06 won’t go\n\n0.25 free' }))).toMatchObject({
      readings: [
        { leaves_mm: [0.15, 0.06], feel: 'won’t go' },
        { leaves_mm: [0.25], feel: 'free' },
      ],
    })
    expect(sum('cooldown').request(start('cooldown'))).toEqual({
      ambient_c: 18,
      readings: [
        { minute: 0, engine_c: 85 },
        { minute: 10, engine_c: 72 },
      ],
      gate_c: 38,
    })
    expect(sum('shims').request(start('shims', { valves: 'E1 2.70 0.10' }))).toMatchObject({
      valves: [{ valve: 'E1', fitted_mm: 2.7, measured_mm: 0.1, lower_mm: 0.15, upper_mm: 0.25, aim_mm: 0.2 }],
    })
  })
  it('say their answers in a mechanic’s words', () => {
    const turned = { turn_deg: 36, turns: 0.1, direction: 'close', by_feel: false, why: 'so' }
    expect(sum('turn').answer(turned, start('turn')).large).toBe('Close by 36°')
    expect(sum('turn').answer({ ...turned, turn_deg: null, turns: null, by_feel: true }, start('turn')).large).toBe(
      'By feel',
    )
    expect(
      sum('cooldown').answer({ reachable: false, why: 'Heat soaks.', minutes_from_last: null, k_per_min: null }, {}),
    ).toEqual({ large: 'Not so far', lines: ['Heat soaks.'] })
    const fit = [
      { valve: 'I1', shim_mm: 2.6, from: 'I2', gap_mm: 0.2 },
      { valve: 'I3', shim_mm: 2.65, from: 'I3', gap_mm: 0.2 },
    ]
    const shims = sum('shims').answer({ fit, buy: [], spare_mm: [2.7], impossible: [] }, {})
    expect(shims.large).toBe('Nothing to buy')
    expect(shims.lines).toEqual(['I1: 2.60 from I2, gap 0.20.', 'I3 keeps 2.65, gap 0.20.', 'Left over: 2.70.'])
    const none = sum('shims').answer(
      { fit: [], buy: [], spare_mm: [], impossible: [{ valve: 'E1', reason: 'E1 needs a shim of 3.05–3.15 mm.' }] },
      {},
    )
    expect(none.large).toBe('No shim for E1')
    const judged = { verdict: 'in', sure: false, why: 'close', gap_low_mm: 0.2, gap_high_mm: null, try_next: null }
    expect(sum('judge').answer(judged, {})).toMatchObject({ large: 'In, close', verdict: 'in' })
  })
})
