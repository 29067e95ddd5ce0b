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
  f.seen.value.map((s) => `${s.what} ${s.valve || s.cylinder || (s.mark_deg ?? '')}`)

describe('what is seen on the engine', () => {
  it('says of a cylinder or a valve what is looked for, and takes it back by a second tap', async () => {
    const f = useFind('j')
    f.begin()
    f.tapCylinder(4)
    expect(what(f)).toEqual(['rocking 4'])
    f.tapValve('E1')
    expect(what(f)).toEqual(['rocking 4', 'full_lift E1']) // a valve does not rock
    f.looking.value = 'lobe_away'
    f.tapValve('E1')
    expect(what(f)).toEqual(['rocking 4', 'lobe_away E1']) // one thing is said of one valve
    f.tapValve('E1')
    f.looking.value = 'tdc_firing'
    f.tapCylinder(4)
    expect(what(f)).toEqual(['tdc_firing 4'])
    f.tapCylinder(1)
    expect(what(f)).toEqual(['tdc_firing 4', 'tdc_firing 1'])
    await flushPromises()
    expect(asked).toHaveLength(7)
  })
  it('says the signs of the engine', () => {
    const f = useFind('j')
    f.begin()
    f.tapSign('up')
    f.tapSign('dot')
    expect(f.seen.value.map((s) => s.sign)).toEqual(['up', 'dot'])
    f.tapSign('up')
    expect(f.seen.value.map((s) => s.sign)).toEqual(['dot'])
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
    expect(f.shown(view)['E1']).toMatchObject({ figure: 'down', chosen: true, settable: false })
    expect(f.shown(view)['E4']).toMatchObject({ figure: '', here: true, settable: true })
    f.end()
    expect(f.on.value).toBe(false)
    expect(f.found.value).toBeNull()
  })
})
