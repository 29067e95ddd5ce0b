import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { useGauges } from './useGauges'

const sets = ['a', 'b'].map((id) => ({
  id,
  name: `Set ${id}`,
  checked: '',
  leaves: 1,
  items: [{ marked_mm: 0.2, thou: false, angled: false, missing: false }],
}))

const answer = (data: unknown) =>
  Promise.resolve(new Response(JSON.stringify(data), { headers: { 'Content-Type': 'application/json' } }))

describe('the gauge sets', () => {
  beforeEach(() => {
    sessionStorage.clear()
    vi.stubGlobal('fetch', (r: Request) =>
      answer(
        r.method === 'PUT'
          ? { ...sets[0], name: 'Set a' }
          : r.url.includes('compute')
            ? { stacks: [], holes: [] }
            : sets,
      ),
    )
  })

  it('keep what was typed in each set when another is looked at, until it is stored', async () => {
    const g = useGauges()
    await g.load('a')
    g.rows.value[0]!.measured = '0.201'
    await nextTick()
    g.look(sets[1] as never)
    await nextTick()
    expect(g.rows.value[0]!.measured).toBe('')
    g.look(sets[0] as never)
    expect(g.rows.value[0]!.measured).toBe('0.201')
    expect(g.said.value).toContain('still there')
    await nextTick()

    const again = useGauges() // another page of the program, and back
    await again.load('a')
    expect(again.rows.value[0]!.measured).toBe('0.201')
    await again.save()
    expect(again.rows.value[0]!.measured).toBe('')
    expect(again.dirty.value).toBe(false)
  })

  it('refuse a slip beside its leaf and send nothing', async () => {
    const sent = vi.fn()
    const g = useGauges()
    await g.load('a')
    vi.stubGlobal('fetch', sent)
    g.rows.value[0]!.measured = '0.O99'
    await g.save()
    expect(sent).not.toHaveBeenCalled()
    expect(g.faults.value[0]!.location).toBe('body.leaves[0].measured_mm')
  })
})
