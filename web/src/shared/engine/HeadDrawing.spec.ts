import '@/testing'
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { engine } from './engine.fixture'
import HeadDrawing, { type ValveShown } from './HeadDrawing.vue'

const two = engine([{ side: 'left', valves: ['E1', 'I1', 'I2', 'E2'] }], 'left')
const plain: ValveShown = { figure: '', verdict: null, settable: false, here: false, chosen: false }
const shown = (more: Record<string, Partial<ValveShown>> = {}) =>
  Object.fromEntries(two.valves.map((v) => [v.name, { ...plain, ...more[v.name] }]))
const draw = (props: Partial<InstanceType<typeof HeadDrawing>['$props']> = {}) =>
  mount(HeadDrawing, { props: { engine: two, crank: 0, shown: shown(), ...props } })
const of = (w: ReturnType<typeof draw>, valve: string) => w.find(`[data-valve="${valve}"]`)

describe('the drawing of the head', () => {
  it('names every valve, and says of each what may be done', () => {
    const w = draw({ shown: shown({ E1: { settable: true, here: true, figure: '0.30', verdict: 'in' } }) })
    expect(w.findAll('.valve')).toHaveLength(4)
    expect(of(w, 'E1').attributes('aria-label')).toBe('E1 0.30 mm, exhaust, in, may be set here')
    expect(of(w, 'I2').attributes('aria-label')).toBe('I2, intake, not now')
    expect(of(w, 'E1').classes()).toContain('raised')
  })
  it('shows an open valve sunk, wherever the crank is known', () => {
    // its lift is whole at half of the cycle
    expect(of(draw({ crank: 360 }), 'I1').classes()).toContain('open')
    expect(of(draw({ crank: 0 }), 'I1').classes()).not.toContain('open')
    expect(of(draw({ crank: null }), 'I1').classes()).not.toContain('open')
  })
  it('lets those be tapped that may be set, or all, by finger and by keys', async () => {
    const some = draw({ pickable: true, shown: shown({ E1: { settable: true } }) })
    expect(some.findAll('.valve [role=button]')).toHaveLength(1)
    const w = draw({ pickable: 'all', cylindersPickable: true })
    expect(w.findAll('.valve [role=button]')).toHaveLength(4)
    await of(w, 'I2').find('[role=button]').trigger('click')
    await of(w, 'E2').find('[role=button]').trigger('keydown', { key: ' ' })
    await w.find('[aria-label="Cylinder 2"]').trigger('click')
    expect(w.emitted('pick')).toEqual([['I2'], ['E2']])
    expect(w.emitted('pickCylinder')).toEqual([[2]])
  })
  it('writes a gap between two figures in two lines, and what matters under a cylinder', () => {
    const w = draw({
      shown: shown({ E1: { figure: '0.249–0.281', verdict: 'in' }, I1: { figure: '0.20' } }),
      notes: { 2: { text: 'rocking', strong: false } },
    })
    expect(
      of(w, 'E1')
        .findAll('tspan')
        .map((t) => t.text()),
    ).toEqual(['0.249–', '0.281'])
    expect(of(w, 'I1').findAll('tspan')).toHaveLength(0)
    expect(w.findAll('.note').map((n) => n.text())).toEqual(['rocking'])
  })
  it('says why a reading does not count instead of its verdict', () => {
    const w = draw({ shown: shown({ E2: { figure: '0.30', verdict: 'in', void: 'too late' } }) })
    expect(of(w, 'E2').text()).toContain('too late')
    expect(of(w, 'E2').attributes('aria-label')).toContain('too late')
  })
  it('marks the valves of which something is not on the disk yet', () => {
    const w = draw({ shown: shown({ E2: { waits: true } }) })
    expect(w.findAll('.waits')).toHaveLength(1)
    expect(of(w, 'E2').attributes('aria-label')).toContain('not on the disk yet')
  })
})
