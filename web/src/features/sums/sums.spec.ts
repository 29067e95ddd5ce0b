// @vitest-environment node
import { describe, expect, it } from 'vitest'
import gears from '@/shared/engine/gears.fixture.json'
import type { Gear } from '@/shared/gearWords'
import { fieldAt, sumsWith } from './sums'
import { inUnit, lineInUnit, Typed, type Unit, type Values } from './typed'

const sums = sumsWith(gears as Gear[])
const sum = (id: string) => sums.find((s) => s.id === id)!
const start = (id: string, more: Values = {}, unit: Unit = 'mm') =>
  new Typed({ ...Object.fromEntries(sum(id).fields.map((f) => [f.key, f.start])), ...more }, unit)
const nothing = new Typed({})
/** What is said to be wrong when this is typed. */
const slips = (id: string, more: Values) => {
  const typed = start(id, more)
  sum(id).request(typed)
  return typed.slips
}

describe('the sums', () => {
  it('have names of their own and begin with something to reckon', () => {
    expect(new Set(sums.map((s) => s.id)).size).toBe(sums.length)
    for (const s of sums) {
      expect(s.request(start(s.id)), s.id).toBeTruthy()
      expect(slips(s.id, {}), s.id).toEqual({})
    }
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
    expect(sum('units').request(new Typed({ value: '0.010', unit: 'in' }))).toEqual({ length_in: 0.01 })
    expect(sum('torque').request(new Typed({ value: '10', unit: 'lbft' }))).toEqual({ torque_lbft: 10 })
  })
  it('read lines: a stack and its feel, minute and temperature, valve and shim', () => {
    expect(sum('judge').request(start('judge', { readings: '0.15+0.06 won’t go\n\n0.25 free' }))).toMatchObject({
      readings: [
        { leaves_mm: [0.15, 0.06], feel: 'wont_go' },
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
    const turned = {
      turn_deg: 36,
      turns: 0.1,
      direction: 'close',
      travel: 'in',
      rotation: 'clockwise',
      by_feel: false,
      why: 'so',
    }
    expect(sum('turn').answer(turned, start('turn')).large).toBe('Screw in 36°, clockwise')
    expect(sum('turn').answer({ ...turned, turn_deg: null, turns: null, by_feel: true }, start('turn')).large).toBe(
      'By feel',
    )
    expect(
      sum('cooldown').answer(
        { reachable: false, why: 'Heat soaks.', minutes_from_last: null, k_per_min: null },
        nothing,
      ),
    ).toEqual({ large: 'Not reached', lines: ['Heat soaks.'] })
    const fit = [
      { valve: 'I1', shim_mm: 2.6, from: 'I2', gap_mm: 0.2 },
      { valve: 'I3', shim_mm: 2.65, from: 'I3', gap_mm: 0.2 },
    ]
    const shims = sum('shims').answer({ fit, buy: [], spare_mm: [2.7], impossible: [] }, nothing)
    expect(shims.large).toBe('Nothing to buy')
    expect(shims.lines).toEqual([
      'I1: 2.60 mm from I2, gap 0.20 mm.',
      'I3 keeps 2.65 mm, gap 0.20 mm.',
      'Left over: 2.70 mm.',
    ])
    const none = sum('shims').answer(
      { fit: [], buy: [], spare_mm: [], impossible: [{ valve: 'E1', reason: 'E1 needs a shim of 3.05–3.15 mm.' }] },
      nothing,
    )
    expect(none.large).toBe('No shim for E1')
    const judged = { verdict: 'in', sure: false, why: 'close', gap_low_mm: 0.2, gap_high_mm: null, try_next: null }
    expect(sum('judge').answer(judged, nothing)).toMatchObject({ large: 'In, close', verdict: 'in' })
    // never 'nothing to buy' over a valve that no shim serves
    const some = sum('shims').answer(
      { fit, buy: [{ count: 1, shim_mm: 2.75 }], spare_mm: [], impossible: [{ valve: 'E1', reason: 'None.' }] },
      nothing,
    )
    expect([some.large, some.lines[0]]).toEqual(['No shim for E1', 'For the others buy 1 × 2.75 mm.'])
    expect(sum('turn').answer({ ...turned, turn_deg: 0 }, nothing).large).toBe('Nothing to turn')
    const stacked = { leaves_mm: [0.15, 0.07], thickness_mm: 0.22, uncertainty_mm: 0.004, within: false }
    expect(sum('leaves').answer(stacked, start('leaves')).lines).toHaveLength(1) // without limits none are spoken of
    expect(sum('leaves').answer(stacked, start('leaves', { lower: '0.21' })).lines[1]).toContain('the nearest')
  })
  it('take what the program itself writes, and what people type', () => {
    const judged = (readings: string) =>
      (sum('judge').request(start('judge', { readings })) as { readings: unknown }).readings
    expect(judged('0.15 + 0.06 drag\n0,22 Drag\n0.25 wont go\n0.30 Won’t go\n0.20 free')).toEqual([
      { leaves_mm: [0.15, 0.06], feel: 'drag' },
      { leaves_mm: [0.22], feel: 'drag' },
      { leaves_mm: [0.25], feel: 'wont_go' },
      { leaves_mm: [0.3], feel: 'wont_go' },
      { leaves_mm: [0.2], feel: 'free' },
    ])
    expect(start('leaves', { owned: '0.15, 0.06; 0,20' }).lengths('owned')).toEqual([0.15, 0.06, 0.2])
  })
  it('say in words and beside the field what cannot be meant', () => {
    expect(slips('turn', { gap: '0.4O', aim: '' })).toEqual({
      gap: ['“0.4O” is no figure: digits with one comma or point.'],
      aim: ['Type a figure.'],
    })
    expect(slips('judge', { readings: '0.20 free\n0.25 perhaps' }).readings).toEqual([
      'Line 2: say free, drag or won’t go after the leaf.',
    ])
    expect(slips('cooldown', { readings: '0 85\n10' }).readings).toEqual(['Line 2: a figure is missing.'])
    expect(slips('lock-shift', { pairs: '0.30 0.28 0.27' }).pairs![0]).toContain('2 figures are meant')
    expect(fieldAt(sum('turn'), 'adjuster.ratio')).toEqual({ key: 'ratio', entry: '' })
    expect(fieldAt(sum('judge'), 'owned[2].marked_mm')).toEqual({ key: 'owned', entry: 'Figure 3: ' })
    expect(fieldAt(sum('cooldown'), 'readings[1].minute')).toEqual({ key: 'readings', entry: 'Line 2: ' })
  })
  it('send leaves as they are stamped, and to the nanometre where inches are not exact', () => {
    const typed = start('leaves', { owned: '8 7.874 .009' }, 'thou')
    expect((sum('leaves').request(typed) as { owned: unknown }).owned).toEqual([
      { marked_in: 0.008 },
      { marked_mm: 0.2 },
      { marked_in: 0.009 },
    ])
  })
  // 1 in = 25.4 mm exactly (international yard and pound agreement, 1959): 12 thou are 0.3048 mm, 25.4 threads an inch 1 mm.
  it('work in thousandths and threads an inch as in millimetres', () => {
    const values = { gap: '12', aim: '.010', pitch: '25.4' }
    expect(sum('turn').request(start('turn', values, 'thou'))).toEqual({
      adjuster: { kind: 'screw_valve_end', pitch_mm: 1 },
      gap_mm: 0.3048,
      aim_mm: 0.254,
    })
    expect(inUnit('0.3048', 'length', 'thou')).toBe('12')
    expect(inUnit('12', 'length', 'mm')).toBe('0.3048')
    expect(inUnit('1.00', 'pitch', 'thou')).toBe('25.4')
    expect(inUnit(inUnit('0.40 0.05', 'lengths', 'thou'), 'lengths', 'mm')).toBe('0.40 0.05')
    expect(lineInUnit('0.2032 + 0.0508 drag', 'thou')).toBe('8 + 2 drag')
    expect(lineInUnit('I1 2.54 0.254', 'thou')).toBe('I1 100 10')
    expect(
      sum('lock-shift').answer(
        { enough: true, pre_lock_aim_mm: 0.3048, median_mm: -0.0254, spread_mm: 0, count: 5 },
        start('lock-shift', {}, 'thou'),
      ).large,
    ).toBe('Set 12 thou')
  })
})
