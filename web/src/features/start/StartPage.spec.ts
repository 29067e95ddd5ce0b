import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { program, type Asked } from '@/testing'
import StartPage from './StartPage.vue'

const limits = (lower_mm: number, upper_mm: number) => ({
  lower_mm,
  upper_mm,
  nominal_mm: (lower_mm + upper_mm) / 2,
  nominal_only: false,
  in_thou: false,
})
const card = (state: string, source: string, intake = limits(0.17, 0.23)) => ({
  state,
  source,
  date: '',
  remark: '',
  stone_cold: false,
  holds: 'engine at most 32 °C',
  intake,
  exhaust: limits(0.24, 0.3),
  differences: source === 'plate' ? [{ what: 'intake', first: '0.17–0.23', here: '0.20–0.26' }] : [],
})
const cart = { id: 'v1', name: 'Pump cart', plate: 'LM 1', engine_id: 'e1', engine_name: 'Four', odometer_km: 80000 }

let asked: Asked[]
let refuse = 0
let myWay: unknown
beforeEach(() => {
  myWay = 404
  localStorage.clear()
  sessionStorage.clear()
  refuse = 0
  asked = program(({ method, path }) => {
    if (method !== 'GET') return refuse || { id: 'j1' }
    if (path === '/vehicles') return [{ ...cart, on_board: true }]
    if (path === '/engines')
      return [
        {
          id: 'e1',
          name: 'Four',
          variants: [],
          cards: [card('cold', 'book'), card('cold', 'plate', limits(0.2, 0.26))],
        },
      ]
    if (path === '/gauge-sets') return [{ id: 'a', name: 'Drawer set', leaves: 10 }]
    if (path.endsWith('/my-way')) return myWay
    return []
  })
})
const opened = async () => {
  const w = mount(StartPage)
  await flushPromises()
  return w
}
type Page = Awaited<ReturnType<typeof opened>>
const press = async (w: Page, text: string) => {
  await w
    .findAll('button, [role=radio]')
    .find((b) => b.text().includes(text))!
    .trigger('click')
  await flushPromises()
}
const go = (w: Page) => w.findAll('button').find((b) => b.text() === 'Start the job')!

describe('the page that starts a job', () => {
  it('starts as it was done last in one tap, and shows the rest where it is wanted', async () => {
    myWay = {
      mechanic: 'June Halloway',
      names: ['June Halloway', 'Oskar Venn'],
      says: 'Rocking pairs, as the crank turns; set as you go, no check',
      gauge_set_id: 'a',
      leaves_are: 'oiled',
      card: 0,
      rule: 'workshop',
      aim: 'nominal',
      back: '',
      gone: [],
      way: { school: 'rocking_pairs', check: 'none' },
    }
    localStorage.setItem('metronix.mechanic', 'June Halloway')
    const w = await opened()
    await press(w, 'Pump cart')
    expect(w.text()).toContain('As you did it last: Rocking pairs, as the crank turns; set as you go, no check')
    expect(w.text()).not.toContain('Clearances')
    await press(w, 'Otherwise')
    expect(w.text()).toContain('Clearances')
    await press(w, 'Start as last time')
    expect(asked.filter((a) => a.method === 'POST').map((a) => a.body)).toMatchObject([
      { vehicle_id: 'v1', leaves_are: 'oiled' },
      { kind: 'way_chosen', school: 'rocking_pairs' },
    ])
  })
  it('opens part by part, says what is missing, and starts with what was chosen', async () => {
    const w = await opened()
    expect(w.text()).toContain('Choose the vehicle.')
    expect(w.text()).not.toContain('Clearances')
    await press(w, 'Pump cart')
    expect(w.text()).toContain('0.17–0.23 mm')
    expect(w.text()).toContain('intake: 0.20–0.26 against 0.17–0.23 (book)')
    expect(w.text()).toContain('Say who does the job.')
    expect(go(w).attributes('disabled')).toBeDefined()
    const mechanic = w
      .findAll('.v-input')
      .find((f) => f.text().includes('Mechanic'))!
      .find('input')
    await mechanic.setValue('June Halloway')
    await press(w, 'Drawer set')
    await press(w, 'Rough idle')
    expect(go(w).attributes('disabled')).toBeUndefined()
    await go(w).trigger('click')
    await flushPromises()
    expect(asked.filter((a) => a.method === 'POST').map((a) => a.body)).toMatchObject([
      { vehicle_id: 'v1', card: 0, mechanic: 'June Halloway', reason: 'Rough idle' },
    ])
  })
  it('keeps everything that was typed where the program refuses', async () => {
    const w = await opened()
    await press(w, 'Pump cart')
    const mechanic = w
      .findAll('.v-input')
      .find((f) => f.text().includes('Mechanic'))!
      .find('input')
    await mechanic.setValue('June Halloway')
    await press(w, 'Drawer set')
    refuse = 422
    await go(w).trigger('click')
    await flushPromises()
    expect(w.text()).toContain('Refused with 422.')
    expect((mechanic.element as HTMLInputElement).value).toBe('June Halloway')
    refuse = 0
    await go(w).trigger('click')
    await flushPromises()
    expect(asked.filter((a) => a.method === 'POST')).toHaveLength(2)
  })
})
