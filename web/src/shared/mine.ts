import { reactive, watch } from 'vue'
import { mm } from './units'

/**
 * How quantities are shown to the person at this screen: the own unit first, the other beside it. Everything is kept, compared and
 * sent in millimetres, newton-metres, degrees Celsius and kilometres; the program hears of the choice by a cookie, so that its own
 * sentences and a printed sheet speak alike.
 */
export interface Units {
  /** Gaps: as each card states them, or always in one unit. */ length: '' | 'mm' | 'thou'
  lbfft: boolean
  fahrenheit: boolean
  miles: boolean
}

const cookie = 'metronix_units'
const store = 'metronix.units'
const year = 31_536_000

function read(text: string): Units {
  const words = text.split('.')
  const length = words.find((w): w is 'mm' | 'thou' => w === 'mm' || w === 'thou') ?? ''
  return { length, lbfft: words.includes('lbfft'), fahrenheit: words.includes('f'), miles: words.includes('mi') }
}

function written(u: Units): string {
  return [u.length, u.lbfft && 'lbfft', u.fahrenheit && 'f', u.miles && 'mi'].filter(Boolean).join('.')
}

const kept = () => JSON.parse(localStorage.getItem(store) ?? '{}') as Record<string, string>

/** Who is at this screen: whose name was given last when a job was started here. */
export const person = () => localStorage.getItem('metronix.mechanic') ?? ''

/** The units of who is at this screen. */
export const units = reactive(read(new RegExp(`${cookie}=([\\w.]*)`).exec(document.cookie)?.[1] ?? ''))

watch(
  units,
  (u) => {
    document.cookie = `${cookie}=${written(u)};path=/;max-age=${year};samesite=strict`
    localStorage.setItem(store, JSON.stringify({ ...kept(), [person()]: written(u) }))
  },
  { flush: 'sync' },
)

/** Somebody else is at this screen now: their units, where they chose some here; else those that stand are theirs. */
export function speakTo(name: string) {
  localStorage.setItem('metronix.mechanic', name)
  const theirs = kept()[name]
  if (theirs !== undefined) Object.assign(units, read(theirs))
  else localStorage.setItem(store, JSON.stringify({ ...kept(), [name]: written(units) }))
}

export type Kind = 'length' | 'torque' | 'temperature' | 'distance' | 'hours'

interface Scale {
  names: readonly [string, string]
  other: (v: number) => number
  back: (v: number) => number
  /** Whether the other unit is this person's. */ turned: () => boolean
  /** Decimal places that are shown, of the one and the other. */ places: readonly [number, number]
  /** Decimal places that are kept of what was typed in the other. */ keeps: number
}

// 1 in = 25.4 mm and 1 mile = 1.609344 km (international yard and pound agreement of 1959); the rest NIST SP 811, appendix B.8.
const scales: Record<Kind, Scale> = {
  length: {
    names: ['mm', 'thou'],
    other: (v) => v / 0.0254,
    back: (v) => v * 0.0254,
    turned: () => units.length === 'thou',
    places: [4, 1],
    keeps: 6,
  },
  torque: {
    names: ['N·m', 'lbf·ft'],
    other: (v) => v / 1.3558179483314004,
    back: (v) => v * 1.3558179483314004,
    turned: () => units.lbfft,
    places: [1, 1],
    keeps: 4,
  },
  temperature: {
    names: ['°C', '°F'],
    other: (v) => (v * 9) / 5 + 32,
    back: (v) => ((v - 32) * 5) / 9,
    turned: () => units.fahrenheit,
    places: [1, 1],
    keeps: 6,
  },
  distance: {
    names: ['km', 'miles'],
    other: (v) => v / 1.609344,
    back: (v) => v * 1.609344,
    turned: () => units.miles,
    places: [0, 0],
    keeps: 0,
  },
  hours: {
    names: ['h', 'h'],
    other: (v) => v,
    back: (v) => v,
    turned: () => false,
    places: [0, 0],
    keeps: 0,
  },
}

/** What a vehicle's counter shows; nothing where it was not read. */
export const shown = (c: { odometer_km?: number; hours?: number }) => c.hours || c.odometer_km || undefined

/** What a figure of a vehicle's counter is: a distance, or running hours. */
export const counter = (counts: 'km' | 'h' | undefined): Kind => (counts === 'h' ? 'hours' : 'distance')

/** What that counter is called. */
export const meterName = (counts: 'km' | 'h' | undefined) => (counts === 'h' ? 'hour meter' : 'odometer')

/** That figure as it is sent. */
export const sent = (counts: 'km' | 'h' | undefined, figure: number | undefined) =>
  counts === 'h' ? { hours: figure ?? 0 } : { odometer_km: figure ?? 0 }

const rounded = (v: number, places: number) => {
  const size = 10 ** places
  return (Math.sign(v) * Math.round(Math.abs(v) * size)) / size + 0
}

/** One kind of quantity as this person has it. Whole miles come back as they were typed, over whole kilometres. */
export function mine(kind: Kind) {
  const s = scales[kind]
  const text = (v: number, i: 0 | 1) => {
    const at = rounded(i ? s.other(v) : v, s.places[i])
    return kind === 'length' && !i
      ? mm(at)
      : kind === 'distance' || kind === 'hours'
        ? at.toLocaleString('en')
        : String(at)
  }
  const first = () => (s.turned() ? 1 : 0)
  const second = () => (s.turned() ? 0 : 1)
  return {
    /** The own unit's name. */
    unit: () => s.names[first()],
    /** The figure for a field to be typed in. */
    own: (v: number) => (s.turned() ? rounded(s.other(v), Math.max(s.places[1], kind === 'length' ? 3 : 0)) : v),
    /** What is kept of a figure typed in the own unit. */
    kept: (v: number) => (s.turned() ? rounded(s.back(v), s.keeps) : v),
    bare: (v: number) => text(v, first()),
    say: (v: number) => `${text(v, first())} ${s.names[first()]}`,
    /** Whole, where there is little room. */
    short: (v: number) => `${Math.round(s.turned() ? s.other(v) : v)} ${s.names[first()]}`,
    other: (v: number) => `${text(v, second())} ${s.names[second()]}`,
    /** Both units; running hours have one. */
    both: (v: number) =>
      kind === 'hours'
        ? `${text(v, 0)} h`
        : `${text(v, first())} ${s.names[first()]} (${text(v, second())} ${s.names[second()]})`,
  }
}
