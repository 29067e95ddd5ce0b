// @vitest-environment node
import { describe, expect, it } from 'vitest'
import type { EngineView } from '@/shared/api/client'
import { layOut, liftAt } from './headLayout'

function engine(rows: { side: 'left' | 'right'; valves: string[] }[], ports: string, banks = 1): EngineView {
  const valves = rows.flatMap((r) => r.valves)
  return {
    name: 'test',
    layout: 'inline',
    rotation: 'clockwise',
    firing_order: [1, 2],
    signs: [],
    marks_deg: [0],
    turning_point: '',
    locknut_torque_nm: 0,
    locknut_torque_lbft: 0,
    has_lock_nut: true,
    may_turn_back: false,
    adjuster: '',
    socket_mm: 0,
    banks: Array.from({ length: banks }, (_, i) => ({
      name: `bank ${i}`,
      angle_deg: 45 - 90 * i,
      cylinders: [1, 2],
      intake_ports: ports,
      rows,
    })),
    valves: valves.map((name) => ({
      name,
      kind: name.startsWith('I') ? 'intake' : 'exhaust',
      cylinder: Number(name[1]),
      row_number: 0,
      lift: [0, 1, 0],
      may_set: [],
    })),
  }
}

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

describe('a lift curve', () => {
  it('is read between its points and wraps', () => {
    expect(liftAt([0, 1, 0], 360)).toBe(1)
    expect(liftAt([0, 1, 0], 180)).toBeCloseTo(0.5)
    expect(liftAt([0, 1, 0], 720 + 540)).toBeCloseTo(0.5)
    expect(liftAt([0, 1, 0], -180)).toBeCloseTo(0.5)
  })
})
