import { effectScope, nextTick, shallowRef } from 'vue'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { JobView } from '@/shared/api/client'
import { useClear } from './useClear'

const clear = { screen: 's', newest: 'n', until: '2026-11-30T10:01:00Z' }
const view = (newest: string, clear?: object) => ({ clear, state: { id: 'j', newest } }) as unknown as JobView
const at = Date.parse('2026-11-30T10:00:00Z')

afterEach(() => vi.unstubAllGlobals())

describe('hands clear', () => {
  it('holds for what was shown when it was said, and is taken back though the job was read meanwhile', async () => {
    vi.stubGlobal('fetch', async ({ method }: Request) =>
      method === 'PUT'
        ? new Response(JSON.stringify(clear), { headers: { 'Content-Type': 'application/json' } })
        : new Response(null, { status: 204 }),
    )
    const shown = shallowRef(view('n'))
    const hands = effectScope().run(() => useClear(shown, () => at))!
    expect(hands.left.value).toBe(0)
    await hands.clear()
    expect(hands.left.value).toBe(60)
    shown.value = view('n', clear)
    await hands.stop()
    expect(hands.left.value).toBe(0)
    await hands.clear()
    shown.value = view('next')
    await nextTick()
    expect(hands.left.value).toBe(0)
  })
})
