import { decimal } from '@/shared/decimal'
import type { Schemas } from '@/shared/api/client'

/** The unit in which a card gives its figures. */
export type Unit = 'mm' | 'in' | 'thou'

/** A clearance as it was typed in one field, and what is still wrong with it. */
export interface LimitLine {
  stated: Schemas['Clearance']
  /** As it was understood; empty: not at all. */ says: string
  /** What is wrong with it; empty: nothing. */ trouble: string
}

const units: [RegExp, Unit][] = [
  [/\s*mm\s*$/i, 'mm'],
  [/\s*(thou|thousandths)\s*$/i, 'thou'],
  [/\s*("|″|in|inch|inches)\s*$/i, 'in'],
]
const names: Record<Unit, string> = { mm: 'mm', in: 'in', thou: 'thou' }

/**
 * Reads one clearance: a nominal (0.25), two limits (0.20–0.30) or a nominal with its tolerance (0.25 ± 0.05). A unit written behind it
 * goes before the one that was chosen; with neither nothing is taken, for 12 may be hundredths or thousandths.
 */
export function readLimit(text: string, chosen: Unit | ''): LimitLine {
  const fail = (trouble: string): LimitLine => ({ stated: {}, says: '', trouble })
  const written = units.find(([form]) => form.test(text))
  const plain = (written ? text.replace(written[0], '') : text).trim()
  const unit = written?.[1] ?? chosen
  if (!plain) return fail('')
  const [, first, sign, second] = /^(\S+?)\s*(±|\+\/?[-−]|–|\bto\b|[-−])\s*(\S+)$/.exec(plain) ?? ['', plain]
  const a = decimal(first!)
  const b = second === undefined ? undefined : decimal(second)
  if (a === null || a <= 0 || b === null || (b !== undefined && b <= 0))
    return fail(`“${text.trim()}” is no clearance: give 0.25, or 0.20–0.30, or 0.25 ± 0.05.`)
  if (!unit) return fail('Say which unit the figures are in.')
  const limits = b !== undefined && !/[±+]/.test(sign!)
  if (limits && b <= a) return fail(`${second} is not above ${first}: the smaller limit comes first.`)
  const end = unit === 'mm' ? 'mm' : 'in'
  const kept = (x: number) => (unit === 'thou' ? Number((x / 1000).toFixed(7)) : x)
  const named = limits ? (['lower', 'upper'] as const) : (['nominal', 'tolerance'] as const)
  const stated: Schemas['Clearance'] = { [`${named[0]}_${end}`]: kept(a) }
  if (b !== undefined) stated[`${named[1]}_${end}`] = kept(b)
  const joined = b === undefined ? first : `${first}${limits ? '–' : ' ± '}${second}`
  return { stated, says: `${joined} ${names[unit]}`, trouble: '' }
}
