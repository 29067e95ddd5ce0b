import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { packed, unpacked } from './handOver'
import type { Waiting } from './useQueue'

const from = 'https://192.168.1.10:8080'
const entry = (n: number) =>
  ({
    job: 'job-1',
    at: new Date(Date.UTC(2026, 10, 30, 10, 0, n)).toISOString(),
    body: { id: `e${n}`, kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag', author: 'Tess' },
    ...(n % 3 ? {} : { moves: true }),
  }) as unknown as Waiting

describe('what is handed over from one address to another', () => {
  it('comes whole, without why it was refused there, and a day of it fits an address', async () => {
    const list = Array.from({ length: 400 }, (_, n) => entry(n))
    const text = await packed({ from, list: list.map((w) => ({ ...w, refused: 'The crank was moved.', type: 'x' })) })
    expect(text).toMatch(/^[\w-]+$/)
    expect(text.length).toBeLessThan(30_000)
    expect(await unpacked(text)).toEqual({ from, list })
  })

  it('is refused with a sentence where it was cut off, changed, or is something else', async () => {
    const text = await packed({ from, list: [entry(1), entry(2)] })
    for (const bad of ['', 'x', '%%%', text.slice(0, -9), await packed({ from, list: [] })])
      await expect(unpacked(bad)).rejects.toThrow('hand over once more')
    const nothing = { from, list: [{ job: 'j', at: 'noon', body: { id: 'a', kind: 'kept' } } as unknown as Waiting] }
    await expect(packed(nothing).then(unpacked)).rejects.toThrow('hand over once more')
    const elsewhere = await packed({ from: 'nowhere', list: [entry(1)] })
    await expect(unpacked(elsewhere)).rejects.toThrow('hand over once more')
    await fc.assert(
      fc.asyncProperty(fc.string({ maxLength: 200 }), async (s) => {
        await expect(unpacked(s)).rejects.toThrow('hand over once more')
      }),
      { numRuns: 50 },
    )
  })
})
