// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { horizon, tooth } from './wearChart'

const valve = (found: number | null, left: number | null) => ({
  valve: 'E1',
  found_mm: found,
  left_mm: left,
  lower_mm: 0.2,
  upper_mm: 0.3,
})
const visits = [
  { meter: 10_000, valves: [valve(null, 0.26)] },
  { meter: 30_000, valves: [valve(0.24, 0.26)] },
  { meter: 50_000, valves: [valve(null, 0.25)] },
  { meter: 70_000, valves: [valve(0.23, 0.23)] },
] as never
const wear = {
  valve: 'E1',
  rate_mm_per_1000: -0.001,
  rate_u_mm_per_1000: 0.0002,
  leaves_at: 100_000,
  range: [93_000, 115_000],
  differs: true,
  out: false,
  odd: false,
  side: 'tight',
} as never

describe('the chart of a valve’s wear', () => {
  it('is a saw-tooth of found and left, begun anew where a gap was not found', () => {
    const t = tooth(visits, wear, 100_000)!
    expect(t.runs).toEqual([
      [
        [10_000, 0.26],
        [30_000, 0.24],
        [30_000, 0.26],
      ],
      [
        [50_000, 0.25],
        [70_000, 0.23],
        [70_000, 0.23],
      ],
    ])
    expect([t.lower, t.upper]).toEqual([0.2, 0.3])
  })
  it('opens as a fan from what was left last: the rate, and 1.645 of its uncertainty either way', () => {
    const t = tooth(visits, wear, 100_000)!
    expect(t.from).toEqual([70_000, 0.23])
    expect(t.fan!.map((g) => Number(g.toFixed(5)))).toEqual([0.19013, 0.2, 0.20987])
  })
  it('has no fan where no rate is known, and is none where the valve was never seen', () => {
    expect(tooth(visits, { ...(wear as object), rate_mm_per_1000: null } as never, 1)!.fan).toBeNull()
    expect(tooth(visits, { ...(wear as object), valve: 'I9' } as never, 1)).toBeNull()
  })
  it('reaches to where the first valve surely leaves, and no further than twice what was run', () => {
    expect(horizon(visits, [wear])).toBe(115_000)
    expect(horizon(visits, [{ ...(wear as object), leaves_at: null, range: undefined } as never])).toBe(100_000)
    expect(horizon(visits, [{ ...(wear as object), range: [93_000, 900_000] } as never])).toBe(190_000)
  })
})
