import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { guard, settle } from './guard'

beforeEach(() => vi.useFakeTimers())
afterEach(() => {
  guard.end()
  vi.useRealTimers()
})

describe('a short while in which nothing is taken', () => {
  it('ends by itself, begins anew, and can be ended', () => {
    guard.begin()
    vi.advanceTimersByTime(settle - 1)
    expect(guard.on.value).toBe(true)
    guard.begin()
    vi.advanceTimersByTime(settle - 1)
    expect(guard.on.value).toBe(true)
    vi.advanceTimersByTime(1)
    expect(guard.on.value).toBe(false)
    guard.begin()
    guard.end()
    expect(guard.on.value).toBe(false)
  })

  it('keeps taps from every control, and leaves writing alone', () => {
    const taken: string[] = []
    document.body.innerHTML = '<button>a</button><div role="dialog"><button>b</button></div><input />'
    for (const e of document.querySelectorAll('button, input'))
      e.addEventListener('click', () => taken.push(e.textContent || e.tagName))
    const all = () => document.querySelectorAll<HTMLElement>('button, input').forEach((e) => e.click())
    guard.begin()
    all()
    expect(taken).toEqual(['INPUT'])
    guard.end()
    all()
    expect(taken).toEqual(['INPUT', 'a', 'b', 'INPUT'])
  })

  it('keeps a tap that was made meanwhile, though a busy page comes to it later', () => {
    const taken: number[] = []
    document.body.innerHTML = '<button>a</button>'
    const button = document.querySelector('button')!
    button.addEventListener('click', (e) => taken.push(e.timeStamp))
    guard.begin()
    const early = performance.now()
    vi.advanceTimersByTime(settle)
    expect(guard.on.value).toBe(false)
    for (const at of [early, early + settle - 1, early + settle]) {
      const tap = new MouseEvent('click', { bubbles: true })
      Object.defineProperty(tap, 'timeStamp', { value: at })
      button.dispatchEvent(tap)
    }
    expect(taken).toEqual([early + settle])
  })
})
