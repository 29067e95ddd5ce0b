import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Unreachable, type JobView, type Schemas } from './api/client'
import { keptJobs } from './keptJobs'
import { keepSession, lastSession } from './keptSession'
import type { Session } from './session'

const job = (id: string, at: string) => ({ id, at, view: {} as JobView, opening: {} as Schemas['Opening'] })
const here = {
  set_up: false,
  open: false,
  person: { id: 'tess', name: 'Tess Varga', role: 'mechanic' },
  may: ['work'],
  people: [],
  out_after_min: 10,
} as unknown as Session

beforeEach(async () => {
  localStorage.clear()
  await keptJobs.clear()
})

describe('who is here where the program does not say', () => {
  it('is whoever was here last, until he would have been signed out', () => {
    expect(() => lastSession(new Unreachable())).toThrow('cannot be reached')
    keepSession(here)
    expect(lastSession(new Unreachable()).person?.name).toBe('Tess Varga')
    expect(() => lastSession(new Error('no'))).toThrow('no')
    vi.useFakeTimers({ now: Date.now() + 11 * 60_000, toFake: ['Date'] })
    const late = lastSession(new Unreachable())
    vi.useRealTimers()
    expect(late.person).toBeUndefined()
    expect(late.open).toBe(true)
    expect(late.may).toEqual(here.may)
  })
})

describe('jobs kept on the tablet', () => {
  it('are the dozen that were open last, and none for whoever comes after a sign-out', async () => {
    for (let i = 0; i < 15; i++) await keptJobs.keep(job(`j${i}`, `2026-11-30T10:${String(i).padStart(2, '0')}:00Z`))
    const ids = (await keptJobs.all()).map((j) => j.id)
    expect(ids).toHaveLength(12)
    expect(ids[0]).toBe('j14')
    expect(ids).not.toContain('j2')
    keepSession(here)
    expect(await keptJobs.all()).toHaveLength(12)
    keepSession({ ...here, person: undefined })
    await vi.waitFor(async () => expect(await keptJobs.all()).toHaveLength(0))
  })
})
