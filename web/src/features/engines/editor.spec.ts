import '@/testing'
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { nextTick, reactive } from 'vue'
import { decimals } from '@/shared/decimal'
import CardFields from './CardFields.vue'
import SectionSigns from './SectionSigns.vue'
import { placed, saidAt } from './places'
import type { ClearanceCard, Sheet } from './useEditor'

describe('where a fault is', () => {
  it('is said by the label of the screen', () => {
    expect(placed('valve_timing.ivc_abdc_deg')).toBe('Intake closes after BDC')
    expect(placed('clearances[1].intake.lower_mm')).toBe('Card 2, Intake')
    expect(placed('banks[0].rows[1].valves')).toBe('Head 1, row 2, Row')
    expect(saidAt({ location: 'valve_timing.evc_atdc_deg', message: 'This field is missing.' })).toBe(
      'Exhaust closes after TDC: this field is missing.',
    )
    expect(saidAt({ location: 'firing_order', message: 'Cylinder 4 is missing from the firing order.' })).toBe(
      'Cylinder 4 is missing from the firing order.',
    )
  })
})

describe('a list of figures', () => {
  it('keeps a slip for its fault to be said', () => {
    expect(decimals('0,5 180; 360.25')).toEqual([0.5, 180, 360.25])
    expect(decimals('0 18O')).toEqual([0, '18O'])
  })
})

describe('the signs of an engine', () => {
  it('are added under names of their own, changed and removed; none is no list', async () => {
    const sheet = reactive({ name: 'Four' }) as unknown as Sheet
    const page = mount(SectionSigns, { props: { modelValue: sheet, said: () => [] } })
    const press = (text: string) =>
      page
        .findAll('button')
        .filter((b) => b.text() === text)[0]!
        .trigger('click')
    await press('Add a sign')
    await press('Add a sign')
    expect(sheet.signs!.map((s) => [s.id, s.period_deg])).toEqual([
      ['sign-1', 720],
      ['sign-2', 720],
    ])
    await page.findAll('input')[2]!.setValue('0 360')
    await page.findAll('input')[3]!.setValue('the dowel')
    await press('every turn, with the crank')
    expect(sheet.signs![0]).toMatchObject({ at_deg: [0, 360], doubtful: 'the dowel', period_deg: 360 })
    await press('Remove')
    await press('Add a sign')
    expect(sheet.signs!.map((s) => s.id)).toEqual(['sign-2', 'sign-3']) // no name is given twice
    await press('Remove')
    await press('Remove')
    expect('signs' in sheet).toBe(false)
    expect(placed('signs[1].at_deg[0]')).toBe('Sign 2, At 1')
  })
})

describe('a clearance card', () => {
  const shown = (intake: ClearanceCard['intake']) => {
    const card: ClearanceCard = { source: 'maker’s book', state: 'cold', intake, exhaust: {} }
    const page = mount(CardFields, {
      props: { modelValue: card, at: 'clearances[0]', said: () => [], warned: () => [] },
    })
    const press = async (label: string) => {
      await page.get(`[aria-label="${label}"]`).trigger('click')
      await nextTick()
    }
    return { card, press }
  }
  it('keeps its window from a tolerance to limits and back', async () => {
    const { card, press } = shown({ nominal_mm: 0.2, tolerance_mm: 0.02 })
    await press('intake: limits')
    expect(card.intake).toEqual({ lower_mm: 0.18, upper_mm: 0.22 })
    await press('intake: ±')
    expect(card.intake).toEqual({ nominal_mm: 0.2, tolerance_mm: 0.02 })
  })
  it('keeps a half of a hundredth, and a nominal alone', async () => {
    const { card, press } = shown({ lower_mm: 0.2, upper_mm: 0.25 })
    await press('intake: ±')
    expect(card.intake).toEqual({ nominal_mm: 0.225, tolerance_mm: 0.025 })
    const alone = shown({ nominal_in: 0.008 })
    await alone.press('intake: limits')
    expect(alone.card.intake).toEqual({ lower_in: 0.008 })
  })
})
