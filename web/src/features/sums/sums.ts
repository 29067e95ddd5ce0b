import type { Schemas } from '@/shared/api/client'
import { degrees, leaves, mm, thou } from '@/shared/units'
import { adjusterKinds, verdictWord } from '@/shared/words'
import type { Verdict } from '@/shared/api/client'

/** One entry of a sum. */
export interface Field {
  key: string
  label: string
  unit?: string
  kind?: 'number' | 'choice' | 'lines'
  options?: { value: string; title: string }[]
  start: string
  hint?: string
  /** Only where this holds. */
  when?: (v: Values) => boolean
}

export type Values = Record<string, string>

/** What a sum comes to: one large line, and what stands under it. */
export interface Answer {
  large: string
  lines: string[]
  verdict?: Verdict
  screw?: Schemas['Screw']
}

/** A computation that stands on its own. */
export interface Sum {
  id: string
  name: string
  about: string
  operation: string
  fields: Field[]
  request: (v: Values) => unknown
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- each operation has an answer of its own
  answer: (a: any, v: Values) => Answer
}

const number = (t: string) => (t.trim() === '' ? undefined : Number(t.trim().replace(',', '.')))
const given = (o: Record<string, unknown>) => Object.fromEntries(Object.entries(o).filter(([, v]) => v !== undefined))
const words = (t: string) => t.split(/[\s;]+/).filter(Boolean)
const rows = (t: string) =>
  t
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)
const figures = (line: string) => words(line).map((w) => number(w))
const owned = (t: string) => words(t).map((w) => ({ marked_mm: number(w) }))
const both = (v: number) => `${mm(v)} mm (${thou(v)})`
const usualSet = '0.05 0.10 0.15 0.20 0.25 0.30 0.35 0.40 0.45 0.50'

const kinds = adjusterKinds.filter((k) => k.value !== 'shim' && k.value !== 'hydraulic')
const lengthFields = (lower: string, upper: string): Field[] => [
  { key: 'lower', label: 'Lower limit', unit: 'mm', start: lower },
  { key: 'upper', label: 'Upper limit', unit: 'mm', start: upper },
]

export const sums: Sum[] = [
  {
    id: 'turn',
    name: 'Screw turn',
    about: 'How far to turn the adjuster: 360° × change / (pitch × gain).',
    operation: 'turn',
    fields: [
      { key: 'kind', label: 'Adjuster', kind: 'choice', options: kinds, start: 'screw_valve_end' },
      { key: 'pitch', label: 'Thread pitch', unit: 'mm', start: '1.00', when: (v) => v.kind !== 'eccentric' },
      {
        key: 'ratio',
        label: 'Ratio',
        start: '',
        hint: 'rocker or finger, where the gain needs it',
        when: (v) => v.kind !== 'eccentric',
      },
      { key: 'eccentricity', label: 'Eccentricity', unit: 'mm', start: '1.2', when: (v) => v.kind === 'eccentric' },
      { key: 'gap', label: 'Gap now', unit: 'mm', start: '0.40' },
      { key: 'aim', label: 'Gap wanted', unit: 'mm', start: '0.30' },
    ],
    request: (v) => ({
      adjuster: given(
        v.kind === 'eccentric'
          ? { kind: v.kind, eccentricity_mm: number(v.eccentricity!) }
          : { kind: v.kind, pitch_mm: number(v.pitch!), ratio: number(v.ratio!) },
      ),
      gap_mm: number(v.gap!),
      aim_mm: number(v.aim!),
    }),
    answer: (a) => ({
      large: a.by_feel ? 'By feel' : `${a.direction === 'open' ? 'Open' : 'Close'} by ${degrees(a.turn_deg)}`,
      lines: [...(a.by_feel ? [] : [`${Number(a.turns.toFixed(3))} of a turn.`]), a.why],
      screw: a,
    }),
  },
  {
    id: 'leaves',
    name: 'Leaf stack',
    about: 'The leaf or stack that serves a thickness best, from the leaves that are there.',
    operation: 'leaves',
    fields: [
      { key: 'owned', label: 'Leaves, mm', kind: 'lines', start: '0.05 0.06 0.07 0.10 0.15 0.20 0.25 0.30' },
      { key: 'aim', label: 'Thickness wanted', unit: 'mm', start: '0.22' },
      ...lengthFields('', ''),
    ],
    request: (v) =>
      given({ owned: owned(v.owned!), aim_mm: number(v.aim!), lower_mm: number(v.lower!), upper_mm: number(v.upper!) }),
    answer: (a) => ({
      large: leaves(a.leaves_mm),
      lines: [
        `Makes ${both(a.thickness_mm)}, ± ${mm(a.uncertainty_mm)} mm.`,
        a.within
          ? 'Its whole range lies within the limits.'
          : 'No stack lies wholly within limits; this one is the nearest.',
      ],
    }),
  },
  {
    id: 'judge',
    name: 'Verdict',
    about: 'What the feels of some leaves say of a gap, and the next leaf to try.',
    operation: 'judge',
    fields: [
      ...lengthFields('0.20', '0.24'),
      {
        key: 'readings',
        label: 'Tried, one a line: leaf and feel',
        kind: 'lines',
        start: '0.20 free\n0.25 won’t go',
        hint: 'free, drag, won’t go; 0.15+0.06 for a stack',
      },
      { key: 'owned', label: 'Leaves, mm', kind: 'lines', start: usualSet },
      {
        key: 'rule',
        label: 'Rule',
        kind: 'choice',
        options: [
          { value: 'workshop', title: 'Workshop: the estimate decides' },
          { value: 'guarded', title: 'Guarded: only when wholly on one side' },
        ],
        start: 'workshop',
      },
      { key: 'feel', label: 'Uncertainty of feel', unit: 'mm', start: '0.005' },
    ],
    request: (v) =>
      given({
        limits: given({ lower_mm: number(v.lower!), upper_mm: number(v.upper!) }),
        readings: rows(v.readings!).map((l) => {
          const [leaf = '', ...feel] = words(l)
          return { leaves_mm: leaf.split('+').map((x) => number(x)), feel: feel.join(' ') }
        }),
        owned: owned(v.owned!),
        rule: v.rule,
        feel_mm: number(v.feel!),
      }),
    answer: (a) => ({
      large: verdictWord[a.verdict as Verdict] + (a.verdict !== 'undecided' && !a.sure ? ', close' : ''),
      verdict: a.verdict,
      lines: [
        a.why,
        `The gap lies from ${mm(a.gap_low_mm)} ${a.gap_high_mm === null ? 'mm upwards' : `to ${mm(a.gap_high_mm)} mm`}.`,
        ...(a.try_next ? [`Try ${leaves(a.try_next.leaves_mm)} next.`] : []),
      ],
    }),
  },
  {
    id: 'units',
    name: 'Units',
    about: 'Millimetres and thousandths of an inch; 1 in is 25.4 mm exactly.',
    operation: 'convert',
    fields: [
      { key: 'value', label: 'Length', start: '0.010' },
      {
        key: 'unit',
        label: 'Unit',
        kind: 'choice',
        options: [
          { value: 'in', title: 'inch' },
          { value: 'mm', title: 'mm' },
        ],
        start: 'in',
      },
    ],
    request: (v) => (v.unit === 'in' ? { length_in: number(v.value!) } : { length_mm: number(v.value!) }),
    answer: (a, v) => ({
      large: v.unit === 'in' ? `${Number(a.length_mm.toFixed(6))} mm` : `${Number(a.length_in.toFixed(6))} in`,
      lines: [
        `${Number(a.length_mm.toFixed(6))} mm = ${Number(a.length_in.toFixed(6))} in = ${Number(a.thou.toFixed(3))} thou.`,
      ],
    }),
  },
  {
    id: 'torque',
    name: 'Torque',
    about: 'Newton-metres and pound-feet, by the exact foot and pound and standard gravity.',
    operation: 'convert',
    fields: [
      { key: 'value', label: 'Torque', start: '14' },
      {
        key: 'unit',
        label: 'Unit',
        kind: 'choice',
        options: [
          { value: 'nm', title: 'N·m' },
          { value: 'lbft', title: 'lbf·ft' },
        ],
        start: 'nm',
      },
    ],
    request: (v) => (v.unit === 'nm' ? { torque_nm: number(v.value!) } : { torque_lbft: number(v.value!) }),
    answer: (a, v) => ({
      large: v.unit === 'nm' ? `${a.torque_lbft.toFixed(1)} lbf·ft` : `${a.torque_nm.toFixed(1)} N·m`,
      lines: [
        `${Number(a.torque_nm.toFixed(4))} N·m = ${Number(a.torque_lbft.toFixed(4))} lbf·ft.`,
        'Over-tightening strips threads.',
      ],
    }),
  },
  {
    id: 'cooldown',
    name: 'Cooling wait',
    about: 'By Newton’s law of cooling: how long until the engine is cold enough.',
    operation: 'cooldown',
    fields: [
      { key: 'readings', label: 'Minute and engine °C, one a line', kind: 'lines', start: '0 85\n10 72' },
      { key: 'ambient', label: 'Around it', unit: '°C', start: '18' },
      { key: 'gate', label: 'Cold at', unit: '°C', start: '38' },
    ],
    request: (v) => ({
      ambient_c: number(v.ambient!),
      readings: rows(v.readings!).map((l) => {
        const [minute, engine] = figures(l)
        return given({ minute, engine_c: engine })
      }),
      gate_c: number(v.gate!),
    }),
    answer: (a) => ({
      large: a.reachable ? `${Math.ceil(a.minutes_from_last)} minutes` : 'Not so far',
      lines: a.reachable
        ? [`From the last reading. k = ${a.k_per_min === null ? '–' : Number(a.k_per_min.toFixed(4))} per minute.`]
        : [a.why],
    }),
  },
  {
    id: 'shims',
    name: 'Shim choice',
    about: 'Swap among the engine’s own shims first, buy the fewest, disturb the fewest.',
    operation: 'shims',
    fields: [
      {
        key: 'valves',
        label: 'Valve, fitted mm, gap mm, one a line',
        kind: 'lines',
        start: 'I1 2.70 0.10\nI2 2.60 0.30\nI3 2.65 0.20',
      },
      ...lengthFields('0.15', '0.25'),
      { key: 'aim', label: 'Aim', unit: 'mm', start: '0.20' },
      {
        key: 'sizes',
        label: 'Sizes that can be bought, mm',
        kind: 'lines',
        start: '2.50 2.55 2.60 2.65 2.70 2.75 2.80',
      },
    ],
    request: (v) => ({
      valves: rows(v.valves!).map((l) => {
        const [valve, fitted, gap] = words(l)
        return given({
          valve,
          fitted_mm: number(fitted ?? ''),
          measured_mm: number(gap ?? ''),
          lower_mm: number(v.lower!),
          upper_mm: number(v.upper!),
          aim_mm: number(v.aim!),
        })
      }),
      sizes_mm: words(v.sizes!).map((w) => number(w)),
    }),
    answer: (a) => ({
      large: a.buy.length
        ? `Buy ${a.buy.map((b: { count: number; shim_mm: number }) => `${b.count} × ${mm(b.shim_mm)}`).join(', ')}`
        : a.impossible.length
          ? `No shim for ${a.impossible.map((l: { valve: string }) => l.valve).join(', ')}`
          : 'Nothing to buy',
      lines: [
        ...a.fit.map((f: { valve: string; shim_mm: number; from: string; gap_mm: number }) =>
          f.from === f.valve
            ? `${f.valve} keeps ${mm(f.shim_mm)}, gap ${mm(f.gap_mm)}.`
            : `${f.valve}: ${mm(f.shim_mm)} from ${f.from}, gap ${mm(f.gap_mm)}.`,
        ),
        ...a.impossible.map((l: { reason: string }) => l.reason),
        ...(a.spare_mm.length ? [`Left over: ${a.spare_mm.map(mm).join(', ')}.`] : []),
      ],
    }),
  },
  {
    id: 'lock-shift',
    name: 'Lock-nut shift',
    about: 'What locking usually does to the gap, and what to set with the nut loose.',
    operation: 'lock-shift',
    fields: [
      {
        key: 'pairs',
        label: 'Before and after, mm, one pair a line',
        kind: 'lines',
        start: '0.30 0.28\n0.30 0.27\n0.31 0.29\n0.30 0.28\n0.32 0.29',
      },
      { key: 'aim', label: 'Gap wanted', unit: 'mm', start: '0.30' },
    ],
    request: (v) => ({
      pairs: rows(v.pairs!).map((l) => {
        const [before, after] = figures(l)
        return given({ before_mm: before, after_mm: after })
      }),
      aim_mm: number(v.aim!),
    }),
    answer: (a) => ({
      large: a.enough ? `Set ${mm(a.pre_lock_aim_mm)} mm` : 'Not enough yet',
      lines: a.enough
        ? [
            `Locking ${a.median_mm < 0 ? 'takes' : 'adds'} ${both(Math.abs(a.median_mm))} at the median, spread ${mm(a.spread_mm)} mm, from ${a.count} pairs.`,
          ]
        : [`${a.count} of the five pairs that it takes.`],
    }),
  },
]
