import { defineComponent, h, nextTick, ref } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { onBench } from '@/testing'
import type { Schemas } from '@/shared/api/client'
import TellInOne from './TellInOne.vue'

const tell: Schemas['Tell'] = {
  leaves_mm: [0.3],
  angled: [false],
  says: 'Set, locked, 0.30 drags',
  asks: 'Is it so?',
  after_s: 5,
  by: '',
}

function shown(of: Partial<Schemas['Tell']> = {}) {
  const valve = ref('E1')
  const stand = defineComponent(() => () => h(TellInOne, { tell: { ...tell, ...of }, valve: valve.value }))
  const bench = onBench(stand, { state: { now: {}, valves: [] } })
  const press = (words: string) =>
    bench.page
      .findAll('button')
      .find((b) => b.text() === words)!
      .trigger('click')
  return { ...bench, valve, press }
}

describe('set, locked and read again, told in one', () => {
  beforeEach(() => vi.useFakeTimers())
  afterEach(() => vi.useRealTimers())

  it('is said by one tap, with the leaf that drags', async () => {
    const { done, press } = shown()
    vi.advanceTimersByTime(5000)
    await press(tell.says)
    expect(done).toEqual([
      { kind: 'set_told', valve: 'E1', leaves_mm: [0.3], angled: [false], by: undefined, asked: undefined },
    ])
  })

  it('asks back within five seconds of the verdict, and says nothing where it is not so yet', async () => {
    const { page, done, press } = shown({ by: 'torque', says: 'Set, torqued, 0.30 drags' })
    vi.advanceTimersByTime(4900)
    await press('Set, torqued, 0.30 drags')
    expect(done).toEqual([])
    expect(page.text()).toContain('Is it so?')
    await press('Not yet')
    expect(done).toEqual([])
    await press('Set, torqued, 0.30 drags')
    await press('Yes, all three')
    expect(done).toMatchObject([{ kind: 'set_told', by: 'torque', asked: true }])
  })

  it('counts anew with another valve, and takes nothing while the bench settles', async () => {
    const { page, done, press, settling, valve } = shown()
    vi.advanceTimersByTime(6000)
    valve.value = 'E3'
    await nextTick()
    await press(tell.says)
    expect(page.text()).toContain('Is it so?')
    settling.value = true
    await press('Yes, all three')
    expect(done).toEqual([])
  })
})
