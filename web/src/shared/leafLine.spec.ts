// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { readLeafLine, usualSets } from './leafLine'

describe('a set of leaves in one line', () => {
  it('is read with what stands between', () => {
    expect(readLeafLine('0.05 0.10 0.15 … 0.30')).toEqual({
      marks: ['0.05', '0.10', '0.15', '0.20', '0.25', '0.30'],
      thou: false,
      trouble: '',
    })
    expect(readLeafLine('0,05 0,10, 0,25; 0.3 mm').marks).toEqual(['0.05', '0.10', '0.25', '0.30'])
    expect(readLeafLine('.002 .003 ... .006 in')).toMatchObject({
      marks: ['0.002', '0.003', '0.004', '0.005', '0.006'],
      thou: true,
    })
    expect(usualSets.map((s) => readLeafLine(s.line).marks.length)).toEqual([20, 13, 24])
  })

  it('says which word is a slip', () => {
    for (const [line, says] of [
      ['0.05 0.1O', '“0.1O” is no leaf.'],
      ['0.05 … 0.50', 'wants two leaves before it'],
      ['0.05 0.10 …', 'wants a leaf after it'],
      ['0.05 0.10 … 0.52', 'one does not come to 0.52'],
      ['0.10 0.05 … 0.50', 'one does not come to'],
      ['0.001 0.002 … 9', 'at most 100'],
      ['0.05 0.10 0.05', '0.05 is named twice'],
      ['-0.05', 'is no leaf'],
    ] as const) {
      const got = readLeafLine(line)
      expect(got.trouble).toContain(says)
      expect(got.marks).toEqual([])
    }
  })
})
