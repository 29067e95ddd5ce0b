import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { program, type Asked } from '@/testing'
import ShopPage from './ShopPage.vue'

const shop = (count: number) => ({
  version: `v${count}`,
  probe_address: '',
  shim_sizes: { from_mm: 2, to_mm: 3, step_mm: 0.05 },
  shim_stock: [{ shim_mm: 2.55, count }],
})
let asked: Asked[]
let refuse = 0
let count = 2
beforeEach(() => {
  localStorage.clear()
  sessionStorage.clear()
  refuse = 0
  count = 2
  asked = program(({ method, path }) => {
    if (path === '/probe') return { state: 'off', detail: '' }
    if (path === '/instruments')
      return { addresses: { crank: '', dial: '', wrench: '', pull: '' }, list: [], pull: { from_n: 1, to_n: 4 } }
    if (method === 'PUT' && refuse) return refuse
    return shop(count)
  })
})
const opened = async () => {
  const w = mount(ShopPage)
  await flushPromises()
  return w
}
type Page = Awaited<ReturnType<typeof opened>>
const field = (w: Page, label: string) =>
  w
    .findAll('.v-input')
    .find((f) => f.text().includes(label) || f.find('input').attributes('aria-label') === label)!
    .find('input')
const save = async (w: Page) => {
  await w
    .findAll('button')
    .find((b) => b.text() === 'Save')!
    .trigger('click')
  await flushPromises()
}
const puts = () => asked.filter((a) => a.method === 'PUT')

describe('the workshop’s page', () => {
  it('stores what was typed, a decimal comma too, with the version it was read at', async () => {
    const w = await opened()
    await field(w, 'Step').setValue('0,025')
    await save(w)
    expect(puts().map((a) => a.body)).toMatchObject([
      {
        version: 'v2',
        shim_sizes: { from_mm: 2, to_mm: 3, step_mm: 0.025 },
        shim_stock: [{ shim_mm: 2.55, count: 2 }],
      },
    ])
    expect((field(w, 'Step').element as HTMLInputElement).value, 'as the program has it now').toBe('0.05')
  })
  it('refuses a figure that is none by its place, and sends nothing', async () => {
    const w = await opened()
    await field(w, 'Step').setValue('0.O5')
    await save(w)
    expect(w.text()).toContain('This cannot be saved: a figure is not a number.')
    expect(w.text()).toContain('Step')
    expect(puts()).toHaveLength(0)
  })
  it('shows the stock as it stands where a shim was used meanwhile, and keeps what was typed', async () => {
    const w = await opened()
    await field(w, 'Step').setValue('0.1')
    refuse = 409
    count = 1
    await save(w)
    expect(w.text()).toContain('Shims were used or counted elsewhere meanwhile')
    expect((field(w, 'Step').element as HTMLInputElement).value).toBe('0.1')
    refuse = 0
    await save(w)
    expect(puts().at(-1)!.body).toMatchObject({ version: 'v1', shim_stock: [{ shim_mm: 2.55, count: 1 }] })
  })
})
