// @vitest-environment node
import { afterEach, describe, expect, it, vi } from 'vitest'
import { smaller } from './smaller'

afterEach(() => vi.unstubAllGlobals())

/** A browser that reads pictures of a size and says what was drawn. */
function browser(width: number, height: number) {
  const drawn: number[][] = []
  vi.stubGlobal('createImageBitmap', async () => ({ width, height, close: () => {} }))
  vi.stubGlobal(
    'OffscreenCanvas',
    class {
      constructor(
        public width: number,
        public height: number,
      ) {}
      getContext = () => ({ drawImage: (...at: unknown[]) => drawn.push(at.slice(1) as number[]) })
      convertToBlob = async () => new Blob(['small'])
    },
  )
  return drawn
}

describe('a photograph before it is sent', () => {
  const large = new Blob([new Uint8Array(3 << 20)])

  it('is made as small as it is kept', async () => {
    const drawn = browser(4000, 3000)
    expect((await smaller(large)).size).toBe(5)
    expect(drawn).toEqual([[0, 0, 1600, 1200]])
  })

  it('goes as it is where it is small, or cannot be read', async () => {
    browser(800, 600)
    const small = new Blob(['x'])
    expect(await smaller(small)).toBe(small)
    vi.stubGlobal('createImageBitmap', async () => {
      throw new Error('not a picture')
    })
    expect(await smaller(large)).toBe(large)
  })
})
