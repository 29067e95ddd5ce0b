import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { using } from '@/testing'
import { settle, useSettle } from './useSettle'

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())

describe('a short while in which nothing is taken', () => {
  it('ends by itself, begins anew, and can be ended', () => {
    const s = using(useSettle)
    s.begin()
    vi.advanceTimersByTime(settle - 1)
    expect(s.on.value).toBe(true)
    s.begin()
    vi.advanceTimersByTime(settle - 1)
    expect(s.on.value).toBe(true)
    vi.advanceTimersByTime(1)
    expect(s.on.value).toBe(false)
    s.begin()
    s.end()
    expect(s.on.value).toBe(false)
  })
})
