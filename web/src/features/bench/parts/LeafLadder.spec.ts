import '@/testing'
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import LeafLadder from './LeafLadder.vue'

const rungs = [0.15, 0.2, 0.22, 0.24, 0.25].map((t) => ({
  leaves_mm: [t],
  angled: [false],
  name: t.toFixed(2),
  near: true,
  thickness_mm: t,
  in_window: t >= 0.2 && t <= 0.24,
  other: '' as const,
  nominal: t === 0.22,
  first: t === 0.22,
}))

function ladder(
  felt: { leaves_mm: number[]; feel: 'free' | 'drag' | 'wont_go' }[] = [],
  tryNext = '',
  settling = false,
) {
  const round = felt.map((r) => ({ ...r, angled: [false], name: '' }))
  return mount(LeafLadder, { props: { valve: 'I1', rungs, round, tryNext, settling: () => settling } })
}

describe('the leaf ladder', () => {
  it('has the thickest leaf on top and waits on the one to begin with', () => {
    const w = ladder()
    expect(w.findAll('.thick').map((e) => e.text())).toEqual(['0.25', '0.24', '0.22', '0.20', '0.15'])
    expect(w.find('.cursor .thick').text()).toBe('0.22')
    expect(w.findAll('.window')).toHaveLength(3)
  })
  it('shows the other kind’s leaf before it is felt', () => {
    const wrong = rungs.map((r) => (r.thickness_mm === 0.25 ? { ...r, other: 'exhaust' as const } : r))
    const w = mount(LeafLadder, { props: { valve: 'I1', rungs: wrong, round: [], tryNext: '', settling: () => false } })
    expect(w.find('.rung.other').text()).toContain('exhaust leaf')
  })
  it('moves to the advised leaf once something was felt', () => {
    const w = ladder([{ leaves_mm: [0.22], feel: 'free' }], '0.24')
    expect(w.find('.cursor .thick').text()).toBe('0.24')
    expect(w.findAll('.felt').map((e) => e.text())).toEqual(['free'])
  })
  it('is carried by arrows and 1 2 3 alone', async () => {
    const w = ladder()
    const key = (w.vm as unknown as { key(k: string): boolean }).key
    expect(key('ArrowUp')).toBe(true)
    expect(key('3')).toBe(true)
    expect(key('ArrowDown')).toBe(true)
    expect(key('ArrowDown')).toBe(true)
    expect(key('1')).toBe(true)
    expect(key('7')).toBe(false)
    expect(w.emitted('feel')).toEqual([
      [[0.24], [false], 'wont_go'],
      [[0.2], [false], 'free'],
    ])
  })
  it('waits on the leaf that was tapped, wherever it stands once more leaves are shown', async () => {
    const far = {
      ...rungs[0]!,
      leaves_mm: [0.4],
      thickness_mm: 0.4,
      name: '0.40',
      near: false,
      in_window: false,
      first: false,
    }
    const w = mount(LeafLadder, {
      props: {
        valve: 'I1',
        rungs: [...rungs.map((r) => ({ ...r, near: true })), far],
        round: [],
        tryNext: '',
        settling: () => false,
      },
    })
    expect(w.findAll('.thick')[0]!.text()).toBe('0.25')
    await w
      .findAll('button')
      .find((b) => b.text() === 'All leaves')!
      .trigger('click')
    expect(w.findAll('.thick')[0]!.text()).toBe('0.40')
    await w.find('[aria-label="0.20 drag"]').trigger('click')
    expect(w.find('.cursor .thick').text()).toBe('0.20')
  })
  it('takes a feel back by a second tap on it', async () => {
    const w = ladder([
      { leaves_mm: [0.2], feel: 'free' },
      { leaves_mm: [0.22], feel: 'drag' },
    ])
    await w.find('[aria-label="0.22 drag"]').trigger('click')
    expect(w.emitted('feel')).toBeUndefined()
    expect(w.emitted('withdraw')).toEqual([[1]])
    await w.find('[aria-label="0.24 won’t go"]').trigger('click')
    expect(w.emitted('feel')).toEqual([[[0.24], [false], 'wont_go']])
  })
  it('takes no answer while a tap may be a bounce, and keeps where the cursor is', async () => {
    const w = ladder([], '', true)
    await w.find('[aria-label="0.22 drag"]').trigger('click')
    expect((w.vm as unknown as { key(k: string): boolean }).key('2')).toBe(true)
    expect(w.emitted('feel')).toBeUndefined()
    await w.setProps({ settling: () => false })
    await w.find('[aria-label="0.22 drag"]').trigger('click')
    expect(w.emitted('feel')).toHaveLength(1)
  })
  it('keeps the cursor where the mechanic put it when the same job is read again', async () => {
    const w = ladder()
    const key = (w.vm as unknown as { key(k: string): boolean }).key
    key('ArrowUp')
    await w.vm.$nextTick()
    expect(w.find('.cursor .thick').text()).toBe('0.24')
    await w.setProps({ rungs: rungs.map((r) => ({ ...r })), round: [] })
    expect(w.find('.cursor .thick').text()).toBe('0.24')
  })
  it('lays a stack by hand, of two or three leaves', async () => {
    const w = ladder()
    const press = (label: string) => w.find(`[aria-label="${label}"]`).trigger('click')
    await w
      .findAll('.more .v-btn')
      .find((b) => b.text().startsWith('Stack'))!
      .trigger('click')
    await press('0.15 in the stack')
    expect(w.find('[aria-label="0.15 drag"]').attributes('disabled')).toBeDefined()
    await press('0.20 in the stack')
    await w.setProps({ rungs: rungs.map((r) => ({ ...r })) }) // the same job read again
    expect(w.find('.stacked .thick').text()).toBe('0.35')
    await press('0.15 + 0.20 drag')
    expect(w.emitted('feel')).toEqual([[[0.15, 0.2], [false, false], 'drag']])
    expect(w.find('.stacked').exists()).toBe(false)
  })
  it('grades a drag where that is wanted, and keys keep their meaning', async () => {
    const w = ladder()
    const key = (w.vm as unknown as { key(k: string): boolean }).key
    expect(key('4')).toBe(false)
    await w
      .findAll('.more .v-btn')
      .find((b) => b.text() === 'Grade the drag')!
      .trigger('click')
    await w.find('[aria-label="0.22 firm drag"]').trigger('click')
    key('4')
    key('2')
    expect(w.emitted('feel')!.map((e) => e[2])).toEqual(['drag_firm', 'drag_light', 'drag'])
    localStorage.clear()
  })
})
