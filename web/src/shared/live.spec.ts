import { effectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

class Source extends EventTarget {
  static CLOSED = 2
  static all: Source[] = []
  readyState = 1
  onopen = () => {}
  onerror = () => {}
  constructor(readonly url: string) {
    super()
    Source.all.push(this)
  }
  close = () => void (this.readyState = 2)
  says(name: string, data: object) {
    this.dispatchEvent(new MessageEvent(name, { data: JSON.stringify(data) }))
  }
  static get open() {
    return Source.all.filter((s) => s.readyState !== 2)
  }
}

/** Messages reach all other tabs at once. */
class Channel {
  static all: Channel[] = []
  onmessage?: (e: { data: unknown }) => void
  constructor() {
    Channel.all.push(this)
  }
  postMessage(data: unknown) {
    for (const c of Channel.all) if (c !== this) c.onmessage?.({ data })
  }
}

/** A tab of the browser: the module as it is loaded once more. */
async function tab() {
  vi.resetModules()
  const { live } = await import('./live')
  const heard: unknown[] = []
  effectScope().run(() => live.on((c) => heard.push(c)))
  await vi.advanceTimersByTimeAsync(50)
  await vi.dynamicImportSettled()
  await vi.advanceTimersByTimeAsync(800)
  return { live, heard }
}

beforeEach(() => {
  Source.all = []
  Channel.all = []
  vi.stubGlobal('EventSource', Source)
  vi.stubGlobal('BroadcastChannel', Channel)
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const one = { all: false, jobs: [{ id: 'j', newest: 'n', here: '' }] }

describe('what changes in the workshop', () => {
  it('comes by one stream for all tabs of a browser', async () => {
    const first = await tab()
    const second = await tab()
    expect(Source.open).toHaveLength(1)
    expect(second.live.holds.value).toBe(false)
    Source.open[0]!.says('changed', one)
    expect(first.heard).toEqual([one])
    expect(second.heard).toEqual([one])
    expect(second.live.holds.value).toBe(true)
    await vi.advanceTimersByTimeAsync(20_000)
    expect(Source.open).toHaveLength(1)
  })

  it('is listened to by another tab where the one that did is closed, or says nothing any more', async () => {
    await tab()
    const left = Source.open[0]!
    const second = await tab()
    Channel.all[0]!.onmessage = undefined
    Channel.all[0]!.postMessage = () => {}
    await vi.advanceTimersByTimeAsync(6000)
    const taken = Source.open.find((s) => s !== left)!
    taken.says('changed', one)
    expect(second.heard).toEqual([one])
  })

  it('is known to come no more where the line is silent, and is asked for anew', async () => {
    const { live } = await tab()
    const first = Source.open[0]!
    first.onopen()
    expect(live.holds.value).toBe(true)
    for (let i = 0; i < 4; i++) {
      await vi.advanceTimersByTimeAsync(10_000)
      first.says('alive', {})
    }
    expect(Source.open).toEqual([first])
    await vi.advanceTimersByTimeAsync(27_000) // half open: nothing comes, and nobody says why
    expect(live.holds.value).toBe(false)
    expect(Source.open).toHaveLength(1)
    expect(Source.open[0]).not.toBe(first)
  })

  it('is tried again where the browser gave it up', async () => {
    await tab()
    const first = Source.open[0]!
    first.close()
    first.onerror()
    await vi.advanceTimersByTimeAsync(4000)
    expect(Source.open).toHaveLength(1)
  })
})
