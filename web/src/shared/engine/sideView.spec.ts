import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { ValveView } from '@/shared/api/client'
import SideView from './SideView.vue'
import gears from './gears.fixture.json'
import { camLift, camOutline, moves, peakOf, rise, type Picture } from './sideView'

// A valve that is open from 90° to 270° of two turns, highest at 180°.
const curve = Array.from(
  { length: 145 },
  (_, i) => Math.max(0, Math.sin(((i * 5 - 90) / 180) * Math.PI)) * (i < 60 ? 1 : 0),
)
const valve: ValveView = { name: 'E1', kind: 'exhaust', cylinder: 1, row_number: 1, lift: curve, may_set: [] }
const picture = (kind: string) => gears.find((g) => g.kind === kind)!.picture as Picture
const drawn = gears.filter((g) => g.picture.train)
const side = (crank: number | null, more = {}) =>
  mount(SideView, {
    props: { valve, gear: picture('screw_valve_end'), crank, settable: true, verdict: null, leaf: '0.25', ...more },
  })

describe('the gear from the side', () => {
  it('keeps the whole gap on the base circle, and takes it up before the valve moves', () => {
    expect(drawn.length).toBeGreaterThan(8)
    for (const { kind } of drawn) {
      const gear = picture(kind)
      expect(moves(gear, 0, 14)).toEqual({ cam: 0, valve: 0, gap: 14 })
      // by geometry: the gap goes to nothing before the valve has moved, and at most lift the valve is down by its rise
      for (let open = 0; open <= 1; open += 0.05) {
        const { valve, gap } = moves(gear, open, 14)
        expect(valve === 0 || gap === 0).toBe(true)
      }
      expect(moves(gear, 1, 14).valve).toBeCloseTo(rise)
    }
  })

  it('lifts the cam less where a finger doubles it', () => {
    expect(camLift(picture('shim'), 10)).toBe(10 + rise)
    expect(camLift(picture('finger_pivot_at_cam'), 10)).toBe(10 + rise / 2)
    expect(camLift(picture('finger_pivot_at_valve'), 10)).toBe((10 + rise) / 2)
  })

  it('finds the place of most lift, over the end of the two turns too', () => {
    expect(peakOf(curve)).toBe(180)
    const atEnd = Array.from({ length: 145 }, (_, i) => (i < 3 || i > 141 ? 1 : 0))
    expect(peakOf(atEnd) % 720).toBe(0)
  })

  it('draws the base circle round, and the nose as high as the lift', () => {
    const radii = [...camOutline(curve, 30, 20).matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map((m) =>
      Math.hypot(+m[1]!, +m[2]!),
    )
    expect(radii).toHaveLength(120)
    expect(Math.max(...radii)).toBeCloseTo(50, 0)
    expect(Math.min(...radii)).toBeCloseTo(30, 0)
    // open for a quarter of its turn
    expect(radii.filter((r) => r > 30.2).length).toBeCloseTo(29, -1)
  })

  it('shows the leaf only where the valve stands on its base circle', () => {
    expect(side(500).find('.leaf').exists()).toBe(true)
    expect(side(500).attributes('aria-label')).toContain('on the base circle')
    expect(side(180).find('.leaf').exists()).toBe(false)
    expect(side(180).attributes('aria-label')).toContain('fully down')
    expect(side(500, { settable: false }).find('.leaf').exists()).toBe(false)
    expect(side(500, { leaf: '' }).find('.leaf').exists()).toBe(false)
  })

  it('says where the leaf goes in by the kind of gear, and claims no lobe where the crank is not known', () => {
    expect(side(500, { gear: picture('shim') }).attributes('aria-label')).toContain('between cam and shim')
    expect(side(500, { gear: picture('threaded_tappet') }).attributes('aria-label')).toContain('tappet and valve stem')
    expect(side(null).attributes('aria-label')).toContain('crank not known')
    expect(side(null).find('.unknown').exists()).toBe(true)
    expect(side(null).find('.leaf').exists()).toBe(false)
  })
})
