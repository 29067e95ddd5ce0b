// @vitest-environment node
import { describe, expect, it } from 'vitest'
import type { JobView } from '@/shared/api/client'
import { barsOf } from './benchPicture'

/** A job on an engine with so many valves a bank, at its first stop. */
function job(...perBank: number[]): JobView {
  const banks = perBank.map((n, b) => ({ rows: [{ valves: Array.from({ length: n }, (_, i) => `V${b}.${i}`) }] }))
  return {
    engine: { banks, valves: banks.flatMap((b) => b.rows[0]!.valves) },
    state: { stop: 0, now: { valve: 'V0.1' }, plan: { stops: [{ valves: ['V0.0', 'V0.1'] }] } },
  } as unknown as JobView
}

describe('the bars of a large engine', () => {
  it('are all of them below two dozen', () => {
    expect(barsOf(job(8))).toEqual([])
    expect(barsOf(job(8, 8))).toEqual([])
  })
  it('are those of the bank in hand where a dozen at most', () => {
    expect(barsOf(job(12, 12))).toEqual(job(12).engine.valves)
  })
  it('are those of the stop where the bank is larger', () => {
    expect(barsOf(job(24))).toEqual(['V0.0', 'V0.1'])
    expect(barsOf(job(24, 24))).toEqual(['V0.0', 'V0.1'])
  })
})
