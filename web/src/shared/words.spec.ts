import { describe, expect, it } from 'vitest'
import type { Sighting } from '@/shared/api/client'
import { confirmed, schoolName, standing, until, untilStop } from './words'
import { figureOf } from './engine/figure'

const seen = (what: Sighting['what'], more: Partial<Sighting> = {}): Sighting => ({
  what,
  cylinder: 0,
  valve: '',
  mark_deg: 0,
  ...more,
})

describe('the words of the bench', () => {
  it('says what to turn until and what stands', () => {
    expect(until(seen('rocking', { cylinder: 4 }))).toBe('cylinder 4 rocks')
    expect(standing([seen('rocking', { cylinder: 4 })])).toBe('Cylinder 4 is rocking')
    expect(confirmed([seen('full_lift', { valve: 'E1' })])).toBe('E1 is fully down')
    expect(until(seen('mark'))).toContain('TDC mark')
  })
  it('tells the two turns of a mark apart', () => {
    const watch = [seen('mark'), seen('rocking', { cylinder: 1 })]
    expect(untilStop(watch)).toBe('cylinder 1 rocks, the TDC mark is at the pointer')
    expect(untilStop([seen('degrees', { mark_deg: 51.43 })])).toBe('the degree wheel reads 51.4°')
  })
  it('names the sum rule by its sum', () => {
    expect(schoolName('sum_rule', 8)).toBe('Rule of nine')
    expect(schoolName('sum_rule', 12)).toBe('Rule of 13')
  })
})

describe('the figure of kept readings', () => {
  const judged = (estimate: number | null) => ({
    verdict: 'in' as const,
    sure: true,
    estimate_mm: estimate,
    gap_low_mm: 0,
    gap_high_mm: null,
    try_next_mm: [],
    why: '',
    conflict: '',
  })
  it('is the drag where there is one, else what the gap lies between', () => {
    expect(figureOf({ judgement: judged(0.22), readings: [], at: '', stale: false })).toBe('0.22')
    const readings = [
      { leaves_mm: [0.2], feel: 'free' as const },
      { leaves_mm: [0.15, 0.09], feel: 'wont_go' as const },
    ]
    expect(figureOf({ judgement: judged(null), readings, at: '', stale: false })).toBe('0.20–0.24')
    expect(figureOf({ judgement: judged(null), readings: readings.slice(0, 1), at: '', stale: false })).toBe('>0.20')
    expect(figureOf({ judgement: judged(null), readings: readings.slice(1), at: '', stale: false })).toBe('<0.24')
    expect(figureOf(null)).toBe('')
  })
})
