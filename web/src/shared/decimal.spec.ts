// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { decimal, slip } from './decimal'

describe('a figure as people type it', () => {
  it('takes comma and point alike, and a sign', () => {
    for (const [text, want] of [
      ['3.5', 3.5],
      ['3,5', 3.5],
      [' 0.099 ', 0.099],
      ['-0.5', -0.5],
      ['−7', -7],
      ['.5', 0.5],
      ['12.', 12],
      ['0', 0],
    ] as const)
      expect(decimal(text), text).toBe(want)
  })
  it('takes nothing else, and says what is wrong', () => {
    for (const text of ['', '0.O99', 'abc', '1e-7', '1,2,3', '12 thou', '-', '.', '0x10', '½'])
      expect(decimal(text), text).toBeNull()
    expect(slip('0.O99')).toContain('0.O99')
    expect(slip('', true)).toBe('')
    expect(slip('')).toContain('Type')
  })
})
