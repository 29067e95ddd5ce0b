import 'fake-indexeddb/auto'
import { effectScope, ref } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Happening } from '@/shared/api/client'
import { useQueue } from '@/shared/useQueue'
import { useJob } from './useJob'

/** What the bench's own judging says of each happening; null: nothing. */
const says = vi.fn<(h: Happening) => object | null>()
const followed = vi.fn()
vi.mock('./judge', () => ({
  useJudge: () => ({ ready: ref(true), begin: vi.fn(), follow: followed, take: async (h: Happening) => says(h) }),
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
  for (const w of [...q.waiting.value]) await q.forget(w)
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

describe('a tap that the program does not answer soon', () => {
  it('is judged here, counted as waiting, and acknowledged later without a change', async () => {
    const job = await opened()
    says.mockImplementation((h) => ({ newest: h.id, happenings: 2 }))
    answer = unreached
    await job.send({ kind: 'reading', valve: 'E1', leaves_mm: [0.3], feel: 'drag' })
    await vi.waitFor(() => expect(job.state.value?.happenings).toBe(2))
    expect(job.waiting.value).toHaveLength(1)
    says.mockImplementation((h) => ({ newest: h.id, happenings: 3 }))
    await job.send({ kind: 'turned', stop: 1 }) // follows upon it
    await vi.waitFor(() => expect(job.state.value?.happenings).toBe(3))
    const shown = job.state.value
    answer = (method) =>
      method === 'POST' ? json({ happenings: 2, newest: 'x', clock: new Date().toISOString() }) : unreached()
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

  it('is shown as the program has it where that answers at once', async () => {
    const job = await opened()
    says.mockImplementation((h) => ({ newest: h.id, happenings: 99 }))
    answer = () => json({ happenings: 2, newest: 'new', clock: new Date().toISOString() })
    await job.send({ kind: 'kept', valve: 'E1' })
    await new Promise((later) => setTimeout(later, 200))
    expect(job.state.value?.happenings).toBe(2)
  })
})
