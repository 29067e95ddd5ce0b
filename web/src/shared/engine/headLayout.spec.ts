// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { engine } from './engine.fixture'
import { isWide, layOut, layOutFrom, liftAt } from './headLayout'

describe('the head as seen leaning over it, front on the left', () => {
  it('runs front to rear from left to right', () => {
    const { valves } = layOut(engine([{ side: 'left', valves: ['E1', 'I1', 'I2', 'E2'] }], 'left'))
    const xs = valves.map((v) => v.x)
    expect(xs).toEqual([...xs].sort((a, b) => a - b))
    expect(new Set(valves.map((v) => v.y)).size).toBe(1)
  })
  // Facing the front of the engine, which lies on the left of the page, its left side is at the bottom.
  it('puts the left of the engine at the bottom', () => {
    const { valves, banks } = layOut(
      engine(
        [
          { side: 'left', valves: ['I1', 'I2'] },
          { side: 'right', valves: ['E1', 'E2'] },
        ],
        'left',
      ),
    )
    const y = (name: string) => valves.find((v) => v.name === name)!.y
    expect(y('I1')).toBeGreaterThan(y('E1'))
    expect(banks[0]!.bottom).toBe('Intake side')
    expect(valves.find((v) => v.name === 'I1')!.port).toBe(1)
    expect(valves.find((v) => v.name === 'E1')!.port).toBe(-1)
  })
  // Seen from the front, a bank leaning clockwise leans to the engine's left.
  it('puts the bank that leans clockwise below', () => {
    const { banks, height } = layOut(engine([{ side: 'left', valves: ['I1', 'E1', 'I2', 'E2'] }], '', 2))
    expect(banks.map((b) => b.name)).toEqual(['bank 1', 'bank 0'])
    expect(banks[1]!.y).toBeGreaterThan(banks[0]!.y + banks[0]!.height)
    expect(height).toBeGreaterThanOrEqual(banks[1]!.y + banks[1]!.height)
  })
})

describe('the head as seen from where the mechanic stands', () => {
  it('has short banks beside each other, until he says where he stands', () => {
    const row = [{ side: 'left' as const, valves: ['E1', 'I1', 'I2', 'E2'] }]
    expect([1, 2, 3].map((banks) => isWide(engine(row, 'left', banks)))).toEqual([false, true, true])
  })
  const two = engine(
    [
      { side: 'left', valves: ['I1', 'I2'] },
      { side: 'right', valves: ['E1', 'E2'] },
    ],
    'left',
  )
  const at = (stand: 'left' | 'right' | 'near', name: string) =>
    layOutFrom(two, stand).valves.find((v) => v.name === name)!

  // By geometry: walking round to the other side turns left into right and near into far.
  it('has the front on the right and the right of the engine near from the other side', () => {
    expect(at('right', 'I1').x).toBeGreaterThan(at('right', 'I2').x)
    expect(at('right', 'E1').y).toBeGreaterThan(at('right', 'I1').y)
    expect(at('right', 'I1').port).toBe(-1)
    expect(layOutFrom(two, 'right').banks[0]!.bottom).toBe('Exhaust side')
  })
  // Facing the engine over its front, cylinder 1 is near and the engine's left lies to the right.
  it('has cylinder 1 near and the left of the engine on the right from the front', () => {
    expect(at('near', 'I1').y).toBeGreaterThan(at('near', 'I2').y)
    expect(at('near', 'I1').x).toBeGreaterThan(at('near', 'E1').x)
    const { width, height } = layOutFrom(two, 'left')
    expect(layOutFrom(two, 'near')).toMatchObject({ width: height, height: width })
  })
  it('keeps every valve, and tells the same of each', () => {
    for (const stand of ['left', 'right', 'near'] as const)
      expect(
        layOutFrom(two, stand)
          .valves.map((v) => `${v.name} ${v.kind} ${v.cylinder}`)
          .sort(),
      ).toEqual(['E1 exhaust 1', 'E2 exhaust 2', 'I1 intake 1', 'I2 intake 2'])
  })
})

describe('a lift curve', () => {
  it('is read between its points and wraps', () => {
    expect(liftAt([0, 1, 0], 360)).toBe(1)
    expect(liftAt([0, 1, 0], 180)).toBeCloseTo(0.5)
    expect(liftAt([0, 1, 0], 720 + 540)).toBeCloseTo(0.5)
    expect(liftAt([0, 1, 0], -180)).toBeCloseTo(0.5)
  })
})
