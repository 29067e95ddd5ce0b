import { describe, expect, it } from 'vitest'
import { actSays } from './acts'
import { comesIn, slides } from './drag'
import { claimsShown } from './paper'
import { heldShown, trulyShown } from './scored'
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

describe('a run on paper', () => {
  it('shows what is held of each valve and nothing of where it may be set', () => {
    const view = {
      state: {
        valves: [
          { name: 'E1', settable: false },
          { name: 'I1', settable: true },
        ],
      },
    }
    const shown = claimsShown(view as never, [{ valve: 'E1', is: 'tight' }], 'I1')
    expect(shown).toMatchObject({ E1: { verdict: 'tight', chosen: false }, I1: { verdict: null, chosen: true } })
    for (const v of Object.values(shown)) expect(v).toMatchObject({ settable: true, untold: true })
  })

  it('is said act by act, by hand or at the bench', () => {
    const act = (more: object) =>
      actSays({ after_s: 0, crank_deg: 0, valve: '', gap_mm: 0, clear: true, faults: [], ...more })
    const hand = (h: object, more: object = {}) => act({ hand: { id: 'x', ...h }, ...more })
    expect(hand({ turn_deg: -30 })).toBe('crank turned back by 30°')
    expect(hand({ turn_deg: 90 }, { kicked_deg: 14.2 })).toBe('crank turned on by 90°, thrown back by 14.2°')
    expect(hand({ slide: { valve: 'E1', leaves_mm: [0.2] } }, { felt: { pull: 0.2, went: 'It drags lightly' } })).toBe(
      'E1: 0.20. It drags lightly',
    )
    expect(
      hand({ slide: { valve: 'E1', leaves_mm: [0.2, 0.04] } }, { felt: { pull: 1, went: 'It does not go in' } }),
    ).toBe('E1: 0.20 + 0.04. It does not go in')
    expect(hand({ screw: { valve: 'E1', by_deg: -15 } })).toBe('E1: screw 15° anticlockwise')
    expect(hand({ claim: { valve: 'E1', is: 'loose', left: 'seized' } })).toBe('E1: held to be too loose, left: seized')
    expect(hand({ take_off: true })).toBe('tool taken off the crank')
    expect(act({ said: { kind: 'kept', valve: 'E1' } })).toBe('E1: kept')
  })
})

describe('a score', () => {
  it('draws the valves as they are and as they were held to be', () => {
    const valve = { kind: 'exhaust', lower_mm: 0.2, upper_mm: 0.26, disturbed: true } as const
    const valves = [
      { ...valve, valve: 'E1', found_mm: 0.3123, left_mm: 0.2311, believed_mm: 0.235, verdict: 'in', truly: 'in' },
      {
        ...valve,
        valve: 'E2',
        found_mm: 0.3,
        left_mm: 0.3,
        believed_mm: null,
        verdict: '',
        truly: 'loose',
        disturbed: false,
      },
    ] as const
    expect(trulyShown([...valves])).toMatchObject({
      E1: { figure: '0.23', was: '0.31', verdict: 'in' },
      E2: { figure: '0.30', was: undefined, verdict: 'loose' },
    })
    expect(heldShown([...valves])).toMatchObject({
      E1: { figure: '0.23', verdict: 'in' },
      E2: { figure: '', verdict: null },
    })
  })
})
