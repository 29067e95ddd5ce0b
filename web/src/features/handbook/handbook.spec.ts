import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { program } from '@/testing'
import AdjustersPart from './AdjustersPart.vue'
import { book } from './book'
import DragPart from './DragPart.vue'
import HandbookPage from './HandbookPage.vue'
import SchoolsPart from './SchoolsPart.vue'
import WrongPart from './WrongPart.vue'

const rocking = book.ways.plans.find((p) => p.school === 'rocking_pairs')!

describe('the handbook', () => {
  it('goes round by a school, from stop to stop, in the words of the bench', async () => {
    const w = mount(SchoolsPart)
    for (const [n, stop] of rocking.stops.entries()) {
      expect(w.text()).toContain(`${stop.standing}: ${stop.valves.join(', ')}`)
      expect(w.text()).toContain(stop.why)
      const next = rocking.stops[(n + 1) % rocking.stops.length]!
      const on = w.findAll('button').find((b) => b.text() === `Turn on until ${next.until}`)
      await on!.trigger('click')
    }
    expect(w.text()).toContain(rocking.stops[0]!.standing)
  })
  it('says between stops how far the next one is', async () => {
    const w = mount(SchoolsPart)
    await w.find('[aria-label="Turn the crank by 30 degrees"]').trigger('click')
    const away = rocking.stops[1]!.turn_deg - 30
    expect(w.text()).toContain(`${away}° on, ${rocking.stops[1]!.until}`)
    expect(w.text()).not.toContain(rocking.stops[0]!.why)
  })
  it('shows every school that goes round the example, and only those', () => {
    const w = mount(SchoolsPart)
    for (const p of book.ways.plans) expect(w.text().includes(p.title)).toBe(p.applies)
  })
  it('slides a leaf into a gap from wide to narrow', async () => {
    program(() => 404)
    const w = mount(DragPart)
    const slide = () => w.findAll('button').find((b) => b.text() === 'Slide the leaf in')!
    await slide().trigger('click')
    await flushPromises()
    expect(w.find('[role=status].fs-30').text()).toBe('drag')
    await w.findComponent({ name: 'VSlider' }).vm.$emit('update:modelValue', 0)
    expect(w.find('[role=status].fs-30').exists(), 'another gap is not felt yet').toBe(false)
    await slide().trigger('click')
    await flushPromises()
    expect(w.find('[role=status].fs-30').text()).toBe('free')
    for (const v of book.drag.verdicts) expect(w.text()).toContain(v.judgement.why)
  })
  it('shows each kind of adjuster with its own words', async () => {
    const w = mount(AdjustersPart)
    for (const g of book.gears) {
      await w
        .findAll('button')
        .find((b) => b.text() === g.title)!
        .trigger('click')
      expect(w.find('h2').text()).toBe(g.title)
      expect(w.text()).toContain(g.not_set || g.words.tools)
      expect(w.text()).not.toContain('{leaf}')
    }
  })
  it('names every slip, and each page ends in its drills', () => {
    const w = mount(WrongPart)
    for (const s of book.wrong.slips) expect(w.find(`#${s.slip}`).text()).toContain(s.says)
    const page = mount(HandbookPage, { global: { stubs: { TopBar: true } } })
    for (const d of book.pages[0]!.drills) expect(page.text()).toContain(d.title)
  })
})
