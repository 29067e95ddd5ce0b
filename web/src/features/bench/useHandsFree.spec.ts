import { describe, expect, it } from 'vitest'
import type { JobState } from '@/shared/api/client'
import { handsFree, learned, whyNot } from '@/shared/handsFree'
import { mayByFoot, spoken, toneOf } from './useHandsFree'

const state = (s: object) => s as unknown as JobState
const now = (n: object) => state({ now: { make_safe: false, confirm_kinds: false, ...n } })

describe('with full hands', () => {
  it('a learned key does what is next at a valve and at the crank, and never what hands answer for', () => {
    for (const action of ['turn', 'read', 'keep', 'adjust', 'lock']) expect(mayByFoot(now({ action }))).toBe(true)
    for (const action of ['sign', 'choose_way', 'prepare', 'go_hot', 'done'])
      expect(mayByFoot(now({ action }))).toBe(false)
    expect(mayByFoot(now({ action: 'turn', make_safe: true }))).toBe(false)
    expect(mayByFoot(now({ action: 'read', confirm_kinds: true }))).toBe(false)
  })

  it('a key is learned for one thing, and none that writes or has a meaning here', () => {
    handsFree.keys.drag = 'PageDown'
    expect(learned('PageDown')).toBe('2')
    expect(learned('PageUp')).toBe('')
    expect(whyNot('PageDown', 'free')).toContain('something else')
    expect(whyNot('PageDown', 'drag')).toBe('')
    for (const key of ['Enter', '1', 'w', ' ', 'ArrowUp', 'Tab'])
      expect(whyNot(key, 'go'), key).toContain('meaning of its own')
    delete handsFree.keys.drag
  })

  it('an instruction is spoken as it is read', () => {
    const words = { before: 'Turn a further 180° until ', strong: 'cylinder 2 rocks', after: '.', sub: 'Then read E3.' }
    expect(spoken(words)).toBe('Turn a further 180 degrees until cylinder 2 rocks. Then read E 3.')
  })

  it('one tone says in and another out, and what is not sure has none', () => {
    const felt = (verdict: string, more = {}) =>
      state({
        undo_kind: 'reading',
        undo_valve: 'E1',
        valves: [{ name: 'E1', round: [1], judgement: { verdict, ...more } }],
      })
    expect(toneOf(felt('in'))).toBe('in')
    expect(toneOf(felt('tight'))).toBe('out')
    expect(toneOf(felt('loose'))).toBe('out')
    expect(toneOf(felt('undecided'))).toBeNull()
    expect(toneOf(felt('in', { conflict: 'they disagree' }))).toBeNull()
    expect(toneOf(state({ undo_kind: 'turned', undo_valve: '', valves: [] }))).toBeNull()
  })
})
