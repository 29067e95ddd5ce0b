import { program } from '@/testing'
import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import type { JobView } from '@/shared/api/client'
import { engine } from '@/shared/engine/engine.fixture'
import FindingsPart from './FindingsPart.vue'
import NutsPart from './NutsPart.vue'
import TakeInPart from './TakeInPart.vue'
import ToolsPart from './ToolsPart.vue'
import WornLeaves from './WornLeaves.vue'

describe('the tools of a job', () => {
  const tools = [
    { id: 'turning', text: 'Bar for the pulley bolt', note: '', on_crank: true, out: true, counted: true },
    { id: 'leaves', text: 'Feeler leaves, 10', note: 'first to hand 0.22', on_crank: false, out: false, counted: true },
    { id: 'lamp', text: 'Lamp and mirror', note: '', on_crank: false, out: false, counted: false },
  ]
  it('say which are out, and count one out or back by a tap', async () => {
    const w = mount(ToolsPart, {
      props: { tools, sealed: false, made: ['Hooked rod'], hotWork: 'Bent hot: away from fuel.' },
    })
    expect(w.find('h2').text()).toBe('1 out: count them back before the engine is started.')
    expect(w.findAll('small').map((s) => s.text())).toEqual([
      'off the crank before the starter is touched',
      'first to hand 0.22',
    ])
    for (const b of w.findAll('li button')) await b.trigger('click')
    expect(w.emitted('do')).toEqual([
      [{ kind: 'tool', tool: 'turning', back: true }],
      [{ kind: 'tool', tool: 'leaves', back: undefined }],
      [{ kind: 'tool', tool: 'lamp', back: undefined }],
    ])
    expect(w.findAll('li button').map((b) => b.text())).toEqual(['Back', 'Back ✓ – out again', 'Take out'])
    await w
      .findAll('button')
      .find((b) => b.text() === 'Fan and belt')!
      .trigger('click')
    expect(w.emitted('do')!.at(-1)).toEqual([{ kind: 'turning_by', by: 'fan' }])
    expect(w.text()).toContain('Hooked rod')
    expect(w.text()).toContain('Bent hot: away from fuel.')
  })
  it('stay as they are once the job is signed', () => {
    const w = mount(ToolsPart, { props: { tools: tools.slice(1), sealed: true, made: [], hotWork: '' } })
    expect(w.find('h2').text()).toBe('Nothing is out.')
    expect(w.findAll('button').every((b) => b.attributes('disabled') !== undefined)).toBe(true)
  })
})

describe('the leaves after a job', () => {
  it('are marked worn or gone in their set by a tap, and sound again by another', async () => {
    const set = {
      id: 'g',
      name: 'Oskar’s',
      leaves: 2,
      checked: '',
      damaged: '',
      items: [{ marked_mm: 0.2 }, { marked_in: 0.012, thou: true }],
    }
    const asked = program((a) =>
      a.method === 'GET' ? [set] : { ...set, items: (a.body as { leaves: unknown[] }).leaves },
    )
    const w = mount(WornLeaves, { props: { set: 'Oskar’s' } })
    await vi.waitFor(() => expect(w.findAll('button').map((b) => b.text())).toEqual(['0.20', '12 thou']))
    await w.findAll('button')[1]!.trigger('click')
    await vi.waitFor(() => expect(w.text()).toContain('12 thou of Oskar’s: not used any more'))
    const put = asked.find((a) => a.method === 'PUT')!
    await w.findAll('button')[0]!.trigger('click')
    await w.findAll('button')[1]!.trigger('click') // while the one before is on its way: nothing of it is written over
    await vi.waitFor(() => expect(asked.filter((a) => a.method === 'PUT')).toHaveLength(2))
    expect(put.path).toBe('/gauge-sets/g')
    expect(put.body).toEqual({
      name: 'Oskar’s',
      leaves: [{ marked_mm: 0.2 }, { marked_in: 0.012, thou: true, missing: true }],
    })
  })
})

describe('the leaves of a set that is not told by its name', () => {
  it('are marked by nobody’s guess', async () => {
    const set = { name: 'Bench', leaves: 1, checked: '', damaged: '', items: [{ marked_mm: 0.2 }] }
    program(() => [
      { ...set, id: 'a' },
      { ...set, id: 'b' },
    ])
    const w = mount(WornLeaves, { props: { set: 'Bench' } })
    await vi.waitFor(() => expect(w.text()).toContain('2 feeler sets are called Bench'))
    expect(w.findAll('button')).toHaveLength(0)
  })
})

describe('the lock nuts', () => {
  it('are ticked one by one where they sit, and taken back by another tap', async () => {
    const view = {
      engine: engine([{ side: 'left', valves: ['E1', 'I1', 'I2', 'E2'] }], 'left'),
      state: { nuts_felt: ['I1'] },
    } as unknown as JobView
    const w = mount(NutsPart, { props: { view } })
    expect(w.find('[role=status]').text()).toBe('1 of 4 felt')
    await w.find('[data-valve="E1"] [role=button]').trigger('click')
    await w.find('[data-valve="I1"] [role=button]').trigger('click')
    expect(w.emitted('do')).toEqual([
      [{ kind: 'nut_felt', valve: 'E1', back: undefined }],
      [{ kind: 'nut_felt', valve: 'I1', back: true }],
    ])
  })
})

const two = engine([{ side: 'left', valves: ['E1', 'I1', 'I2', 'E2'] }], 'left')
const quiet = { note: '', file: '' }

describe('taking in', () => {
  const view = (more = {}, before?: unknown) =>
    ({
      engine: two,
      before,
      vehicle: { counts: 'km' },
      state: { id: 'j', phase: 'as_found', sound_before: quiet, sound_after: quiet, ...more },
    }) as unknown as JobView
  const press = (w: ReturnType<typeof mount>, text: string) =>
    w
      .findAll('button')
      .find((b) => b.text().includes(text))!
      .trigger('click')
  it('keeps what the vehicle is in for, in any number of taps, and goes on', async () => {
    const w = mount(TakeInPart, { props: { view: view() } })
    await press(w, 'Ticks')
    await press(w, 'Smokes')
    await press(w, 'Smokes')
    await w.find('input').setValue(' when warm ')
    await press(w, 'Taken in')
    expect(w.emitted('do')).toEqual([[{ kind: 'taken_in', complaints: ['ticks'], note: 'when warm' }]])
    expect(w.emitted('next')).toHaveLength(1)
  })
  it('shows what was said before, and what the last job left', () => {
    const before = {
      id: 'b',
      at: '2026-05-04T10:00:00Z',
      odometer_km: 90000,
      by: 'June',
      outcome: 'E1 left tight',
      tight: 1,
      loose: 0,
      later: ['gasket: hard'],
    }
    const said = { complaints: ['smokes'], sides: ['tight'], note: 'blue', sound: '' }
    const w = mount(TakeInPart, { props: { view: view({ taken_in: said }, before) } })
    expect(w.text()).toContain('Found 1 tight and 0 loose; signed by June.')
    expect(w.text()).toContain('Left for now: gasket: hard')
    expect(w.findAll('[aria-pressed=true]').map((b) => b.text())).toEqual(['Smokespoints to tight'])
    expect(w.text()).toContain('Keep the change')
  })
})

describe('findings', () => {
  const hard = { finding: 'f1', place: 'gasket', what: 'hard or split', later: true }
  const view = (findings: unknown[] = []) => ({ engine: two, state: { id: 'j', findings } }) as unknown as JobView
  const press = (w: ReturnType<typeof mount>, text: string) =>
    w
      .findAll('button')
      .find((b) => b.text() === text)!
      .trigger('click')
  it('are noted by taps, done now or left for later', async () => {
    const w = mount(FindingsPart, { props: { view: view(), sealed: false } })
    expect(w.text()).toContain('Nothing noted yet')
    const later = w.findAll('button').find((b) => b.text() === 'Leave for later')!
    expect(later.attributes('disabled')).toBeDefined()
    await press(w, 'breather')
    await press(w, 'blocked')
    await press(w, 'no draught felt')
    await press(w, 'Leave for later')
    const [[noted]] = w.emitted('do') as [[Record<string, unknown>]]
    expect(noted).toMatchObject({
      kind: 'finding',
      place: 'breather',
      what: 'blocked',
      test: 'no draught felt',
      later: true,
    })
    expect(w.findAll('[aria-pressed=true], [aria-checked=true]')).toHaveLength(0)
  })
  it('that were left are done after all, or changed, under the same name', async () => {
    const w = mount(FindingsPart, { props: { view: view([hard]), sealed: false } })
    await press(w, 'Done now')
    expect((w.emitted('do') as unknown[][])[0]![0]).toMatchObject({ finding: 'f1', later: undefined, place: 'gasket' })
    await w.find('[aria-label="Change gasket: hard or split"]').trigger('click')
    await press(w, 'Leave for later')
    expect((w.emitted('do') as unknown[][])[1]![0]).toMatchObject({ finding: 'f1', later: true, what: 'hard or split' })
  })
  it('of a signed job stay as they are', () => {
    const w = mount(FindingsPart, { props: { view: view([hard]), sealed: true } })
    expect(w.text()).toContain('for later')
    expect(w.findAll('button')).toHaveLength(0)
  })
})
