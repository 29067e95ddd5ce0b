import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { program, using, type Asked } from '@/testing'
import { useEngines } from './useEngines'

const engine = (id: string, name: string, cylinders: number) => ({
  id,
  name,
  layout: 'inline',
  cylinders,
  valves: cylinders * 2,
  firing_order: cylinders === 4 ? [1, 3, 4, 2] : [1, 3, 2],
  banks: [],
})

let asked: Asked[]
let library: ReturnType<typeof engine>[]
beforeEach(() => {
  library = [engine('a', 'Brook 1200', 4), engine('b', 'Heath 900', 3)]
  asked = program(({ method, path, body }) => {
    const id = path.split('/')[2]
    if (path === '/engines') return library
    if (method === 'DELETE') {
      library = library.filter((e) => e.id !== id)
      return {}
    }
    if (method === 'PUT') {
      library = [...library, engine(id!, (body as { name: string }).name, 4)]
      return { id, version: '1', sheet: body, look: {} }
    }
    return { id, version: '1', sheet: { name: library.find((e) => e.id === id)?.name }, look: {} }
  })
})
afterEach(() => vi.unstubAllGlobals())

async function opened() {
  const e = using(useEngines)
  await vi.waitFor(() => expect(e.list.value).toHaveLength(2))
  return e
}

describe('the library', () => {
  it('is searched by name, layout and firing order at once', async () => {
    const e = await opened()
    for (const [words, names] of [
      ['', ['Brook 1200', 'Heath 900']],
      ['brook', ['Brook 1200']],
      ['heath inline', ['Heath 900']],
      ['1-3-4-2', ['Brook 1200']],
      ['brook 900', []],
    ] as const) {
      e.search.value = words
      const found = e.shown.value.map((x) => x.name)
      expect(found, words).toEqual(names)
    }
  })

  it('removes one, says so, and puts it back as it was under its own id', async () => {
    const e = await opened()
    await e.remove('b')
    await vi.waitFor(() => expect(e.list.value!.map((x) => x.id)).toEqual(['a']))
    expect(e.said.value).toBe('Heath 900 was removed.')
    expect(e.removed.value).toMatchObject({ id: 'b', name: 'Heath 900' })
    await e.putBack()
    await vi.waitFor(() => expect(e.list.value!.map((x) => x.id)).toEqual(['a', 'b']))
    expect(e.said.value).toBe('Heath 900 is restored.')
    expect(e.removed.value).toBeNull()
  })

  it('duplicates one under another id and a name that tells the two apart', async () => {
    const e = await opened()
    await e.duplicate('a')
    const put = asked.find((a) => a.method === 'PUT')!
    expect(put.path).not.toBe('/engines/a')
    expect(put.body).toMatchObject({ name: 'Brook 1200 (copy)' })
    await vi.waitFor(() => expect(e.list.value).toHaveLength(3))
  })

  it('takes a sheet file, or says what is wrong with it and stores nothing', async () => {
    const e = await opened()
    await e.importFile(new File(['{"name":"Moor 600"}'], 'moor.engine.json'))
    expect(e.said.value).toBe('Moor 600 is in the library.')
    program(() => 422)
    await e.importFile(new File(['{}'], 'none.json'))
    await flushPromises()
    expect(e.trouble.value).toBe('Refused with 422.')
    expect(e.said.value).toBe('')
  })

  it('says that it could not be read', async () => {
    program(() => 500)
    const e = using(useEngines)
    await vi.waitFor(() => expect(e.trouble.value).toBe('Refused with 500.'))
    expect(e.list.value).toBeUndefined()
  })
})
