import 'fake-indexeddb/auto'
import { flushPromises } from '@vue/test-utils'
import { openDB } from 'idb'
import { effectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { ValveState } from '@/shared/api/client'
import { people, type Session } from '@/shared/session'
import { useQueue } from '@/shared/useQueue'
import { useJob, type Doing } from './useJob'

const calls: { method: string; body: Record<string, unknown> | null }[] = []
let answer: (method: string) => Response | Promise<Response>

const json = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), {
    status,
    headers: { 'Content-Type': status < 300 ? 'application/json' : 'application/problem+json' },
  })

beforeEach(async () => {
  calls.length = 0
  const q = useQueue()
  await q.leaveOut([...q.waiting.value])
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval'] })
  vi.stubGlobal('fetch', async (request: Request) => {
    const text = request.method === 'GET' ? '' : await request.clone().text()
    calls.push({ method: request.method, body: text ? JSON.parse(text) : null })
    return answer(request.method)
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

type Entry = { body: { id: string }; refused?: string; type?: string }
const database = () => openDB('metronix')
const kept = async (): Promise<Entry[]> => (await database()).getAll('waits')

async function opened() {
  answer = () => json({ state: { undo: 'last', happenings: 1 } })
  const job = effectScope().run(() => useJob('j'))!
  await job.load()
  calls.length = 0
  return job
}

describe('telling the program what was done', () => {
  it('takes the state that comes back and keeps nothing', async () => {
    const job = await opened()
    answer = () => json({ happenings: 2, undo: 'x' })
    await job.send({ kind: 'kept', valve: 'E1' })
    expect(job.state.value?.happenings).toBe(2)
    expect(await kept()).toEqual([])
  })

  it('puts an answer that says only what changed together with what it knew just before', async () => {
    const valves = [{ name: 'E1' }, { name: 'I1' }]
    answer = () => json({ state: { newest: 'before', plan: { stops: [] }, valves } })
    const job = effectScope().run(() => useJob('j'))!
    await job.load()
    answer = () => json({ newest: 'after', partial: true, valves: [{ name: 'E1', round: [1] }] })
    await job.send({ kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag' })
    expect(job.state.value).toMatchObject({
      newest: 'after',
      plan: { stops: [] },
      valves: [{ name: 'E1', round: [1] }, { name: 'I1' }],
    })
  })

  it('takes a valve in hand again with what was felt of it, once, however it was kept', async () => {
    const reading = { leaves_mm: [0.3], angled: [false], name: '0.30', feel: 'drag' }
    const valve = { name: 'E1', last: { readings: [reading] } } as unknown as ValveState
    for (const [undo_kind, again] of [
      ['reading', ['undone', 'reading']],
      ['kept', ['undone']],
    ] as const) {
      answer = () => json({ state: { undo: 'last', undo_valve: 'E1', undo_kind, valves: [] } })
      const job = effectScope().run(() => useJob('j'))!
      await job.load()
      calls.length = 0
      answer = () => json({ undo: 'x', valves: [] })
      await job.reopen(valve)
      const sent = calls.flatMap((c) => (c.body ? [c.body] : []))
      expect(sent.map((b) => b.kind)).toEqual(again)
      expect(sent.some((b) => b.keep_sure)).toBe(false)
    }
  })

  it('asks anew where it knows something else than the answer builds upon', async () => {
    answer = () => json({ state: { newest: 'before', valves: [] } })
    const job = effectScope().run(() => useJob('j'))!
    await job.load()
    answer = (method) =>
      method === 'GET'
        ? json({ state: { newest: 'whole', valves: [] } })
        : json({ newest: 'after', partial: true, valves: [] })
    await job.send({ kind: 'picked', valve: 'E1', seen: 'older' })
    expect(job.state.value?.newest).toBe('whole')
  })

  it('keeps it in the browser while the program cannot be reached, and sends the same id again', async () => {
    const job = await opened()
    answer = () => Promise.reject(new TypeError('gone'))
    await job.send({ kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag' })
    expect(job.offline.value).toBe(true)
    expect(await kept()).toHaveLength(1)
    const id = (await kept())[0]!.body.id
    answer = () => json({ happenings: 2, undo: id })
    await vi.advanceTimersByTimeAsync(2500)
    await vi.waitFor(() => expect(job.offline.value).toBe(false))
    expect(await kept()).toEqual([])
    expect(calls.map((c) => c.body?.id)).toEqual([id, id])
  })

  it('says when the browser keeps nothing, and sends it all the same', async () => {
    const job = await opened()
    const put = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    answer = () => Promise.reject(new TypeError('gone'))
    await job.send({ kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag' })
    expect(job.line.unkept).toBe(true)
    expect(job.waiting.value).toHaveLength(1)
    answer = () => json({ happenings: 2, undo: 'x' })
    await vi.advanceTimersByTimeAsync(2500)
    await vi.waitFor(() => expect(job.waiting.value).toHaveLength(0))
    expect(job.line.unkept).toBe(false)
    put.mockRestore()
    await vi.waitFor(() => expect(job.busy.value).toBe(false))
  })

  it('sends what an earlier page left waiting before it reads the job', async () => {
    localStorage.setItem('metronix.waiting.j', JSON.stringify([{ id: 'left-over', kind: 'kept', valve: 'E1' }]))
    await opened()
    expect(await kept()).toEqual([])
  })

  it('tells a refusal, drops it and reads the job again', async () => {
    const job = await opened()
    answer = (method) =>
      method === 'POST'
        ? json({ status: 409, detail: 'E4 is open here.', errors: [] }, 409)
        : json({ state: { happenings: 7 } })
    await job.send({ kind: 'picked', valve: 'E4' })
    expect(job.refusal.value).toBe('E4 is open here.')
    expect(job.state.value?.happenings).toBe(7)
    expect(await kept()).toEqual([])
  })

  it('holds what waits behind a refused one until the mechanic decides', async () => {
    localStorage.setItem(
      'metronix.waiting.j',
      JSON.stringify([
        { id: 'refused-1', kind: 'reading', valve: 'E4', seen: 'old' },
        { id: 'behind-02', kind: 'reading', valve: 'E1', seen: 'old' },
        { id: 'behind-03', kind: 'kept', valve: 'E1', seen: 'old' },
      ]),
    )
    const list = ['theirs'].map((id) => ({ happening: { id, kind: 'kept', valve: 'E4' } }))
    answer = (method) =>
      method === 'POST'
        ? json({ status: 409, detail: 'E4 is open here.', errors: [] }, 409)
        : json({ state: { happenings: 3, undo: '' }, after: 'old', happenings: list })
    const job = effectScope().run(() => useJob('j'))!
    await job.load()
    const sent = () => calls.filter((c) => c.method === 'POST').map((c) => c.body?.id)
    expect(sent()).toEqual(['refused-1'])
    expect(job.refused.value.map((w) => w.body.id)).toEqual(['refused-1', 'behind-02', 'behind-03'])
    expect(job.waiting.value).toEqual([])
    await vi.waitFor(() => expect(job.line.theirs.map((h) => h.id)).toEqual(['theirs']))
    await job.send({ kind: 'kept', valve: 'E4' })
    expect(job.refusal.value).toContain('First say')
    expect(await kept()).toHaveLength(3)
    answer = () => json({ state: {}, happenings: 4, undo: '' })
    await job.forget(job.refused.value.slice(0, 1))
    expect(sent()).toEqual(['refused-1', 'behind-02', 'behind-03'])
    expect(await kept()).toEqual([])
  })

  it('gives what was done before it was known who is signed in its author', async () => {
    const { session } = people
    session.value = null
    const job = await opened()
    answer = () => Promise.reject(new TypeError('gone'))
    await job.send({ kind: 'kept', valve: 'E1' })
    expect((await kept())[0]!.body).not.toHaveProperty('author', 'Tess Ardal')
    people.take({ open: false, person: { id: 'tess', name: 'Tess Ardal' }, may: [] } as unknown as Session)
    await vi.waitFor(async () => expect((await kept())[0]!.body).toHaveProperty('author', 'Tess Ardal'))
    people.take({ open: true, may: [] } as unknown as Session)
  })

  it('leaves out what another did only where it could be noted who leaves it out', async () => {
    people.take({ open: false, person: { id: 'tess', name: 'Tess Ardal' }, may: [] } as unknown as Session)
    const job = await opened()
    const moved = { status: 409, type: 'urn:metronix:crank_moved', detail: 'The crank was moved.', errors: [] }
    answer = (method) => (method === 'POST' ? json(moved, 409) : json({ state: {} }))
    await job.send({ kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag' })
    expect(job.refused.value).toHaveLength(1)
    people.take({ open: false, person: { id: 'june', name: 'June Abara' }, may: [] } as unknown as Session)
    answer = () => Promise.reject(new TypeError('gone'))
    await job.forget(job.refused.value)
    expect(job.refusal.value).toContain('It stays')
    expect(await kept()).toHaveLength(1)
    calls.length = 0
    answer = (method) => (method === 'POST' ? new Response(null, { status: 204 }) : json({ state: {} }))
    await job.forget(job.refused.value)
    expect(calls[0]).toMatchObject({
      method: 'POST',
      body: { entries: [{ kind: 'reading', valve: 'E1', author: 'Tess Ardal' }] },
    })
    expect(await kept()).toEqual([])
    people.take({ open: true, may: [] } as unknown as Session)
  })

  it('says that nobody knows where the crank stands where a turn of it is left out, before what was done after it', async () => {
    const job = await opened()
    answer = () => Promise.reject(new TypeError('gone'))
    await job.send({ kind: 'turned', stop: 1 })
    await job.send({ kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag' })
    answer = (method) =>
      method === 'POST'
        ? json({ status: 409, type: 'urn:metronix:crank_moved', detail: 'The crank was moved.', errors: [] }, 409)
        : json({ state: { happenings: 7 } })
    await job.load()
    expect(job.refused.value.map((w) => w.body.kind)).toEqual(['turned', 'reading'])
    calls.length = 0
    answer = () => json({ happenings: 8, undo: 'x' })
    await job.forget(job.refused.value.slice(0, 1))
    expect(calls.filter((c) => c.method === 'POST').map((c) => c.body?.kind)).toEqual(['doubted', 'reading'])
    expect(await kept()).toEqual([])
  })

  it('takes a second press of the same step for one, but lets readings and notes queue up', async () => {
    const job = await opened()
    let release = () => {}
    const held = new Promise<void>((r) => (release = r))
    answer = async () => (await held, json({ happenings: 2, undo: 'x' }))
    const first = job.send({ kind: 'kept', valve: 'E1' })
    await job.send({ kind: 'kept', valve: 'E1' })
    await job.send({ kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag' })
    await job.send({ kind: 'sound', note: 'ticks' }) // leaving a field by tapping the next button sends both at once
    await job.send({ kind: 'taken_in' })
    await job.send({ kind: 'task', task: 'safe', skip: true, reason: 'not here' })
    await job.send({ kind: 'task', task: 'safe' }) // the same step pressed again takes nothing of it back
    expect(await kept()).toHaveLength(5)
    release()
    await first
    expect(calls.filter((c) => c.method === 'POST').map((c) => c.body?.kind)).toEqual([
      'kept',
      'reading',
      'sound',
      'taken_in',
      'task',
    ])
  })

  it('takes a valve that is tapped while the step before is on its way, after it', async () => {
    const job = await opened()
    let let1: (r: Response) => void = () => {}
    answer = () => new Promise((resolve) => (let1 = resolve))
    const first = job.send({ kind: 'way_chosen', school: 'two_stop' })
    await vi.waitFor(() => expect(calls).toHaveLength(1))
    await job.send({ kind: 'picked', valve: 'E3' })
    answer = () => json({ happenings: 3, undo: 'x' })
    let1(json({ happenings: 2, undo: 'x' }))
    await first
    await vi.waitFor(() => expect(calls.map((c) => c.body?.kind)).toEqual(['way_chosen', 'picked']))
    expect(await kept()).toEqual([])
  })

  it.each([
    ['crank_moved', 'reading', { made_there: true }],
    ['so_soon', 'set_told', { asked: true }],
  ] as const)('keeps what was refused as %s, with its reason, until the mechanic answers', async (type, kind, said) => {
    const job = await opened()
    answer = (method) =>
      method === 'POST'
        ? json({ status: 409, type: `urn:metronix:${type}`, detail: 'Not so.', errors: [] }, 409)
        : json({ state: { happenings: 7 } })
    await job.send({ kind, valve: 'E1', leaves_mm: [0.3], feel: 'drag' } as Doing)
    expect(job.refused.value).toHaveLength(1)
    expect((await kept())[0]).toMatchObject({ refused: 'Not so.' })
    expect(job.waiting.value).toHaveLength(0)
    answer = () => json({ happenings: 8, undo: 'x' })
    await job.answer(job.refused.value[0]!)
    expect(calls.at(-1)!.body).toMatchObject({ ...said, valve: 'E1' })
    expect(await kept()).toEqual([])
  })

  it('drops nothing that a wrong server does not know', async () => {
    const job = await opened()
    for (const status of [403, 404, 408, 413, 421, 500, 503]) {
      answer = () => json({ status, detail: 'not here', errors: [] }, status)
      await job.send({ kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag' })
      expect(job.offline.value, String(status)).toBe(true)
    }
    expect(await kept()).toHaveLength(7)
  })

  it('says what its screen knew', async () => {
    answer = () => json({ state: { undo: 'last', happenings: 1, newest: 'newest-one' } })
    const job = effectScope().run(() => useJob('j'))!
    await job.load()
    await job.send({ kind: 'turned', stop: 1 })
    expect(calls.at(-1)!.body).toMatchObject({ kind: 'turned', seen: 'newest-one' })
  })

  it('takes back the last step by its id', async () => {
    const job = await opened()
    answer = () => json({ happenings: 2, undo: '' })
    await job.undo()
    expect(calls[0]!.body).toMatchObject({ kind: 'undone', target: 'last' })
  })
  it('is not set back by an answer that was asked for before something was done', async () => {
    const job = await opened()
    let release = () => {}
    const held = new Promise<void>((r) => (release = r))
    answer = async (method) =>
      method === 'GET'
        ? (await held, json({ state: { happenings: 1, undo: 'last' } }))
        : json({ happenings: 2, undo: 'x' })
    const reading = job.load()
    await flushPromises()
    await job.send({ kind: 'kept', valve: 'E1' })
    release()
    await reading
    expect(job.state.value?.happenings).toBe(2)
  })
})
