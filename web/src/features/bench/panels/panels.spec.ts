import { nextTick } from 'vue'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { onBench, program } from '@/testing'
import ChoosePanel from './ChoosePanel.vue'
import { panelFor, panels } from './index'
import PreparePanel from './PreparePanel.vue'
import SignPanel from './SignPanel.vue'

afterEach(() => vi.unstubAllGlobals())

const plan = (school: string, order = 'turning') => ({
  school,
  order,
  title: school,
  how_to: '',
  applies: true,
  direction: 'running',
  positions: 'any',
  stop_count: 0,
  stops: [],
  total_turn_deg: 540,
  smallest_margin_deg: 128,
})

describe('choosing the sequence', () => {
  const job = (plan: unknown, rounds = ['set_as_you_go', 'read_first', 'read_only']) => ({
    engine: {
      gear: { lock_nut: true },
      banks: [{ name: 'head', cylinders: [1, 2] }],
      valves: ['E1', 'I1', 'E2', 'I2'].map((name) => ({ name, cylinder: Number(name[1]), kind: 'intake' })),
    },
    state: {
      id: 'j',
      plan,
      round: 'read_first',
      check: 'all',
      one_kind_first: 'both',
      check_turns: 2,
      aiming: 'leave_in',
      locking: 'one_go',
      own_shift_mm: 0,
      rounds,
      usual_check: 'set_ones',
      valves: ['E1', 'I1', 'E2', 'I2'].map((name) => ({ name, outside: false })),
    },
  })
  const ways = [plan('one_cylinder'), plan('rocking_pairs'), { ...plan('sum_rule'), applies: false, reason: 'no row' }]

  it('waits on rocking pairs, shows what is looked at, and takes it whole', async () => {
    program(() => ({ plans: ways }))
    const { done, looked, key } = onBench(ChoosePanel, job(null))
    await vi.waitFor(() => expect(looked.at(-1)).toMatchObject({ school: 'rocking_pairs' }))
    key('Enter')
    expect(done).toEqual([
      {
        kind: 'way_chosen',
        school: 'rocking_pairs',
        order: 'turning',
        direction: 'running',
        positions: 'any',
        stop_count: 0,
        round: 'set_as_you_go',
        check: 'set_ones',
        one_kind_first: 'both',
        check_turns: 2,
        scope: undefined,
        aiming: 'leave_in',
        locking: 'one_go',
        own_shift_mm: 0,
      },
    ])
  })

  it('waits on the present one where there is one, goes round by arrows, and can stay with it', async () => {
    program(() => ({ plans: ways }))
    const { left, looked, key } = onBench(ChoosePanel, job(plan('one_cylinder')))
    await vi.waitFor(() => expect(looked.at(-1)).toMatchObject({ school: 'one_cylinder' }))
    key('ArrowUp')
    await nextTick()
    expect(looked.at(-1)).toMatchObject({ school: 'rocking_pairs' })
    key('Escape')
    expect(left).toEqual(['stay'])
  })

  it('says why one is not for this engine, and why none could be read', async () => {
    program(() => ({ plans: ways }))
    const { page } = onBench(ChoosePanel, job(null))
    await vi.waitFor(() => expect(page.text()).toContain('no row'))
    program(() => 500)
    const { page: broken } = onBench(ChoosePanel, job(null))
    await vi.waitFor(() => expect(broken.text()).toContain('Refused with 500.'))
  })

  it('tells what each costs, and takes a part of the engine, one kind first, with four turns before the check', async () => {
    const cost = (turn: number, gestures: number) => ({
      turn_deg: turn,
      check_turn_deg: 720,
      leaf_changes: 6,
      gestures,
    })
    const asked = program(() => {
      return { plans: [{ ...ways[0], costs: { all_in: cost(540, 11), some_out: cost(540, 26), out_count: 3 } }] }
    })
    const { page, done, key } = onBench(ChoosePanel, job(null))
    await vi.waitFor(() => expect(page.text()).toContain('11 taps, 6 leaf changes'))
    expect(page.text()).toContain('3 valves out: 540°, and 720° to check, 26 taps')
    const press = (text: string) =>
      page
        .findAll('button')
        .find((b) => b.text() === text)!
        .trigger('click')
    await press('Exhausts first')
    await press('Four turns, then check')
    await press('2') // the second cylinder is not of this job
    await press('E1')
    await vi.waitFor(() => expect(asked.at(-1)!.query).toContain('one_kind_first=exhaust'))
    await vi.waitFor(() => {
      key('Enter')
      expect(done[0]).toMatchObject({ one_kind_first: 'exhaust', check_turns: 4, scope: ['I1'] })
    })
    await press('I1')
    expect(page.text()).toContain('1 of 4') // one valve at least stays
  })

  it('keeps the round of a job on the go, and offers no setting as one goes with shims', async () => {
    program(() => ({ plans: ways }))
    const going = onBench(ChoosePanel, job(plan('one_cylinder')))
    await vi.waitFor(() => expect(going.looked.at(-1)).toMatchObject({ school: 'one_cylinder' }))
    going.key('Enter')
    expect(going.done[0]).toMatchObject({ round: 'read_first', check: 'all' })
    const shims = onBench(ChoosePanel, job(null, ['read_first', 'read_only']))
    await vi.waitFor(() => expect(shims.looked.length).toBeGreaterThan(0))
    expect(shims.page.text()).not.toContain('Set as you go')
    const only = shims.page.findAll('button').find((b) => b.text() === 'Read only')!
    await only.trigger('click')
    expect(shims.page.text()).not.toContain('Check all')
    shims.key('Enter')
    expect(shims.done[0]).toMatchObject({ round: 'read_only' })
  })
})

describe('the temperature', () => {
  const job = (temperatures: unknown[] = []) => ({
    state: { temperatures, card: { state: 'cold', holds: 'engine at most 38 °C' }, gate_c: 38, closed: '' },
  })

  it('is typed by keys, engine first and then ambient, with its decimal point', () => {
    program(() => ({ state: 'off' }))
    const { done, key } = onBench(PreparePanel, job())
    for (const k of ['1', '9', '.', '5', 'Enter', '1', '8', 'Enter']) key(k)
    expect(done).toEqual([{ kind: 'prepared', engine_c: 19.5, ambient_c: 18, reason: undefined }])
  })

  it('can be below nought, is corrected digit by digit, and is only logged by W', () => {
    program(() => ({ state: 'off' }))
    const { done, key } = onBench(PreparePanel, job([{ engine_c: 40, ambient_c: 12.4, at: '2026-01-01T10:00:00Z' }]))
    for (const k of ['3', '5', 'Backspace', '-', 'w']) key(k)
    expect(done).toEqual([{ kind: 'temperature', engine_c: -3, ambient_c: 12 }])
  })

  it('comes from the thermometer of a practice engine, whose shut-off is known', async () => {
    program(() => ({ state: 'off' }))
    const hot = job() as { state: { card: { state: string } } }
    hot.state.card.state = 'hot'
    const { page, done, key } = onBench(PreparePanel, hot, false, { engine_c: 84.6, ambient_c: 20 })
    expect(page.text()).toContain('Thermometer 84.6')
    expect(page.text()).not.toContain('Engine stopped now')
    key('Enter')
    expect(done).toEqual([{ kind: 'prepared', engine_c: 84.6, ambient_c: 20 }])
  })

  it('comes from the probe by T', async () => {
    program(() => ({ state: 'ok', engine_c: 61.25, ambient_c: 17.96, at: '2026-01-01T10:00:00Z' }))
    const { page, done, key } = onBench(PreparePanel, job())
    await vi.waitFor(() => expect(page.text()).toContain('61.3'))
    key('t')
    key('Enter')
    expect(done).toEqual([{ kind: 'prepared', engine_c: 61.3, ambient_c: 18, reason: undefined }])
  })

  it('offers to carry on with a reason only where it was refused', () => {
    program(() => ({ state: 'off' }))
    expect(onBench(PreparePanel, job()).page.text()).not.toContain('Carry on anyway')
    expect(onBench(PreparePanel, job(), true).page.text()).toContain('Carry on anyway')
  })
})

describe('signing', () => {
  const job = (by: string) => ({
    mechanic: by,
    state: {
      hands: [],
      worth_checking: [],
      unanswered: [],
      tasks: [],
      missing: [],
      valves: [{ name: 'E1', left: 'seized' }],
    },
  })

  it('waits for all three ticks and a name', async () => {
    const { page, done, key } = onBench(SignPanel, job('Oskar Venn'))
    expect(page.text()).toContain('E1 (seized)')
    for (const k of ['1', '2', 'Enter']) key(k)
    expect(done).toEqual([])
    for (const k of ['3', 'Enter']) key(k)
    expect(done).toEqual([{ kind: 'signed', by: 'Oskar Venn', tools_out: true }])
  })

  it('asks for each valve that is out and not decided about, and is not signed before', () => {
    const out = { name: 'E3', left: '', last: { judgement: { verdict: 'tight' } } }
    const { page, done, key } = onBench(SignPanel, {
      mechanic: 'Oskar Venn',
      state: { hands: [], worth_checking: [], unanswered: ['E3'], tasks: [], missing: [], valves: [out] },
    })
    expect(page.text()).toContain('E3 is tight')
    for (const k of ['1', '2', '3', 'Enter']) key(k)
    expect(done).toEqual([])
  })

  it('is offered to who is at it now', () => {
    const handed = job('Oskar Venn')
    const hands = [{ name: 'June Halloway', note: '', from: '2026-01-01T10:00:00Z' }]
    const { done, key } = onBench(SignPanel, { ...handed, state: { ...handed.state, hands } })
    for (const k of ['1', '2', '3', 'Enter']) key(k)
    expect(done).toMatchObject([{ by: 'June Halloway' }])
  })
})

describe('the panels', () => {
  it('are there for every action of the core, each with a button, a hint, or its own', () => {
    for (const p of panels) expect(Boolean(p.button ?? p.hint ?? p.whole), p.actions.join()).toBe(true)
    const shimmed = { engine: { gear: { means: 'exchanged' } }, state: { phase: 'adjust', now: {} } } as never
    const screwed = { engine: { gear: { means: 'turned' } }, state: { phase: 'adjust', now: {} } } as never
    expect(panelFor(shimmed, 'adjust').fits).toBeDefined()
    expect(panelFor(screwed, 'adjust').fits).toBeUndefined()
    expect(panelFor(screwed, 'adjust').panel).not.toBe(panelFor(shimmed, 'adjust').panel)
    expect(panelFor(screwed, 'turn').panel).toBe(panelFor(shimmed, 'turn').panel)
    const unsafe = { engine: {}, state: { now: { action: 'turn', make_safe: true } } } as never
    expect(panelFor(unsafe, 'turn').does!(unsafe)).toEqual({ kind: 'task', task: 'safe' })
    expect(panelFor(unsafe, 'choose_way').actions, 'another sequence may be chosen first').toEqual(['choose_way'])
  })
})
