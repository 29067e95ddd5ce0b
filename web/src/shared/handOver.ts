import type { Happening } from './api/client'
import type { Waiting } from './useQueue'

/** What waits on a tablet under one address, on its way to another. */
export interface Handed {
  /** The address that it comes from. */
  from: string
  list: Waiting[]
}

/** How much is taken over at once; a tablet never holds more of a day's work off the network. */
const most = 5000
const mostText = 4_000_000

async function through(bytes: Uint8Array<ArrayBuffer>, way: TransformStream): Promise<Uint8Array<ArrayBuffer>> {
  const out = new Blob([bytes]).stream().pipeThrough(way) as ReadableStream<Uint8Array<ArrayBuffer>>
  const parts: Uint8Array<ArrayBuffer>[] = []
  let size = 0
  for (const reader = out.getReader(); ;) {
    const { done, value } = await reader.read()
    if (done) break
    if ((size += value.length) > mostText) throw new Error('too much')
    parts.push(value)
  }
  return new Uint8Array(await new Blob(parts).arrayBuffer())
}

/** What stands behind the # of an address: compressed, in letters that an address may hold (RFC 4648, 5). */
export async function packed(handed: Handed): Promise<string> {
  const text = new TextEncoder().encode(JSON.stringify(handed))
  const bytes = await through(text, new CompressionStream('deflate-raw'))
  let letters = ''
  for (const b of bytes) letters += String.fromCharCode(b)
  return btoa(letters).replaceAll('+', '-').replaceAll('/', '_').replaceAll('=', '')
}

const isText = (x: unknown): x is string => typeof x === 'string' && x !== ''

/** One entry with what it consists of and nothing else; null where it is none. */
function entry(of: unknown): Waiting | null {
  const { job, body, at, moves } = (of ?? {}) as Partial<Waiting>
  const { id, kind } = (body ?? {}) as Partial<Happening>
  if (!isText(job) || !isText(id) || !isText(kind) || !isText(at) || Number.isNaN(Date.parse(at))) return null
  return { job, body: body!, at, ...(moves ? { moves } : {}) }
}

/** Reads what stands behind the # of an address. It errs with a sentence where that is no such thing, or not whole. */
export async function unpacked(letters: string): Promise<Handed> {
  const none =
    'This address does not hold entries of a tablet, or not all of them: open the first address again, and hand over once more.'
  try {
    const bytes = Uint8Array.from(atob(letters.replaceAll('-', '+').replaceAll('_', '/')), (c) => c.charCodeAt(0))
    const text = new TextDecoder().decode(await through(bytes, new DecompressionStream('deflate-raw')))
    const { from, list } = JSON.parse(text) as Partial<Handed>
    const entries = Array.isArray(list) && list.length <= most ? list.map(entry) : []
    if (!isText(from) || !entries.length || entries.includes(null)) throw new Error(none)
    return { from: new URL(from).origin, list: entries as Waiting[] }
  } catch {
    throw new Error(none)
  }
}
