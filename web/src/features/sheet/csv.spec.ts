// @vitest-environment node
import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { describe, expect, it } from 'vitest'
import { read, utils } from 'xlsx'

// The file of a job as the report writes it, kept beside its own test.
const file = resolve(import.meta.dirname, '../../../../internal/report/testdata/job.csv')

describe('a job’s file in a spreadsheet', () => {
  const book = read(readFileSync(file), { type: 'buffer', cellFormula: true })
  const sheet = book.Sheets[book.SheetNames[0]!]!

  it('holds no formula, whatever people typed', () => {
    const cells = Object.entries(sheet).filter(([at]) => !at.startsWith('!'))
    expect(cells.length).toBeGreaterThan(150)
    expect(cells.filter(([, cell]) => cell.f !== undefined || cell.t === 'e')).toEqual([])
    const formula = read('a,b\n=1+1,2', { type: 'string' })
    expect(formula.Sheets[formula.SheetNames[0]!]!['A2'].f, 'the library would have found one').toBe('1+1')
  })

  it('holds figures as figures, a line a valve', () => {
    const rows = utils.sheet_to_json<Record<string, unknown>>(sheet)
    expect(rows.map((r) => r.valve)).toEqual(['E1', 'I1', 'I2', 'E2', 'E3', 'I3', 'I4', 'E4'])
    expect(rows[3]).toMatchObject({
      plate: "'=LM 407",
      lower_mm: 0.28,
      upper_mm: 0.32,
      found_mm: 0.26,
      left_mm: 0.3,
      times_set: 1,
    })
  })
})
