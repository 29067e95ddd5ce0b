import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { useEngineInPlace } from './useEngineInPlace'

const usual = {
  source: 'somewhere',
  engines: [
    { layout: 'inline', firing_order: [1, 3, 4, 2], patterns: [{ says: 'one', banks: [{ rows: [] }] }] },
    { layout: 'flat', firing_order: [1, 4, 3, 2], patterns: [{ says: 'two', banks: [{ rows: [] }] }] },
  ],
}
const got = vi.hoisted(() => ({ put: [] as [string, string, string?][] }))
vi.mock('@/shared/api/client', async (real) => ({
  ...(await real<object>()),
  api: { GET: vi.fn(), POST: vi.fn() },
  answered: vi.fn(),
}))
vi.mock('@/shared/api/sheets', () => ({
  putSheet: (id: string, text: string, replaces?: string) => {
    got.put.push([id, text, replaces])
    return Promise.resolve({ version: `v${got.put.length}` })
  },
}))
import { answered } from '@/shared/api/client'

const settled = async () => {
  await nextTick()
  await flushPromises()
}

describe('an engine made where a job is started', () => {
  beforeEach(() => {
    got.put = []
    vi.mocked(answered).mockResolvedValue(usual as never)
  })

  it('asks for one thing after the other and chooses nothing by itself', async () => {
    const e = useEngineInPlace()
    expect(e.missing.value).toBe('Say how many cylinders it has.')
    e.form.value.cylinders = 4
    await settled()
    expect(e.missing.value).toBe('Choose its firing order.')
    e.form.value.usual = 0
    await settled()
    expect(e.missing.value).toBe('Choose how its valves stand.')
    e.form.value.rows = 0
    e.form.value.intake = '8–10'
    expect(e.missing.value).toBe('Intake: Say which unit the figures are in.')
    e.form.value.unit = 'thou'
    expect(e.missing.value).toBe('Give the clearance of the exhaust valves.')
    e.form.value.exhaust = '12'
    expect(e.missing.value).toBe('Say whether the figures hold cold or hot.')
    e.form.value.state = 'hot'
    expect(e.missing.value).toBe('Say where the figures come from.')
    e.form.value.source = 'Maker’s book'
    expect(e.missing.value).toBe('')
    const id = await e.store()
    expect(got.put.map(([id]) => id)).toEqual([id])
    expect(JSON.parse(got.put[0]![1])).toMatchObject({
      name: 'Inline 4, 1-3-4-2',
      kinds_to_confirm: true,
      clearances: [
        {
          source: 'Maker’s book',
          state: 'hot',
          intake: { lower_in: 0.008, upper_in: 0.01 },
          exhaust: { nominal_in: 0.012 },
        },
      ],
    })
    // where the vehicle was refused it is stored once more, changed: the same engine, in place of what there is
    e.form.value.name = 'Another name'
    expect(await e.store()).toBe(id)
    expect(got.put.map(([, , replaces]) => replaces)).toEqual([undefined, 'v1'])
    e.clear()
    expect(await e.store()).not.toBe(id)
    expect(got.put.at(-1)![2]).toBeUndefined()
  })

  it('forgets what belongs to another number of cylinders or order', async () => {
    const e = useEngineInPlace()
    e.form.value.cylinders = 4
    await settled()
    e.form.value.usual = 0
    await settled()
    e.form.value.rows = 0
    e.form.value.usual = 1
    await settled()
    expect(e.form.value.rows).toBe(-1)
    e.form.value.cylinders = 6
    await settled()
    expect(e.form.value.usual).toBe(-1)
  })

  it('shows no list that came late for a number no longer chosen', async () => {
    const e = useEngineInPlace()
    let late: (v: unknown) => void = () => {}
    vi.mocked(answered).mockReturnValueOnce(new Promise((r) => (late = r)) as never)
    e.form.value.cylinders = 4
    await settled()
    e.form.value.cylinders = 6
    await settled()
    late({ source: 'late', engines: [] })
    await settled()
    expect(e.usual.value?.source).toBe('somewhere')
  })
})
