import { describe, expect, it } from 'vitest'
import { comesIn, slides } from './drag'
import { yields } from './weight'

const four = [0, 180, 540, 360]

describe('the crank in the hand', () => {
  it('is heavy before each firing top dead centre and free after it', () => {
    expect(yields(four, 10)).toBe(1)
    expect(yields(four, 60)).toBeCloseTo(1, 5)
    expect(yields(four, 120)).toBeLessThan(0.85)
    expect(yields(four, 175)).toBeLessThan(0.32)
    for (const tdc of [0, 180, 360, 540]) {
      expect(yields(four, tdc + 5)).toBe(1)
      expect(yields(four, tdc + 170)).toBeLessThan(yields(four, tdc + 100))
    }
    expect(yields(four, -10)).toBeCloseTo(yields(four, 170), 9)
    const oddTwin = [0, 270]
    expect(yields(oddTwin, 265)).toBeLessThan(0.32)
    expect(yields(oddTwin, 355)).toBe(1)
    expect(yields(oddTwin, 715)).toBeLessThan(0.32)
  })
})

describe('a leaf in the hand', () => {
  it('falls through, drags the slower the harder, or stops at the edge', () => {
    expect(comesIn(0, 0.5)).toBe(1)
    expect(comesIn(1, 1)).toBeLessThan(0.2)
    expect(comesIn(0.5, 1)).toBeGreaterThan(0.9)
    expect(comesIn(0.3, 0.5)).toBeGreaterThan(comesIn(0.9, 0.5))
    for (const pull of [0, 0.2, 0.5, 0.8, 1])
      for (let t = 0; t <= 1; t += 0.01) {
        expect(comesIn(pull, t)).toBeGreaterThanOrEqual(0)
        expect(comesIn(pull, t)).toBeLessThanOrEqual(1)
      }
    expect(slides(0)).toBeLessThan(slides(0.4))
    expect(slides(0.4)).toBeLessThan(slides(0.9))
  })
})
