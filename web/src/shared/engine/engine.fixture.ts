import type { EngineView } from '@/shared/api/client'
import type { Gear } from '../gearWords'
import gears from './gears.fixture.json'

/** An engine for tests: two cylinders with rows of valves by their names, ports to a side, in one bank or more. */
export function engine(rows: { side: 'left' | 'right'; valves: string[] }[], ports: string, banks = 1): EngineView {
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
    may_turn_back: false,
    gear: gears[0] as Gear,
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
