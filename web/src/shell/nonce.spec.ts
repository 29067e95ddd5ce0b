import { describe, expect, it } from 'vitest'
import { withNonce } from './nonce'

describe('the index that was kept', () => {
  it('is shown with a nonce of its own, which its policy names', async () => {
    const kept = () =>
      new Response('<meta property="csp-nonce" nonce="first"><p>first</p>', {
        headers: {
          'Content-Security-Policy': "default-src 'none'; style-src 'self' 'nonce-first'",
          'Content-Length': '49',
          'Content-Type': 'text/html; charset=utf-8',
        },
      })
    const page = await withNonce(kept(), 'second')
    expect(await page.text()).toBe('<meta property="csp-nonce" nonce="second"><p>first</p>')
    expect(page.headers.get('Content-Security-Policy')).toBe("default-src 'none'; style-src 'self' 'nonce-second'")
    expect(page.headers.get('Content-Type')).toBe('text/html; charset=utf-8')
    expect(page.headers.get('Content-Length')).toBeNull()
  })
})
