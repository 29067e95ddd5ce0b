import 'fake-indexeddb/auto'
import { effectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Happening } from '@/shared/api/client'
import { useQueue } from '@/shared/useQueue'
import { useWays } from './useWays'

let sent: Record<string, unknown>[] = []
let status: (kind: unknown) => number

const json = (body: unknown, code = 200) =>
  new Response(JSON.stringify(body), {
    status: code,
    headers: { 'Content-Type': code < 300 ? 'application/json' : 'application/problem+json' },
  })

const plan = {
  school: 'two_stop',
  order: 'turning',
  direction: 'running',
  positions: 'any',
  stop_count: 0,
  applies: true,
}
const other = { ...plan, school: 'one_cylinder' }

beforeEach(async () => {
  sent = []
  status = () => 200
  const q = useQueue()
  await q.leaveOut([...q.waiting.value])
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  vi.stubGlobal('fetch', async (request: Request) => {
    if (request.method === 'GET')
      return json({ plans: [plan, other], frontier: [], engine: {}, required_margin_deg: 20 })
    const body = (await request.clone().json()) as Record<string, unknown>
    const code = status(body.kind)
    if (code === 0) throw new TypeError('gone')
    if (code < 300) sent.push(body)
    return json(code < 300 ? { newest: body.id } : { status: code, detail: 'Lock it first.', errors: [] }, code)
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

async function opened() {
  const w = effectScope().run(() => useWays({ job: 'j' }))!
  await vi.advanceTimersByTimeAsync(10)
  expect(w.open.value).toHaveLength(2)
  return w
}

/** Something done on the bench that is still in this browser. */
const waits = () => useQueue().add('j', { id: 'happening-1', kind: 'kept', valve: 'E1' } as Happening)

describe('choosing a sequence side by side', () => {
  it('sends the plan looked at, whole', async () => {
    const w = await opened()
    w.step(1)
    expect(await w.take()).toBe(true)
    expect(sent).toMatchObject([{ kind: 'way_chosen', school: 'one_cylinder', order: 'turning', direction: 'running' }])
  })

  it('sends what waits first', async () => {
    const w = await opened()
    await waits()
    expect(await w.take()).toBe(true)
    expect(sent.map((b) => b.kind)).toEqual(['kept', 'way_chosen'])
  })

  it('is not queued behind what cannot be sent, and says so', async () => {
    const w = await opened()
    await waits()
    status = () => 0
    expect(await w.take()).toBe(false)
    expect(w.trouble.value).toContain('cannot be reached')
    expect(useQueue().waiting.value).toHaveLength(1)
  })

  it('says why the program refuses', async () => {
    const w = await opened()
    status = () => 409
    expect(await w.take()).toBe(false)
    expect(w.trouble.value).toBe('Lock it first.')
  })
})
