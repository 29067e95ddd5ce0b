// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { degrees, leaves, mm, thou, when } from './units'

describe('units for display', () => {
  it('writes millimetres as the trade does', () => {
    expect([0.3, 0.221, 0.2286, 1, 0.05].map(mm)).toEqual(['0.30', '0.221', '0.2286', '1.00', '0.05'])
  })
  // 1 in = 25.4 mm exactly, international yard and pound agreement of 1959: 0.2286 mm is 9 thou, 0.30 mm 11.8.
  it('writes thousandths of an inch', () => {
    expect([0.2286, 0.3, 0.254].map(thou)).toEqual(['9 thou', '11.8 thou', '10 thou'])
  })
  it('writes stacks and degrees', () => {
    expect(leaves([0.15, 0.06])).toBe('0.15 + 0.06')
    expect([180, 51.4286].map(degrees)).toEqual(['180°', '51.4°'])
  })
  it('says today for today', () => {
    const now = new Date(2026, 10, 24, 15, 0)
    expect(when(new Date(2026, 10, 24, 9, 5).toISOString(), now)).toBe('today 09:05')
    expect(when(new Date(2026, 10, 23, 9, 5).toISOString(), now)).not.toContain('today')
  })
})
