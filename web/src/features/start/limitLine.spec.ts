// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { readLimit } from './limitLine'

// How clearances are printed and said (common practice).
describe('a clearance in one field', () => {
  it.each([
    ['0.25', 'mm', { nominal_mm: 0.25 }, '0.25 mm'],
    ['0,25', 'mm', { nominal_mm: 0.25 }, '0,25 mm'],
    ['0.20–0.30', 'mm', { lower_mm: 0.2, upper_mm: 0.3 }, '0.20–0.30 mm'],
    ['0.20 - 0.30', 'mm', { lower_mm: 0.2, upper_mm: 0.3 }, '0.20–0.30 mm'],
    ['0.20 to 0.30', 'mm', { lower_mm: 0.2, upper_mm: 0.3 }, '0.20–0.30 mm'],
    ['0.25 ± 0.05', 'mm', { nominal_mm: 0.25, tolerance_mm: 0.05 }, '0.25 ± 0.05 mm'],
    ['0.25 +/- 0.05', 'mm', { nominal_mm: 0.25, tolerance_mm: 0.05 }, '0.25 ± 0.05 mm'],
    ['8–10', 'thou', { lower_in: 0.008, upper_in: 0.01 }, '8–10 thou'],
    ['.012', 'in', { nominal_in: 0.012 }, '.012 in'],
    ['12 thou', 'mm', { nominal_in: 0.012 }, '12 thou'],
    ['0.012"', '', { nominal_in: 0.012 }, '0.012 in'],
    ['0.30 mm', 'in', { nominal_mm: 0.3 }, '0.30 mm'],
  ] as const)('%s in %s', (text, unit, stated, says) => {
    expect(readLimit(text, unit)).toEqual({ stated, says, trouble: '' })
  })
  it.each([
    ['', 'mm', ''],
    ['0.25', '', 'Say which unit the figures are in.'],
    ['0.3O', 'mm', '“0.3O” is no clearance: give 0.25, or 0.20–0.30, or 0.25 ± 0.05.'],
    ['0.30–0.20', 'mm', '0.20 is not above 0.30: the smaller limit comes first.'],
    ['0', 'mm', '“0” is no clearance: give 0.25, or 0.20–0.30, or 0.25 ± 0.05.'],
    ['-0.2', 'mm', '“-0.2” is no clearance: give 0.25, or 0.20–0.30, or 0.25 ± 0.05.'],
  ] as const)('%s in %s is not taken', (text, unit, trouble) => {
    expect(readLimit(text, unit)).toEqual({ stated: {}, says: '', trouble })
  })
})
