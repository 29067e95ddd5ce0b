// @vitest-environment node
import { describe, expect, it } from 'vitest'
import type { JobChanges, JobState } from '@/shared/api/client'
import { isChanges, sharing, withChanges } from './changes'

describe('what changed', () => {
  const before = {
    newest: 'a',
    done: 1,
    quiet_since: '2026-01-01T00:00:00Z',
    valves: [{ name: 'E1', stage: 'nut_loose', judgement: {} }, { name: 'I1' }],
  } as unknown as JobState

  it('is put together with what was known: what is gone goes, and what is not named stays', () => {
    const answer = {
      partial: true,
      newest: 'b',
      gone: ['quiet_since'],
      valves: [{ name: 'E1', stage: '', gone: ['judgement'] }],
    } as unknown as JobChanges
    expect(isChanges(answer)).toBe(true)
    const after = withChanges(before, answer)
    expect(after).toEqual({ newest: 'b', done: 1, valves: [{ name: 'E1', stage: '' }, { name: 'I1' }] })
    expect(after.valves[1], 'a valve that did not change is the same one').toBe(before.valves[1])
    expect(before.quiet_since, 'what was known is left as it was').toBeTruthy()
  })

  it('is told from a whole answer', () => expect(isChanges(before)).toBe(false))

  it('is new alone in a whole state too', () => {
    const after = {
      ...structuredClone(before),
      done: 2,
      valves: [{ name: 'E1', stage: '' }, { name: 'I1' }],
    } as JobState
    const shared = sharing(before, after)
    expect(shared).toEqual(after)
    expect(shared.valves[1]).toBe(before.valves[1])
    expect(shared.valves[0]).not.toBe(before.valves[0])
    expect(Object.keys(shared)).not.toContain('phase')
  })
})
