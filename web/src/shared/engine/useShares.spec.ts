import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { using } from '@/testing'
import { useShares } from './useShares'

describe('a crank drawn in shares', () => {
  const shared = (crank: () => number | null, valves: () => number) => using(() => useShares(crank, valves))

  it('moves every valve of a small head at once', () => {
    const crank = ref<number | null>(0)
    const at = shared(
      () => crank.value,
      () => 16,
    )
    crank.value = 10
    expect([at(0), at(1), at(2)]).toEqual([10, 10, 10])
  })
  it('moves a third of a large head in turn, and all once it stands', () => {
    vi.useFakeTimers()
    const crank = ref<number | null>(0)
    const at = shared(
      () => crank.value,
      () => 48,
    )
    crank.value = 10
    expect([at(0), at(1), at(2)].sort((a, b) => a! - b!)).toEqual([0, 0, 10])
    crank.value = 20
    crank.value = 30
    expect([at(0), at(1), at(2)].sort((a, b) => a! - b!)).toEqual([10, 20, 30])
    expect(at(3), 'every third moves alike').toBe(at(0))
    crank.value = 40
    vi.advanceTimersByTime(60)
    expect([at(0), at(1), at(2)]).toEqual([40, 40, 40])
    crank.value = null
    expect([at(0), at(1), at(2)], 'not known is not known anywhere').toEqual([null, null, null])
    vi.useRealTimers()
  })
  it('is whole where another engine comes into the drawing', () => {
    const crank = ref<number | null>(5)
    const valves = ref(8)
    const at = shared(
      () => crank.value,
      () => valves.value,
    )
    valves.value = 48
    expect([at(0), at(1), at(47)]).toEqual([5, 5, 5])
  })
})
