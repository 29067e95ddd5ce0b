import { describe, expect, it } from 'vitest'
import type { Sighting } from '@/shared/api/client'
import { confirmed, schoolName, standing, until, untilStop } from './words'
import type { Schemas } from './api/client'
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

describe('the figure of a gap', () => {
  const judged = (figure: Schemas['Figure']) => ({ figure }) as Schemas['Judgement']
  it('is what the program knows of it: a figure, a bound with its uncertainty, or between two', () => {
    expect(figureOf(judged({ kind: 'at', mm: 0.22 }))).toBe('0.22')
    expect(figureOf(judged({ kind: 'between', mm: 0.195, to_mm: 0.245 }))).toBe('0.195–0.245')
    expect(figureOf(judged({ kind: 'above', mm: 0.195 }))).toBe('>0.195')
    expect(figureOf(judged({ kind: 'below', mm: 0.221 }))).toBe('<0.221')
    expect(figureOf(judged({ kind: '' }))).toBe('')
    expect(figureOf(null)).toBe('')
  })
})
