// @vitest-environment node
import { describe, expect, it } from 'vitest'
import type { Found, PlanView } from '@/shared/api/client'
import { leftSaid, nextSaid, placeSaid } from './findWords'

const found = (more: Partial<Found>): Found =>
  ({ known: false, stop: -1, turn: false, positions: [], conflict: '', tell_apart: [], ...more }) as Found
const plan = { stops: [{ valves: ['E1', 'I2'] }] } as unknown as PlanView

describe('where the crank is said to stand', () => {
  it('asks, counts the places, and names the one that is left', () => {
    expect(placeSaid(null, 0).join('')).toBe('What do you see?')
    const two = [
      { from_deg: 700, to_deg: 20 },
      { from_deg: 340, to_deg: 380 },
    ]
    expect(placeSaid(found({ positions: two }), 1).join('')).toBe('It may stand in 2 places.')
    expect(placeSaid(found({ positions: two }), 0).join(''), 'before anything was said').toBe('What do you see?')
    expect(placeSaid(found({ known: true, crank_deg: 540 }), 2).join('')).toBe('The crank stands at 540°.')
    expect(placeSaid(found({ conflict: 'Both cannot rock.' }), 2).join('')).toBe('That cannot all be.')
    // 700 to 20 is 40 degrees over the end of the cycle of 720, and 340 to 380 are 40 more.
    expect(leftSaid(found({ positions: two }))).toBe('That leaves 80° of the cycle: say one thing more.')
  })
  it('says what to do from there', () => {
    expect(nextSaid(found({ known: true, stop: 0 }), plan)).toBe('That is stop 1: E1 and I2 may be read.')
    const instruction = { how: 'Turn a further 90°', until: 'cylinder 4 rocks' }
    expect(nextSaid(found({ known: true, stop: 0, turn: true, instruction }), plan)).toBe(
      'Nearest stop. Turn a further 90° until cylinder 4 rocks.',
    )
    expect(nextSaid(found({ known: true }), plan)).toBe('')
    expect(nextSaid(found({ stop: 0 }), plan)).toBe('')
    expect(nextSaid(null, undefined)).toBe('')
  })
})
