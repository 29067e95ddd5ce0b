import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { using } from '@/testing'
import { useHalves } from './useHalves'

describe('a crank drawn in halves', () => {
  it('moves every valve of a small head at once', () => {
    const crank = ref<number | null>(0)
    const at = using(() =>
      useHalves(
        () => crank.value,
        () => 16,
      ),
    )
    crank.value = 10
    expect([at(0), at(1), at(2)]).toEqual([10, 10, 10])
  })
  it('moves every other one of a large head in turn, and all once it stands', () => {
    vi.useFakeTimers()
    const crank = ref<number | null>(0)
    const at = using(() =>
      useHalves(
        () => crank.value,
        () => 48,
      ),
    )
    crank.value = 10
    crank.value = 20
    expect([at(0), at(1)].sort()).toEqual([10, 20])
    crank.value = 30
    expect([at(0), at(1)].sort()).toEqual([20, 30])
    vi.advanceTimersByTime(60)
    expect([at(0), at(1)]).toEqual([30, 30])
    crank.value = null
    expect([at(0), at(1)], 'not known is not known anywhere').toEqual([null, null])
    vi.useRealTimers()
  })
})
