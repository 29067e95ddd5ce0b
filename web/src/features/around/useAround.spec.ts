import { expect, it } from 'vitest'
import { standing, together, type Task } from './useAround'

const steps = (...marked: boolean[]) => marked.map((m) => ({ marked: m }) as Task)

it('says that a part is done only where every step of it is ticked', () => {
  expect(standing(steps(true, true), false)).toBe('all done.')
  expect(standing(steps(true, true), true)).toBe('all done.')
  expect(standing(steps(true, false), false)).toBe('1 to do.')
  expect(standing(steps(true, false), true)).toBe('1 of 2 ticked when it was signed.')
  expect(standing(steps(false, false), true)).toBe('not gone through by steps.')
  expect(standing([], true)).toBe('no steps on this engine.')
})

it('takes the waiting steps of a group together, until it is opened', () => {
  const step = (id: string, group: string, ...w: string[]) => ({ id, group, with: w }) as Task
  const list = [step('safe', ''), step('clean', 'off', 'clean', 'b'), step('a', 'off'), step('b', 'off', 'clean', 'b')]
  const of = (n: number, ...opened: string[]) => together(list, list[n]!, opened).map((t) => t.id)
  expect(of(0)).toEqual(['safe'])
  expect(of(1)).toEqual(['clean', 'b'])
  expect(of(1, 'off')).toEqual(['clean'])
})
