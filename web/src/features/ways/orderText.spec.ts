// @vitest-environment node
import { expect, it } from 'vitest'
import { tapCylinder, tapValve } from './orderText'

it('writes down what is tapped, and takes a valve back by another tap', () => {
  expect(tapValve('', 'E1')).toBe('')
  let text = tapCylinder('', 4)
  expect(text).toBe('4 rocks: ')
  text = tapValve(tapValve(text, 'I1'), 'E1')
  expect(text).toBe('4 rocks: I1 E1')
  text = tapValve(tapCylinder(text, 2), 'I3')
  expect(text).toBe('4 rocks: I1 E1\n2 rocks: I3')
  expect(tapValve(text, 'I3')).toBe('4 rocks: I1 E1\n2 rocks: ')
})
