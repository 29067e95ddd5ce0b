import { decimal } from '@/shared/decimal'

/** A set of leaves as it is written in one line: each mark, and … for those between by the same step. */
export interface LeafLine {
  marks: string[]
  thou: boolean
  /** What is wrong with it; empty: nothing. */ trouble: string
}

/** Sets as they are commonly sold (common practice). */
export const usualSets = [
  { title: '0.05 to 1.00 by 0.05', line: '0.05 0.10 … 1.00' },
  { title: '13 leaves, 0.05 to 1.00', line: '0.05 0.10 0.15 0.20 0.25 0.30 0.40 0.50 0.60 0.70 0.80 0.90 1.00' },
  { title: '0.002 to 0.025 in by a thou', line: '0.002 0.003 … 0.025 in' },
] as const

/** The most leaves of a line, so that a slip makes no thousands. */
const most = 100

/** Reads a line of leaves; what cannot be read is told by the word that is at fault. */
export function readLeafLine(text: string): LeafLine {
  const thou = /\b(in|inch|inches)\b|"/.test(text)
  const words = text
    .replace(/\b(mm|in|inch|inches)\b|"/g, ' ')
    .replace(/\.\.\.+|…/g, ' … ')
    .split(/[\s;]+|,(?=\s)/)
    .filter(Boolean)
  const found: number[] = []
  const fail = (trouble: string): LeafLine => ({ marks: [], thou, trouble })
  const places = Math.max(2, ...words.map((w) => (w.split(/[.,]/)[1] ?? '').length))
  for (const [i, word] of words.entries()) {
    if (word === '…') {
      const to = decimal(words[i + 1] ?? '')
      const [before, last] = found.slice(-2)
      if (before === undefined || last === undefined)
        return fail('“…” wants two leaves before it: they say how far apart the leaves between are.')
      if (to === null) return fail('“…” wants a leaf after it: the last of the row.')
      const step = last - before
      const n = (to - last) / step
      if (!(step > 0 && n > 0) || Math.abs(n - Math.round(n)) > 1e-6)
        return fail(`From ${last} by ${Number(step.toFixed(places))} one does not come to ${words[i + 1]}.`)
      if (n > most) return fail(`That would be ${Math.round(n)} leaves more: at most ${most} are read.`)
      for (let k = 1; k < Math.round(n); k++) found.push(last + k * step)
      continue
    }
    const figure = decimal(word)
    if (figure === null || figure <= 0) return fail(`“${word}” is no leaf.`)
    found.push(figure)
  }
  const marks = found.map((f) => f.toFixed(places))
  const twice = marks.find((m, i) => marks.indexOf(m) !== i)
  if (twice) return fail(`${twice} is named twice.`)
  return { marks, thou, trouble: '' }
}
