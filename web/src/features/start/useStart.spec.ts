import { nextTick } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { program, using, type Asked } from '@/testing'
import { sent } from '@/shared/mine'
import { useStart } from './useStart'

const vehicle = (id: string, engine: string, km: number, on_board = true) => ({
  id,
  name: `Vehicle ${id}`,
  plate: id,
  engine_id: engine,
  engine_name: engine,
  odometer_km: km,
  on_board,
})
const card = (state: string) => ({ state, source: 'maker’s book', differences: [] })
const job = {
  vehicle: { id: 'v1' },
  card_index: 1,
  gauge_name: 'Set b',
  hot_card: -1,
  card_reason: 'the plate is newer',
  aim: 'loose',
  aim_reason: 'hard use',
  rule: 'guarded',
  feel_mm: 0.004,
  mechanic: 'June Aster',
  reason: 'Rough idle',
  odometer_km: 90000,
}

let asked: Asked[]
let refuse = 0
/** Why the first card of the second engine is not to be used; empty: it has no cards. */
let distrusted = ''
const unknown = {
  names: [],
  mechanic: '',
  says: '',
  gauge_set_id: '',
  leaves_are: '',
  variant: '',
  card: -1,
  rule: 'workshop',
  aim: 'nominal',
  gone: [],
}
let myWay: Record<string, unknown> = unknown
beforeEach(() => {
  myWay = unknown
  localStorage.clear()
  sessionStorage.clear()
  refuse = 0
  distrusted = ''
  asked = program(({ method, path }) => {
    if (method !== 'GET') return refuse || { id: 'x' }
    if (path === '/vehicles') return [vehicle('v1', 'e1', 80000), vehicle('v2', 'e2', 0), vehicle('v3', 'e1', 0, false)]
    if (path === '/engines')
      return [
        { id: 'e1', variants: [], cards: [card('cold'), card('cold'), card('hot')] },
        { id: 'e2', variants: [], cards: distrusted ? [{ ...card('cold'), distrusted }, card('cold')] : [] },
      ]
    if (path === '/gauge-sets')
      return [
        { id: 'a', name: 'Set a' },
        { id: 'b', name: 'Set b' },
      ]
    if (path.endsWith('/my-way')) return myWay
    if (path === '/jobs') return [{ id: 'going', vehicle: 'Vehicle v1', plate: 'v1' }]
    return job
  })
})
afterEach(() => vi.unstubAllGlobals())

async function opened(correcting = '', asked = '') {
  const s = using(() => useStart(correcting, asked))
  await s.load()
  return s
}

describe('starting a job', () => {
  it('says one by one what is missing', async () => {
    const s = await opened()
    expect(s.missing.value).toBe('Choose the vehicle.')
    s.choose('v2')
    expect(s.missing.value).toContain('no clearance card')
    s.choose('v1')
    expect(s.missing.value).toBe('Say who does the job.')
    s.form.value.mechanic = 'Oskar Venn'
    expect(s.missing.value).toBe('')
    s.slipped.value = '82.5'
    expect(s.missing.value).toContain('whole number')
    s.slipped.value = ''
    s.form.value.feel = '0.0O5'
    expect(s.missing.value).not.toBe('')
  })

  it('has the odometer read anew, and asks why one runs backwards', async () => {
    const s = await opened()
    s.choose('v1')
    s.form.value.mechanic = 'Oskar Venn'
    expect(s.form.value.odometer).toBeUndefined()
    expect(s.backwards.value).toBe('')
    s.form.value.odometer = 79000
    expect(s.backwards.value).toBe('80,000 km')
    expect(s.missing.value).toContain('why the odometer shows less')
    s.form.value.odometerWhy = 'New instrument'
    expect(s.missing.value).toBe('')
  })

  it('counts running hours where the vehicle does', async () => {
    const s = await opened()
    s.every.value[0] = { ...s.every.value[0]!, id: 'pump', counts: 'h', odometer_km: 0, hours: 1250 }
    s.choose('pump')
    s.form.value.mechanic = 'Oskar Venn'
    s.form.value.odometer = 125
    expect(s.backwards.value).toBe('1,250 h')
    expect(s.missing.value).toBe('Say why the hour meter shows less than last time.')
    expect(sent('h', 125)).toEqual({ hours: 125 })
    expect(sent('km', undefined)).toEqual({ odometer_km: 0 })
  })

  it('begins with the vehicle that it was asked for, and with none where there is no such one', async () => {
    expect((await opened('', 'gone')).form.value.vehicle).toBe('')
    const s = await opened('', 'v1')
    expect(s.form.value.vehicle).toBe('v1')
  })

  it('fills in how the mechanic did it last, but what was chosen by hand, and starts so in one', async () => {
    const way = { school: 'rocking_pairs', order: 'turning', round: 'set_as_you_go', check: 'none' }
    myWay = {
      ...unknown,
      gauge_set_id: 'b',
      feel_mm: 0.003,
      leaves_are: 'oiled',
      card: 1,
      rule: 'one_leaf',
      aim: 'loose',
      way,
    }
    localStorage.setItem('metronix.mechanic', 'June Aster')
    const s = await opened()
    s.choose('v1')
    await vi.waitFor(() => expect(s.my.way.value?.way).toEqual(way))
    expect(asked.find((a) => a.path.endsWith('/my-way'))!.query).toBe('?mechanic=June%20Aster')
    expect(s.form.value).toMatchObject({
      set: 'b',
      card: 1,
      rule: 'one_leaf',
      aim: 'loose',
      leavesAre: 'oiled',
      feel: '0.003',
    })
    s.form.value.set = 'a'
    s.my.byHand('set')
    await vi.waitFor(() => expect(asked.at(-1)!.query).toContain('gauge_set_id=a'))
    expect(s.form.value.set).toBe('a')
    const id = await s.start(true)
    expect(id).not.toBe('')
    expect(asked.filter((a) => a.method === 'POST').map((a) => a.body)).toMatchObject([
      { id, card: 1, gauge_set_id: 'a', leaves_are: 'oiled', odometer_km: 0 },
      { ...way, kind: 'way_chosen' },
    ])
  })

  it('never chooses figures that are not to be used, and starts as the variant that is chosen', async () => {
    distrusted = 'the maker never gave it'
    myWay = { ...unknown, variant: 'early' }
    localStorage.setItem('metronix.mechanic', 'June Aster')
    const s = await opened('', 'v2')
    await vi.waitFor(() => expect(s.form.value.card).toBe(1))
    await vi.waitFor(() => expect(s.form.value.variant).toBe('early'))
    expect(s.missing.value).toBe('')
    s.form.value.card = 0
    expect(s.missing.value).toBe('These figures are not to be used: add a card that may be.')
    s.form.value.card = 1
    await s.start()
    expect(asked.findLast((a) => a.method === 'POST')!.body).toMatchObject({ card: 1, variant: 'early' })
  })

  it('starts by no way of a mechanic before, and lays nothing over what was typed', async () => {
    const way = { school: 'rocking_pairs', order: 'turning', round: 'set_as_you_go', check: 'none' }
    myWay = { ...unknown, gauge_set_id: 'b', feel_mm: 0.003, leaves_are: 'oiled', card: 1, way }
    localStorage.setItem('metronix.mechanic', 'June Aster')
    const s = await opened('', 'v1')
    await vi.waitFor(() => expect(s.my.current.value).toBe(true))
    s.form.value.feel = '0.008'
    s.my.byHand('feel')
    myWay = { ...myWay, leaves_are: '', feel_mm: 0.002 }
    s.form.value.mechanic = 'Ada Reed'
    expect(s.my.current.value).toBe(false)
    expect(await s.start(true)).toBe('')
    expect(asked.filter((a) => a.method === 'POST')).toEqual([])
    await vi.waitFor(() => expect(s.my.current.value).toBe(true))
    expect(s.form.value).toMatchObject({ feel: '0.008', leavesAre: '', card: 1 })

    // left in the middle and opened again: what was chosen by hand stands, the rest is proposed
    await nextTick()
    const again = await opened()
    await vi.waitFor(() => expect(again.my.current.value).toBe(true))
    expect(again.form.value).toMatchObject({ vehicle: 'v1', mechanic: 'Ada Reed', feel: '0.008', set: 'b' })
  })

  it('shows the vehicles worked on last first, finds any, and shows all where that is wanted', async () => {
    const s = await opened()
    s.every.value = Array.from({ length: 20 }, (_, i) => ({
      ...s.every.value[0]!,
      id: `m${i}`,
      name: `Mower ${i}`,
      plate: `M${i}`,
    }))
    expect(s.offered.value).toHaveLength(5)
    s.search.value = 'mower 17'
    expect(s.offered.value.map((v) => v.id)).toEqual(['m17'])
    s.search.value = ''
    s.all.value = true
    expect(s.offered.value).toHaveLength(20)
  })

  it('lets the hot pass go where another card is chosen than a cold one', async () => {
    const s = await opened()
    s.choose('v1')
    s.form.value.hotCard = 2
    s.form.value.card = 2
    await nextTick()
    expect(s.form.value.hotCard).toBe(-1)
  })

  it('sends what was chosen, remembers the mechanic’s own, and is one job however often it is pressed', async () => {
    const s = await opened()
    s.choose('v1')
    Object.assign(s.form.value, { mechanic: ' Oskar Venn ', set: 'b', feel: '0,004' })
    const [id, second] = await Promise.all([s.start(), s.start()])
    expect(second).toBe('')
    const posts = asked.filter((a) => a.method === 'POST')
    expect(posts).toHaveLength(1)
    expect(posts[0]!.body).toMatchObject({
      id,
      vehicle_id: 'v1',
      gauge_set_id: 'b',
      mechanic: 'Oskar Venn',
      feel_mm: 0.004,
    })
    expect(localStorage.getItem('metronix.mechanic')).toBe('Oskar Venn')
    const next = await opened()
    expect(next.form.value).toMatchObject({ mechanic: 'Oskar Venn', set: 'b' })
  })

  it('keeps what was typed over another page, and drops it once the job is started', async () => {
    const s = await opened()
    s.choose('v1')
    s.form.value.mechanic = 'Oskar Venn'
    await nextTick()
    const back = await opened()
    expect(back.form.value).toMatchObject({ vehicle: 'v1', mechanic: 'Oskar Venn' })
    await back.start()
    await nextTick()
    expect((await opened()).form.value.vehicle).toBe('')
  })

  it('says why it was refused, and starts the same job at the next press', async () => {
    const s = await opened()
    s.choose('v1')
    s.form.value.mechanic = 'Oskar Venn'
    refuse = 503
    expect(await s.start()).toBe('')
    expect(s.trouble.value).toBe('Refused with 503.')
    refuse = 0
    await s.start()
    const ids = asked.filter((a) => a.method === 'POST').map((a) => (a.body as { id: string }).id)
    expect(new Set(ids).size).toBe(1)
  })

  it('knows which vehicle has a job on the go, and which are off the list', async () => {
    const s = await opened()
    expect(s.vehicles.value.map((v) => v.id)).toEqual(['v1', 'v2'])
    expect(s.off.value.map((v) => v.id)).toEqual(['v3'])
    expect(s.going(s.every.value[0]!)?.id).toBe('going')
    expect(s.going(s.every.value[1]!)).toBeUndefined()
  })

  it('corrects a job from what it started from, under its own id', async () => {
    const s = await opened('going')
    expect(s.form.value).toMatchObject({
      vehicle: 'v1',
      card: 1,
      set: 'b',
      rule: 'guarded',
      feel: '0.004',
      odometer: 90000,
    })
    expect(s.going(s.every.value[0]!), 'itself is no other job').toBeUndefined()
    expect(await s.start()).toBe('going')
    expect(asked.at(-1)).toMatchObject({ method: 'PUT', path: '/jobs/going/start' })
  })
})
