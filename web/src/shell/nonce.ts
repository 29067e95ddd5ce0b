/** The index as it was kept, with a nonce of its own: none is seen twice. */
export async function withNonce(kept: Response, nonce: string): Promise<Response> {
  const headers = new Headers(kept.headers)
  const policy = headers.get('Content-Security-Policy') ?? ''
  const old = /'nonce-([^']+)'/.exec(policy)?.[1]
  let text = await kept.text()
  if (old) {
    headers.set('Content-Security-Policy', policy.replaceAll(old, nonce))
    text = text.replaceAll(`nonce="${old}"`, `nonce="${nonce}"`)
  }
  headers.delete('Content-Length')
  headers.delete('Content-Encoding') // it is read already
  return new Response(text, { headers })
}
