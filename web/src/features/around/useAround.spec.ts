import { expect, it } from 'vitest'
import { standing, type Task } from './useAround'

const steps = (...marked: boolean[]) => marked.map((m) => ({ marked: m }) as Task)

it('says that a part is done only where every step of it is ticked', () => {
  expect(standing(steps(true, true), false)).toBe('all done.')
  expect(standing(steps(true, true), true)).toBe('all done.')
  expect(standing(steps(true, false), false)).toBe('1 to do.')
  expect(standing(steps(true, false), true)).toBe('1 of 2 ticked when it was signed.')
  expect(standing(steps(false, false), true)).toBe('not gone through by steps.')
  expect(standing([], true)).toBe('no steps on this engine.')
})
