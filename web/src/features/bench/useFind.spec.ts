import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { JobView } from '@/shared/api/client'
import { useFind } from './useFind'

const asked: unknown[] = []
const found = {
  positions: [],
  settable: ['E4'],
  tell_apart: [],
  conflict: '',
  one_turn_out: '',
  known: true,
  crank_deg: 360,
  stop: 2,
  turn: false,
  turn_deg: 0,
}

beforeEach(() => {
  asked.length = 0
  vi.stubGlobal('fetch', async (request: Request) => {
    asked.push(JSON.parse(await request.clone().text()).seen)
    return new Response(JSON.stringify(found), { headers: { 'Content-Type': 'application/json' } })
  })
})
afterEach(() => vi.unstubAllGlobals())

const what = (f: ReturnType<typeof useFind>) =>
  f.seen.value.map((s) => `${s.what} ${s.valve || s.cylinder || s.mark_deg}`)

describe('what is seen on the engine', () => {
  it('goes on with each tap on the same thing, and after the last one to nothing', async () => {
    const f = useFind('j')
    f.begin()
    for (const want of ['loose E1', 'pressed E1', 'full_lift E1', undefined]) {
      f.tapValve('E1')
      expect(what(f)[0]).toBe(want)
    }
    f.tapCylinder(4)
    expect(what(f)).toEqual(['rocking 4'])
    f.tapCylinder(4)
    expect(what(f)).toEqual(['tdc_firing 4'])
    await flushPromises()
    expect(asked).toHaveLength(7)
  })
  it('has one mark at the pointer at a time', () => {
    const f = useFind('j')
    f.begin()
    f.tapMark(0)
    f.tapMark(180)
    expect(what(f)).toEqual(['mark 180'])
    f.tapMark(180)
    expect(what(f)).toEqual([])
  })
  it('raises what may be set once the place is known, and says what is seen of each valve', async () => {
    const f = useFind('j')
    f.begin()
    f.tapValve('E1')
    await flushPromises()
    const view = { state: { valves: [{ name: 'E1' }, { name: 'E4' }] } } as unknown as JobView
    expect(f.shown(view)['E1']).toMatchObject({ figure: 'play', chosen: true, settable: false })
    expect(f.shown(view)['E4']).toMatchObject({ figure: '', here: true, settable: true })
    f.end()
    expect(f.on.value).toBe(false)
    expect(f.found.value).toBeNull()
  })
})
