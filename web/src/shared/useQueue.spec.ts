import 'fake-indexeddb/auto'
import fc from 'fast-check'
import { openDB } from 'idb'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Happening } from './api/client'
import type { Waiting } from './useQueue'

/** What becomes of a request on its way, and of its answer. */
type Fate = 'arrives' | 'lost' | 'answer lost' | 'refused' | 'not here' | 'broken'
type Step =
  | { does: 'taps'; job: 'a' | 'b'; moves: boolean }
  | { does: 'line'; fates: Fate[] }
  | { does: 'decides'; all: boolean }
  | { does: 'loads' }
  | { does: 'sends' }

const fate = fc.constantFrom<Fate>('arrives', 'arrives', 'lost', 'answer lost', 'refused', 'not here', 'broken')
const step: fc.Arbitrary<Step> = fc.oneof(
  {
    weight: 5,
    arbitrary: fc.record({
      does: fc.constant('taps' as const),
      job: fc.constantFrom('a' as const, 'b' as const),
      moves: fc.boolean(),
    }),
  },
  { weight: 4, arbitrary: fc.record({ does: fc.constant('line' as const), fates: fc.array(fate, { maxLength: 4 }) }) },
  { weight: 2, arbitrary: fc.record({ does: fc.constant('decides' as const), all: fc.boolean() }) },
  { weight: 1, arbitrary: fc.constant({ does: 'loads' as const }) },
  { weight: 3, arbitrary: fc.constant({ does: 'sends' as const }) },
)

/** A program that misbehaves as it is told to, and knows a happening that comes again. */
class Program {
  fates: Fate[] = []
  stored: string[] = []
  refusedFor = new Set<string>()
  asked: string[] = []
  answer = async (request: Request): Promise<Response> => {
    const { id } = (await request.clone().json()) as Happening
    this.asked.push(id)
    const fate = this.fates.shift() ?? 'arrives'
    if (fate === 'lost') throw new TypeError('no way')
    if (fate === 'not here' || fate === 'broken')
      return new Response(JSON.stringify({ status: fate === 'broken' ? 500 : 404, detail: fate }), {
        status: fate === 'broken' ? 500 : 404,
        headers: { 'Content-Type': 'application/problem+json' },
      })
    const known = this.stored.includes(id)
    if (fate === 'refused' && !known) {
      this.refusedFor.add(id)
      return new Response(JSON.stringify({ status: 409, detail: 'no' }), {
        status: 409,
        headers: { 'Content-Type': 'application/problem+json' },
      })
    }
    if (!known) this.stored.push(id)
    if (fate === 'answer lost') throw new TypeError('cut')
    return new Response(JSON.stringify({ newest: id }), { headers: { 'Content-Type': 'application/json' } })
  }
}

type Queue = ReturnType<(typeof import('./useQueue'))['useQueue']>
/** The page as it is loaded, with what the browser has kept. */
async function page(): Promise<Queue> {
  vi.resetModules()
  const { useQueue } = await import('./useQueue')
  return useQueue()
}

const nothing = () => {}
const settled = () => new Promise((done) => setImmediate(done))

beforeEach(async () => {
  const db = await openDB('metronix', 1, { upgrade: (db) => void db.createObjectStore('waits') })
  await db.clear('waits')
  db.close()
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('what waits in the browser', () => {
  it('is stored once and in its order or left out by the mechanic, whatever the program and the line do', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 25 }), async (steps) => {
        const program = new Program()
        vi.stubGlobal('fetch', program.answer)
        const db = await openDB('metronix', 1)
        await db.clear('waits')
        db.close()
        let queue = await page()
        await settled()
        const tapped: { id: string; job: string }[] = []
        const leftOut = new Set<string>()
        let n = 0
        const list = () => queue.waiting.value
        const stuck = (job: string) => {
          const mine = list().filter((w) => w.job === job)
          const at = mine.findIndex((w) => w.refused)
          return at < 0 ? [] : mine.slice(at)
        }
        const decide = async (all: boolean) => {
          for (const job of ['a', 'b']) {
            const refused = stuck(job)
            const out: Waiting[] = refused.slice(0, all ? undefined : 1)
            for (const w of out) leftOut.add(w.body.id)
            await queue.leaveOut(out)
            // nobody knows then where the crank stands, and that is the next that is sent; it is refused only where no crank counts
            if (out.some((w) => w.moves && w.body.kind !== 'doubted'))
              expect(list().find((w) => w.job === job)?.body.kind).toBe('doubted')
          }
        }
        for (const s of steps) {
          const held = ['a', 'b'].flatMap(stuck).map((w) => w.body.id)
          program.asked = []
          if (s.does === 'taps') {
            const id = `tap-${String(++n).padStart(6, '0')}`
            tapped.push({ id, job: s.job })
            await queue.add(
              s.job,
              { id, kind: s.moves ? 'turned' : 'kept', valve: 'E1', stop: 0 } as Happening,
              s.moves,
            )
          } else if (s.does === 'line') program.fates = [...s.fates]
          else if (s.does === 'decides') await decide(s.all)
          else if (s.does === 'loads') queue = await page()
          if (s.does !== 'taps') await queue.flush(nothing)
          if (s.does !== 'decides')
            expect(
              program.asked.filter((id) => held.includes(id)),
              'nothing from the first refused one on is sent',
            ).toEqual([])
        }
        program.fates = []
        for (let i = 0; i < 60 && list().length; i++) {
          await decide(false)
          await queue.flush(nothing)
          await vi.advanceTimersByTimeAsync(2500)
        }
        expect(list()).toEqual([])
        const stored = program.stored.filter((id) => id.startsWith('tap-'))
        expect(new Set(stored).size, 'each once').toBe(stored.length)
        for (const { id } of tapped)
          expect(stored.includes(id) || leftOut.has(id) || program.refusedFor.has(id), `${id} is not lost`).toBe(true)
        for (const job of ['a', 'b']) {
          const mine = tapped.filter((x) => x.job === job && stored.includes(x.id)).map((x) => x.id)
          expect(
            stored.filter((id) => mine.includes(id)),
            'in its order',
          ).toEqual(mine)
        }
      }),
      { numRuns: 60 },
    )
  })

  it('is the same in two tabs, and what one sent the other does not wait for', async () => {
    const program = new Program()
    vi.stubGlobal('fetch', program.answer)
    const first = await page()
    const second = await page()
    await settled()
    program.fates = ['lost']
    await first.add('a', { id: 'tap-000001', kind: 'kept', valve: 'E1' } as Happening)
    await first.flush(nothing)
    await vi.waitFor(() => expect(second.waiting.value).toHaveLength(1))
    await second.flush(nothing)
    await vi.waitFor(() => expect(first.waiting.value).toHaveLength(0))
    await first.flush(nothing)
    expect(program.stored).toEqual(['tap-000001'])
  })

  it('waits for whoever did it, with what was done after it, or is sent in his place', async () => {
    const program = new Program()
    vi.stubGlobal('fetch', program.answer)
    const queue = await page()
    const { people } = await import('./session')
    const comes = (name: string) =>
      people.take({
        open: false,
        set_up: false,
        may: [],
        people: [],
        places: [],
        out_after_min: 30,
        person: { id: name, name, role: 'mechanic' },
      })
    const sent = async () => {
      await queue.flush(nothing)
      return program.stored
    }
    const kept = (id: string) => queue.add('a', { id, kind: 'kept', valve: 'E1' } as Happening)
    comes('Tess')
    program.fates = ['lost']
    await kept('tap-000001')
    await sent()
    comes('Ivo')
    await kept('tap-000002')
    expect(await sent()).toEqual([])
    comes('Tess')
    expect(await sent()).toEqual(['tap-000001'])
    const [ivos] = queue.waiting.value
    expect(ivos!.body).toMatchObject({ id: 'tap-000002', author: 'Ivo' })
    comes('June')
    expect(await sent()).toHaveLength(1)
    await queue.change(ivos!, { ...ivos!.body, sent_by: 'June' })
    expect(await sent()).toEqual(['tap-000001', 'tap-000002'])
  })

  it('keeps its time where the browser’s clock is a day off', async () => {
    const queue = await page()
    const now = Date.now()
    queue.tell(new Date(now + 86_400_000).toISOString())
    expect(Date.parse(queue.now()) - now).toBeGreaterThan(86_000_000)
  })
})
