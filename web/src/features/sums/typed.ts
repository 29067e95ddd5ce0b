import { decimal, slip } from '@/shared/decimal'
import { mm } from '@/shared/units'

/** In which unit lengths are typed and answered. */
export type Unit = 'mm' | 'thou'
export type Values = Record<string, string>

/** What a field holds. A pitch is millimetres a thread, or threads an inch. */
export type Kind = 'length' | 'pitch' | 'number' | 'choice' | 'lengths' | 'lines'

const perInch = 25.4
const exact = (x: number, places: number) => Number(x.toFixed(places))

/** A figure in the unit as millimetres, to the nanometre. In thousandths one below a tenth is meant in inches, as leaves are stamped. */
export function toMM(figure: number, unit: Unit): number {
  if (unit === 'mm') return figure
  return exact((Math.abs(figure) < 0.1 ? figure * 1000 : figure) * (perInch / 1000), 6)
}

/** The same figure typed in the other unit; a text that is none stays. */
function across(text: string, kind: Kind, to: Unit): string {
  const figure = decimal(text)
  if (figure === null) return text
  if (kind === 'pitch') return figure ? String(exact(perInch / figure, to === 'mm' ? 4 : 3)) : text
  return to === 'thou' ? String(exact((figure / perInch) * 1000, 3)) : mm(exact(toMM(figure, 'thou'), 4))
}

const figureIn = /[+-]?\d*[.,]?\d+/g

/** A field as typed, in the other unit: each figure of it that is a length. */
export function inUnit(text: string, kind: Kind, to: Unit): string {
  if (kind === 'length' || kind === 'pitch') return across(text, kind, to)
  if (kind === 'lengths')
    return list(text)
      .map((w) => across(w, 'length', to))
      .join(' ')
  return text
}

/** The figures of a reading, a pair or a shim line in the other unit; what stands before and after stays. */
export function lineInUnit(text: string, to: Unit): string {
  return text.replace(/[^\n]*/g, (line) => {
    const name = /^\s*[A-Za-z]\w*\s+/.exec(line)?.[0] ?? '' // a valve's name holds a digit that is no length
    return name + line.slice(name.length).replace(figureIn, (f) => across(f, 'length', to))
  })
}

/** The parts of a list: apart by spaces, semicolons, or a comma with a space after it; a comma within a figure is its decimal. */
export const list = (t: string) =>
  t
    .split(/[\s;]+|,\s+/)
    .map((w) => w.replace(/,$/, ''))
    .filter(Boolean)

const lines = (t: string) =>
  t
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)

const feels: [RegExp, string][] = [
  [/^(free|goes|loose)$/, 'free'],
  [/^drags?$/, 'drag'],
  [/^(won.?t|will not|does not|doesn.?t|no|not) ?(go|pass|enter)?$/, 'wont_go'],
]

/** Reads the fields of a sum, and notes beside each what cannot be meant: it is refused here and never sent as something else. */
export class Typed {
  readonly slips: Record<string, string[]> = {}
  constructor(
    private readonly values: Values,
    readonly unit: Unit = 'mm',
  ) {}

  private note(key: string, message: string) {
    if (message) (this.slips[key] ??= []).push(message)
  }

  text(key: string): string {
    return this.values[key] ?? ''
  }

  /** A plain number; undefined where the field is empty and may be. */
  number(key: string, optional = false): number | undefined {
    const text = this.text(key)
    this.note(key, slip(text, optional))
    return decimal(text) ?? undefined
  }

  /** A length in millimetres. */
  length(key: string, optional = false): number | undefined {
    const figure = this.number(key, optional)
    return figure === undefined ? undefined : toMM(figure, this.unit)
  }

  /** A thread's pitch in millimetres. */
  pitch(key: string): number | undefined {
    const figure = this.number(key)
    if (figure === undefined || this.unit === 'mm') return figure
    return figure > 0 ? exact(perInch / figure, 6) : figure
  }

  private figure(key: string, text: string, at: string, as: (f: number) => number): number {
    const figure = decimal(text)
    if (figure === null) this.note(key, text ? `${at}${slip(text)}` : `${at}a figure is missing.`)
    return figure === null ? 0 : as(figure)
  }

  /** A list of lengths in millimetres. */
  lengths(key: string): number[] {
    return list(this.text(key)).map((w) => this.figure(key, w, '', (f) => toMM(f, this.unit)))
  }

  /** Lines of figures, so many on each: lengths, or plain numbers. */
  rows(key: string, count: number, plain = false): number[][] {
    return lines(this.text(key)).map((l, i) => {
      const parts = list(l)
      if (parts.length > count) this.note(key, `Line ${i + 1}: ${count} figures are meant, there are ${parts.length}.`)
      return Array.from({ length: count }, (_, n) =>
        this.figure(key, parts[n] ?? '', `Line ${i + 1}: `, (f) => (plain ? f : toMM(f, this.unit))),
      )
    })
  }

  /** Lines of a name and so many lengths. */
  named(key: string, count: number): { name: string; figures: number[] }[] {
    return lines(this.text(key)).map((l, i) => {
      const [name = '', ...parts] = list(l)
      const figures = Array.from({ length: count }, (_, n) =>
        this.figure(key, parts[n] ?? '', `Line ${i + 1}: `, (f) => toMM(f, this.unit)),
      )
      return { name, figures }
    })
  }

  /** Lines of a leaf or a stack and its feel: "0.23 drag", "0.20 + 0.04 won’t go". */
  readings(key: string): { leaves_mm: number[]; feel: string }[] {
    return lines(this.text(key)).map((l, i) => {
      const at = `Line ${i + 1}: `
      const [, leaf = '', said = ''] = /^([^A-Za-z]*)(.*)$/.exec(l) ?? []
      const feel = feels.find(([form]) => form.test(said.trim().toLowerCase()))?.[1]
      if (!feel) this.note(key, `${at}say free, drag or won’t go after the leaf.`)
      const parts = leaf.split('+').flatMap((w) => list(w))
      if (!parts.length) this.note(key, `${at}the leaf is missing.`)
      return { leaves_mm: parts.map((w) => this.figure(key, w, at, (f) => toMM(f, this.unit))), feel: feel ?? '' }
    })
  }
}
