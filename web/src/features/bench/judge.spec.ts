import 'fake-indexeddb/auto'
import { effectScope, ref } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Happening } from '@/shared/api/client'
import { keptJobs, type KeptJob } from '@/shared/keptJobs'
import { useQueue } from '@/shared/useQueue'
import { useJob } from './useJob'

/** What the bench's own judging says of each happening; null: nothing. */
const says = vi.fn<(h: Happening) => object | null | Promise<object>>()
const followed = vi.fn()
/** What the program had already when it was opened. */
const holds = new Set<string>()
/** The state that follows from what was kept on the tablet. */
let known: object | null = null
vi.mock('./judge', () => ({
  useJudge: () => ({
    ready: ref(true),
    begin: vi.fn(),
    follow: followed,
    take: async (h: Happening) => says(h),
    state: async () => known,
    upTo: async () => ({ happenings: [] }),
    has: (id: string) => holds.has(id),
    knows: () => 'known',
  }),
}))

let answer: (method: string) => Promise<Response>
const json = (body: unknown, status = 200) =>
  Promise.resolve(
    new Response(JSON.stringify(body), {
      status,
      headers: { 'Content-Type': status < 300 ? 'application/json' : 'application/problem+json' },
    }),
  )
const unreached = () => Promise.reject(new TypeError('no way'))

beforeEach(async () => {
  const q = useQueue()
  await q.leaveOut([...q.waiting.value])
  followed.mockClear()
  vi.stubGlobal('fetch', (request: Request) => answer(request.method))
})
afterEach(() => vi.unstubAllGlobals())

async function opened() {
  answer = () => json({ state: { newest: 'old', happenings: 1, clock: new Date().toISOString() } })
  const job = effectScope().run(() => useJob('j'))!
  await job.load()
  return job
}

describe('a tap that is judged here', () => {
  it('is shown at once, counted as waiting, and acknowledged later without a change', async () => {
    const job = await opened()
    says.mockImplementation((h) => ({ newest: h.id, happenings: 2 }))
    answer = unreached
    await job.send({ kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag' })
    await vi.waitFor(() => expect(job.state.value?.happenings).toBe(2))
    expect(job.waiting.value).toHaveLength(1)
    says.mockImplementation((h) => ({ newest: h.id, happenings: 3 }))
    await job.send({ kind: 'turned', stop: 1 }) // follows upon it
    await vi.waitFor(() => expect(job.state.value?.happenings).toBe(3))
    const shown = job.state.value!
    answer = (method) => (method === 'POST' ? json({ ...shown, clock: new Date().toISOString() }) : unreached())
    await job.load().catch(() => {})
    await vi.waitFor(() => expect(job.waiting.value).toHaveLength(0))
    expect(job.state.value).toBe(shown)
  })

  it('waits where the program alone can do it', async () => {
    const job = await opened()
    says.mockImplementation((h) => ({ newest: h.id, happenings: 2 }))
    answer = unreached
    await job.send({ kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag' })
    await job.send({ kind: 'signed', by: 'Tess', tools_out: true })
    expect(job.refusal.value).toContain('The program cannot be reached')
    expect(job.waiting.value).toHaveLength(1)
  })

  it('gives way to what the program says where that is otherwise', async () => {
    const job = await opened()
    says.mockImplementation((h) => ({ newest: h.id, happenings: 2 }))
    answer = unreached
    await job.send({ kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag' })
    await vi.waitFor(() => expect(job.state.value?.happenings).toBe(2))
    answer = (method) =>
      method === 'POST'
        ? json({ title: 'Conflict', status: 409, detail: 'E1 was kept meanwhile.' }, 409)
        : json({ state: { newest: 'theirs', happenings: 7, clock: new Date().toISOString() } })
    await job.load()
    await vi.waitFor(() => expect(job.state.value?.happenings).toBe(7))
    expect(job.refusal.value).toContain('E1 was kept meanwhile.')
    expect(followed).toHaveBeenLastCalledWith('theirs')
  })

  it('is shown as the program has it where the two do not agree', async () => {
    const job = await opened()
    says.mockImplementation((h) => ({ newest: h.id, happenings: 99 }))
    answer = async () => {
      await vi.waitFor(() => expect(job.state.value?.happenings).toBe(99))
      return json({ happenings: 2, newest: 'new', clock: new Date().toISOString() })
    }
    await job.send({ kind: 'kept', valve: 'E1' })
    expect(job.state.value?.happenings).toBe(2)
    expect(followed).toHaveBeenLastCalledWith('new')
  })

  it('goes on while the program is slow, each once, and a second press before it is judged does nothing', async () => {
    const job = await opened()
    let release = () => {}
    const slow = new Promise<void>((done) => (release = done))
    const posted: string[] = []
    vi.stubGlobal('fetch', async (request: Request) => {
      if (request.method === 'POST') posted.push(((await request.clone().json()) as Happening).kind)
      await slow
      return json({ happenings: 9, newest: 'x', valves: [], clock: '' })
    })
    let judged: (state: object) => void = () => {}
    says.mockImplementation(() => new Promise<object>((done) => (judged = done)))
    void job.send({ kind: 'kept', valve: 'E1' })
    await job.send({ kind: 'kept', valve: 'E1' })
    expect(job.waiting.value).toHaveLength(1)
    judged({ newest: job.waiting.value[0]!.body.id, happenings: 2 })
    await vi.waitFor(() => expect(job.state.value?.happenings).toBe(2))
    says.mockImplementation((h) => ({ newest: h.id, happenings: 3 }))
    void job.send({ kind: 'turned', stop: 1 })
    await vi.waitFor(() => expect(job.state.value?.happenings).toBe(3))
    await job.send({ kind: 'signed', by: 'Tess', tools_out: true })
    expect(job.refusal.value).toContain('Not everything done before')
    release()
    await vi.waitFor(() => expect(job.waiting.value).toHaveLength(0))
    expect(posted).toEqual(['kept', 'turned'])
  })

  it('is refused at once in the words of the job, and waits for nobody', async () => {
    const job = await opened()
    answer = unreached
    await job.send({ kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag' })
    says.mockImplementation(() => ({ refused: 'E4 is open here.' }))
    await job.send({ kind: 'picked', valve: 'E4' }).catch(() => {})
    await job.send({ kind: 'kept', valve: 'E4' })
    await vi.waitFor(() => expect(job.refusal.value).toBe('E4 is open here.'))
  })
})

describe('a job that this tablet kept', () => {
  const at = '2026-11-30T10:12:00Z'
  const job = (state: object) => ({ id: 'j', at, view: { state }, opening: { happenings: [] } }) as unknown as KeptJob

  it('is opened where the program cannot be reached, with what waited here on top, and gives way to the program', async () => {
    const before = await opened()
    says.mockImplementation(() => null)
    answer = unreached
    await before.send({ kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag' })
    await keptJobs.keep(job({ newest: 'kept', happenings: 5 }))
    const job2 = effectScope().run(() => useJob('j'))!
    await job2.load()
    expect(job2.trouble.value).toBeNull()
    expect(job2.line.keptAt).toBe(at)
    expect(job2.state.value?.happenings).toBe(5)
    known = { newest: 'known', happenings: 6 }
    says.mockImplementation((h) => ({ newest: h.id, happenings: 7 }))
    await job2.begin()
    expect(job2.state.value?.happenings).toBe(7)
    expect(job2.behind.value).toBe(false)

    answer = (method) =>
      method === 'POST'
        ? json({ newest: 'sent', happenings: 7, clock: new Date().toISOString() })
        : json({ state: { newest: 'sent', happenings: 8, clock: new Date().toISOString() } })
    await job2.load()
    await vi.waitFor(() => expect(job2.state.value?.happenings).toBe(8))
    expect(job2.line.keptAt).toBe('')
  })

  it('takes nothing twice that the program has already, though its answer was lost', async () => {
    const before = await opened()
    says.mockImplementation(() => null)
    answer = unreached
    await before.send({ kind: 'kept', valve: 'E1' })
    holds.add(before.waiting.value[0]!.body.id)
    await keptJobs.keep(job({ newest: 'kept', happenings: 5 }))
    const again = effectScope().run(() => useJob('j'))!
    await again.load()
    known = { newest: 'known', happenings: 6 }
    says.mockClear()
    await again.begin()
    expect(says).not.toHaveBeenCalled()
    expect(again.state.value?.happenings).toBe(6)
    holds.clear()
  })

  it('shows nothing that it would take for sure where the program refuses to open it', async () => {
    await keptJobs.keep(job({ newest: 'kept', happenings: 5 }))
    answer = () => json({ title: 'Unauthorized', status: 401, detail: 'Sign in first.' }, 401)
    const refused = effectScope().run(() => useJob('j'))!
    await refused.load()
    expect(refused.view.value).toBeNull()
    expect(refused.trouble.value?.message).toBe('Sign in first.')
  })

  it('is kept anew a little after the program took something', async () => {
    await keptJobs.clear()
    const now = await opened()
    answer = (method) =>
      method === 'POST'
        ? json({ newest: 'n2', happenings: 2, clock: at })
        : json({ state: { newest: 'n2', happenings: 2 } })
    says.mockImplementation(() => null)
    await now.send({ kind: 'kept', valve: 'E1' })
    await vi.waitFor(async () => expect((await keptJobs.get('j'))?.view.state.newest).toBe('n2'), 5000)
    expect((await keptJobs.get('j'))?.at).toBe(at)
  })
})
