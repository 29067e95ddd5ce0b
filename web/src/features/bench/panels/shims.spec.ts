import { afterEach, describe, expect, it, vi } from 'vitest'
import { onBench, program } from '@/testing'
import ShimPanel from './ShimPanel.vue'

afterEach(() => vi.unstubAllGlobals())

describe('shims', () => {
  const valve = (name: string, more: object) => ({ name, shim_mm: 2.5, out: false, needs: false, ...more })
  const fit = (v: string, more: object) => ({
    valve: v,
    fitted_mm: 2.5,
    shim_mm: 2.6,
    gap_mm: 0.2,
    wanted_mm: 2.6,
    from: 'stock',
    source: 'shop',
    here: true,
    from_here: true,
    ...more,
  })
  const job = (valves: unknown[], shim?: object) => ({
    state: {
      id: 'j',
      happenings: 3,
      shims_prefer: 'fewest_bought',
      cams_out: false,
      valves,
      now: { valve: 'I1', shim },
    },
  })
  const choices = [
    { prefer: 'fewest_bought', bought: 0, disturbed: 2, worst_from_aim_mm: 0.04 },
    { prefer: 'nearest_aim', bought: 3, disturbed: 3, worst_from_aim_mm: 0.01 },
  ]
  const frontier = choices.map((c) => ({ bought: c.bought, worst_from_aim_mm: c.worst_from_aim_mm }))
  const answer = (more: object) => ({
    fit: [],
    missing: [],
    buy: [],
    spare_mm: [],
    impossible: [],
    choices,
    frontier,
    steps: [],
    promised: [],
    ...more,
  })

  it('are the fewest bought or the nearest to the aim, by one tap with both costs shown', async () => {
    const asked = program(() => answer({}))
    const { page, done } = onBench(ShimPanel, job([valve('I1', {})]))
    await vi.waitFor(() => expect(page.text()).toContain('0 to buy, 2 moved, worst 0.04 mm off'))
    expect(page.text()).toContain('0.04 for 0 bought, 0.01 for 3 bought')
    const shims = asked.filter((a) => a.path.endsWith('/shims'))
    expect(shims.map((a) => a.query)).toEqual(['?prefer=fewest_bought&cams_out=false'])
    const other = page.findAll('button').find((b) => b.text().startsWith('Nearest the aim'))!
    expect(other.text()).toContain('3 to buy, 3 moved, worst 0.01 mm off')
    await other.trigger('click')
    expect(done).toEqual([{ kind: 'shims_chosen', prefer: 'nearest_aim', cams_out: false }])
  })

  it('are asked for valve by valve where their size is not known', async () => {
    program(() => answer({ missing: ['I1'] }))
    const { page, done, key } = onBench(ShimPanel, job([valve('I1', { shim_mm: 0 })]))
    await vi.waitFor(() => expect(page.text()).toContain('Shim under I1'))
    for (const k of ['2', ',', '7', '0', 'Enter']) key(k)
    expect(done).toEqual([{ kind: 'sized', valve: 'I1', shim_mm: 2.7 }])
  })

  it('are turned to where they come out, for their size and to try one that may serve', async () => {
    program(() =>
      answer({ missing: ['I1'], impossible: [{ valve: 'I1', reason: 'Known to ±0.02 mm.', try_mm: 2.475 }] }),
    )
    const press = (page: ReturnType<typeof onBench>['page'], words: string) =>
      page
        .findAll('button')
        .find((b) => b.text().includes(words))!
        .trigger('click')
    const away = onBench(ShimPanel, job([valve('I1', { shim_mm: 0, settable: false })]))
    await vi.waitFor(() => expect(away.page.text()).toContain('Turn to where I1 is clear'))
    await press(away.page, 'Turn to where')
    const here = onBench(ShimPanel, job([valve('I1', { shim_mm: 0, settable: true })]))
    expect(here.page.text()).toContain('it goes back in before the crank is turned')
    const stuck = onBench(ShimPanel, job([valve('I1', { needs: true, settable: true })]))
    await vi.waitFor(() => expect(stuck.page.text()).toContain('Tried 2.475 under I1'))
    stuck.key('Enter')
    expect([...away.done, ...stuck.done]).toEqual([
      { kind: 'picked', valve: 'I1' },
      { kind: 'adjusted', valve: 'I1', shim_mm: 2.475, cams_out: false },
    ])
  })

  const step = (more: object) => ({
    valve: '',
    shim_mm: 0,
    most_mm: 0,
    source: '',
    from: '',
    stop: 0,
    turn_deg: 0,
    until: '',
    ...more,
  })

  it('are led in order: what is done now is the one button, and the rest stands below', async () => {
    const moves = [fit('E1', { here: false }), fit('I1', {}), fit('I2', { source: 'buy', origin: 'to order' })]
    const steps = [
      step({ do: 'fit', valve: 'I1', shim_mm: 2.6, source: 'shop' }),
      step({ do: 'turn', stop: 2, turn_deg: 180, said: 'Turn a further 180° until cylinder 3 rocks' }),
    ]
    program(() => answer({ fit: moves, steps, buy: [{ shim_mm: 2.6, count: 1 }] }))
    const { page, done, key } = onBench(ShimPanel, job([valve('I1', { needs: true }), valve('I2', {})], steps[0]))
    await vi.waitFor(() => expect(page.text()).toContain('Turn a further 180° until cylinder 3 rocks'))
    expect(page.text()).toContain('Fitted under I1')
    expect(page.text()).toContain('to order')
    expect(page.text()).toContain('1 × 2.60')
    key('Enter')
    expect(done).toEqual([{ kind: 'adjusted', valve: 'I1', shim_mm: 2.6, from: '', cams_out: false, stand_in: false }])
  })

  it('may be waited for, and say where another job counts on the same one', async () => {
    program(() =>
      answer({
        buy: [{ shim_mm: 2.65, count: 2 }],
        impossible: [
          { valve: 'E1', reason: '2.65 mm would bring E1 to a limit.', order_mm: 2.65 },
          { valve: 'I1', reason: '2.55 mm would bring I1 near one.', order_mm: 2.55 },
        ],
        promised: [{ shim_mm: 2.6, in_stock: 1, wanted: 2, jobs: ['Mower'] }],
      }),
    )
    const { page, done } = onBench(ShimPanel, job([valve('I1', { needs: true })]))
    await vi.waitFor(() => expect(page.text()).toContain('2.60: 1 in stock, 2 wanted. Mower counts on it too.'))
    const press = (words: string) =>
      page
        .findAll('button')
        .find((b) => b.text().startsWith(words))!
        .trigger('click')
    await press('Wait for the shims')
    await press('2.55 has come: fitted under I1')
    expect(done).toEqual([
      { kind: 'waiting', waits_for: 'parts', until: 'shims 1 × 2.55, 3 × 2.65' },
      { kind: 'adjusted', valve: 'I1', shim_mm: 2.55, cams_out: false },
    ])
    expect(page.text().indexOf('near one')).toBeLessThan(page.text().indexOf('to a limit')) // I1 is in question
  })

  it('ask the size of a stand-in that the shop has not', async () => {
    const standIn = step({ do: 'stand_in', valve: 'I1', most_mm: 2.55, said: 'I1 gets a stand-in, 2.55 or thinner' })
    program(() => answer({ steps: [standIn] }))
    const asking = onBench(ShimPanel, job([valve('I1', {})], standIn))
    await vi.waitFor(() => expect(asking.page.text()).toContain('I1 gets a stand-in, 2.55 or thinner'))
    expect(asking.key('Enter')).toBe(false)
    await asking.page.find('.led input').setValue('2,40')
    await asking.page.find('.led input').trigger('change')
    asking.key('Enter')
    expect(asking.done).toMatchObject([{ kind: 'adjusted', valve: 'I1', shim_mm: 2.4, stand_in: true }])
  })

  it('can be left where none serves, and a size written down wrongly is corrected', async () => {
    program(() => answer({ impossible: [{ valve: 'I1', reason: 'No size serves I1.' }] }))
    const { page, left, done, key } = onBench(ShimPanel, job([valve('I1', { needs: true })]))
    await vi.waitFor(() => expect(page.text()).toContain('No size serves I1.'))
    const press = (words: string) =>
      page
        .findAll('button')
        .find((b) => b.text().includes(words))!
        .trigger('click')
    await press('Leave I1')
    expect(left).toEqual(['I1'])
    await press('Correct a shim size')
    await press('I1 2.50')
    for (const k of ['2', '.', '5', '5', 'Enter']) key(k)
    expect(done).toEqual([{ kind: 'sized', valve: 'I1', shim_mm: 2.55 }])
  })
})
