import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { program, using, type Asked } from '@/testing'
import { useEditor } from './useEditor'

const sheet = (cylinders = 4) => ({
  format: 'metronix.engine/1',
  name: 'Brook 1200',
  cylinders,
  firing_order: cylinders === 4 ? [1, 3, 4, 2] : [1, 3, 2],
  rotation: 'clockwise',
  may_turn_back: false,
  layout: 'inline',
  banks: [{ name: 'head', cylinders: [1], rows: [{ side: 'left', valves: 'EI'.repeat(cylinders) }] }],
})
const look = { ok: true, problems: [], warnings: [], assumed: [] }

let asked: Asked[]
beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  asked = program(({ method, path, query, body }) => {
    if (path === '/sheet-start')
      return { orders: [], source: '', sheet: { ...sheet(Number(/cylinders=(\d+)/.exec(query)![1])), name: '' } }
    if (path === '/look-at-sheet')
      return (body as { name: string }).name
        ? look
        : { ...look, ok: false, problems: [{ location: 'name', message: 'The engine has no name.' }] }
    if (path === '/engines') return [{ id: 'other', name: 'Brook 1400' }]
    if (method === 'PUT') return { id: 'e', version: '2', sheet: body, look }
    return { id: 'e', version: '1', sheet: sheet(), look }
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** Changes settle for a moment before they count as one step. */
const settle = () => vi.advanceTimersByTimeAsync(250)

async function opened(id: string | null = 'e') {
  const e = using(() => useEditor(id))
  const loading = e.load()
  await vi.advanceTimersByTimeAsync(20)
  await loading
  await settle()
  return e
}

describe('a sheet under the pencil', () => {
  it('is as it was stored, and not dirty, when it is opened', async () => {
    const e = await opened()
    expect(e.sheet.value?.name).toBe('Brook 1200')
    expect(e.dirty.value).toBe(false)
    expect(e.past.value).toEqual([])
    expect(e.perCylinder.value).toBe(2)
  })

  it('begins as a four for a new engine, with what is missing said at its place', async () => {
    const e = await opened(null)
    expect(e.sheet.value?.firing_order).toEqual([1, 3, 4, 2])
    expect(e.dirty.value).toBe(true)
    expect(e.said('name')).toHaveLength(1)
    expect(e.said('banks')).toEqual([])
  })

  it('takes what is typed in one go as one step, and goes back and forth', async () => {
    const e = await opened()
    e.sheet.value!.name = 'Brook 12'
    e.sheet.value!.name = 'Brook 1250'
    await settle()
    e.sheet.value!.may_turn_back = true
    await settle()
    expect(e.past.value).toHaveLength(2)
    e.undo()
    expect(e.sheet.value).toMatchObject({ name: 'Brook 1250', may_turn_back: false })
    e.undo()
    expect(e.sheet.value!.name).toBe('Brook 1200')
    expect(e.dirty.value).toBe(false)
    e.undo() // nothing before it
    expect(e.sheet.value!.name).toBe('Brook 1200')
    e.redo()
    expect(e.sheet.value!.name).toBe('Brook 1250')
    e.sheet.value!.name = 'Brook 1300'
    await settle()
    expect(e.future.value, 'a new step ends what could be redone').toEqual([])
  })

  it('takes another shape with its own banks and order, and keeps the rest', async () => {
    const e = await opened()
    e.sheet.value!.marks_deg = [0, 120, 240]
    await settle()
    const shaping = e.reshape({ cylinders: 3 })
    await vi.advanceTimersByTimeAsync(20)
    await shaping
    expect(e.sheet.value).toMatchObject({ name: 'Brook 1200', cylinders: 3, firing_order: [1, 3, 2] })
    expect(e.sheet.value!.marks_deg).toEqual([0, 120, 240])
  })

  it('goes on from the shape asked for last, though its answer is on its way', async () => {
    const e = await opened()
    const both = [e.reshape({ layout: 'vee' }), e.reshape({ cylinders: 3 })]
    await vi.advanceTimersByTimeAsync(20)
    await Promise.all(both)
    expect(e.sheet.value).toMatchObject({ layout: 'vee', cylinders: 3, firing_order: [1, 3, 2] })
    await settle()
    const later = e.reshape({ cylinders: 3 })
    e.undo()
    await vi.advanceTimersByTimeAsync(20)
    await later
    expect(e.sheet.value!.cylinders, 'what was taken back does not come after all').toBe(4)
    expect(e.trouble.value).toBe('')
  })

  it('is stored over the version it was read from, and is then not dirty', async () => {
    const e = await opened()
    e.sheet.value!.name = 'Brook 1250'
    await settle()
    expect(await e.save()).toBe('e')
    const put = asked.find((a) => a.method === 'PUT')!
    expect(put.body).toMatchObject({ name: 'Brook 1250' })
    expect(e.dirty.value).toBe(false)
    expect(e.saved.value).toContain('Saved.')
    expect(e.trouble.value).toBe('')
  })

  it('says why it could not be stored, and loses nothing', async () => {
    const e = await opened()
    e.sheet.value!.name = 'Brook 1250'
    await settle()
    program(() => 409)
    expect(await e.save()).toBeNull()
    expect(e.trouble.value).toBe('Refused with 409.')
    expect(e.sheet.value!.name).toBe('Brook 1250')
    expect(e.dirty.value).toBe(true)
  })

  it('points out a name that another engine has', async () => {
    const e = await opened()
    e.sheet.value!.name = ' brook 1400 '
    await settle()
    expect(e.warned('name').join()).toContain('Another engine')
  })
})
