import '@/testing'
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { decimals } from '@/shared/decimal'
import CardFields from './CardFields.vue'
import { placed, saidAt } from './places'
import type { ClearanceCard } from './useEditor'

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
