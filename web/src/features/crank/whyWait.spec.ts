import { describe, expect, it } from 'vitest'
import type { JobView } from '@/shared/api/client'
import { turnsTo } from '@/features/bench/wordsNow'
import { whyWait } from './whyWait'

const at = Date.parse('2026-11-30T10:00:00Z')
const view = (now: object, clear?: object) =>
  ({
    state: { newest: 'n', now: { action: 'turn', valve: '', waits_for: '', make_safe: false, ...now } },
    clear: clear && { screen: 'bench', newest: 'n', until: '2026-11-30T10:01:00Z', ...clear },
  }) as unknown as JobView
const heard = { now: at, reached: true }

describe('a helper at the crank', () => {
  it('may turn once hands are clear, for a minute and for what was next then', () => {
    expect(whyWait(view({}, {}), heard)).toBe('')
    expect(whyWait(view({ action: 'bar_over' }, {}), heard)).toBe('')
    expect(whyWait(view({}), heard)).toContain('not clear')
    expect(whyWait(view({}, { newest: 'before' }), heard)).toContain('not clear')
    expect(whyWait(view({}, {}), { now: at + 60_000, reached: true })).toContain('not clear')
  })
  it('waits where the line is lost, another valve is in hand, or nobody has made the vehicle safe', () => {
    expect(whyWait(view({}, {}), { now: at, reached: false })).toContain('line')
    expect(whyWait(view({ action: 'read', valve: 'E1' }, {}), heard)).toBe('E1 is being worked on.')
    expect(whyWait(view({ waits_for: 'I1 is in somebody else’s hands.' }, {}), heard)).toContain('I1')
    expect(whyWait(view({ make_safe: true }, {}), heard)).toContain('made safe')
  })
  it('is shown the way the crank is turned, back too', () => {
    const way = (rotation: string, direction: string) =>
      turnsTo({ engine: { rotation }, state: { plan: { direction } } } as unknown as JobView)
    expect(way('clockwise', 'running')).toBe('clockwise')
    expect(way('clockwise', 'back')).toBe('anticlockwise')
    expect(way('anticlockwise', 'back')).toBe('clockwise')
  })
})
