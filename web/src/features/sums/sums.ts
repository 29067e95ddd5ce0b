import type { Schemas, Verdict } from '@/shared/api/client'
import type { Answers, Operation } from '@/shared/api/compute'
import { mm, thou } from '@/shared/units'
import { verdictWord, rules } from '@/shared/words'
import { turnOf, type Gear } from '@/shared/gearWords'
import type { Kind, Typed, Unit, Values } from './typed'

/** One entry of a sum. */
export interface Field {
  key: string
  label: string
  unit?: string
  kind?: Kind
  options?: { value: string; title: string }[]
  start: string
  hint?: string
  /** Where it stands in what is sent, for faults to be said beside it. */
  at: string[]
  /** Lines whose figures are lengths. */
  lengths?: boolean
  /** Only where this holds. */
  when?: (v: Values) => boolean
}

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
  operation: Operation
  fields: Field[]
  request: (t: Typed) => unknown
  answer(a: unknown, t: Typed): Answer
}

/** A sum whose answer is read as that of its operation. */
function sum<O extends Operation>(
  of: Omit<Sum, 'operation' | 'answer'> & { operation: O; answer(a: Answers<O>, t: Typed): Answer },
): Sum {
  return of
}

const given = (o: Record<string, unknown>) => Object.fromEntries(Object.entries(o).filter(([, v]) => v !== undefined))
const short = (v: number) => Number(v.toFixed(6))
/** A length in the unit that is worked in; and in both. */
const say = (v: number, unit: Unit) => (unit === 'thou' ? thou(v) : `${mm(v)} mm`)
const both = (v: number, unit: Unit) => (unit === 'thou' ? `${thou(v)} (${mm(v)} mm)` : `${mm(v)} mm (${thou(v)})`)
const stack = (list: number[], unit: Unit) =>
  unit === 'thou' ? `${list.map((l) => thou(l).replace(' thou', '')).join(' + ')} thou` : list.map(mm).join(' + ')

const length = (key: string, label: string, start: string, ...at: string[]): Field => ({
  key,
  label,
  kind: 'length',
  start,
  at: at.length ? at : [`${key}_mm`],
})
const limits = (lower: string, upper: string): Field[] => [
  length('lower', 'Lower limit', lower, 'lower_mm', 'limits.lower_mm', 'limits'),
  length('upper', 'Upper limit', upper, 'upper_mm', 'limits.upper_mm'),
]
const leavesField = (start: string): Field => ({ key: 'owned', label: 'Leaves', kind: 'lengths', start, at: ['owned'] })
const usualSet = '0.05 0.10 0.15 0.20 0.25 0.30 0.35 0.40 0.45 0.50'
/** Leaves as they are stamped: in inches where they were typed so and that is exact. */
const owned = (t: Typed) =>
  t.lengths('owned').map((l) => {
    const inches = Number((l / 25.4).toFixed(6))
    return t.unit === 'thou' && Math.abs(inches * 25.4 - l) < 1e-9 ? { marked_in: inches } : { marked_mm: l }
  })

/** The field that a place in what was sent belongs to, and which entry of it. */
export function fieldAt(s: Sum, location: string): { key: string; entry: string } {
  const places = s.fields.flatMap((f) => f.at.map((at) => ({ f, at }))).sort((a, b) => b.at.length - a.at.length)
  const found = places.find(
    ({ at }) => location === at || location.startsWith(`${at}.`) || location.startsWith(`${at}[`),
  )
  const n = /\[(\d+)\]/.exec(location)?.[1]
  const word = found?.f.kind === 'lines' ? 'Line' : 'Figure'
  return { key: found?.f.key ?? '', entry: found && n !== undefined ? `${word} ${Number(n) + 1}: ` : '' }
}

/** How far to turn an adjuster: what is asked follows from its kind. */
const turnSum = (gears: Gear[]) => {
  const gearOf = (kind?: string) => gears.find((g) => g.kind === kind)!
  return sum({
    id: 'turn',
    name: 'Screw turn',
    about: 'How far to turn the adjuster: 360° × change / (pitch × gain).',
    operation: 'turn',
    fields: [
      {
        key: 'kind',
        label: 'Adjuster',
        kind: 'choice',
        options: gears
          .filter((g) => g.means === 'turned' || g.means === 'felt')
          .map((g) => ({ value: g.kind, title: g.title })),
        start: 'screw_valve_end',
        at: ['adjuster'],
      },
      {
        key: 'pitch',
        label: 'Thread pitch',
        kind: 'pitch',
        start: '1.00',
        at: ['adjuster.pitch_mm'],
        when: (v) => gearOf(v.kind).means === 'turned',
      },
      {
        key: 'ratio',
        label: 'Ratio',
        start: '',
        hint: 'of the rocker or finger',
        at: ['adjuster.ratio'],
        when: (v) => gearOf(v.kind).needs_ratio,
      },
      {
        ...length('eccentricity', 'Eccentricity', '1.2', 'adjuster.eccentricity_mm'),
        when: (v) => gearOf(v.kind).means === 'felt',
      },
      length('gap', 'Gap now', '0.40'),
      length('aim', 'Gap wanted', '0.30'),
    ],
    request: (t) => {
      const { kind, means, needs_ratio } = gearOf(t.text('kind'))
      return {
        adjuster: given({
          kind,
          eccentricity_mm: means === 'felt' ? t.length('eccentricity') : undefined,
          pitch_mm: means === 'turned' ? t.pitch('pitch') : undefined,
          ratio: needs_ratio ? t.number('ratio', true) : undefined,
        }),
        gap_mm: t.length('gap'),
        aim_mm: t.length('aim'),
      }
    },
    answer: (a, t) => {
      if (a.turn_deg === 0) return { large: 'Nothing to turn', lines: ['The gap is as it is wanted.'] }
      return {
        large: a.by_feel ? 'By feel' : turnOf(a, gearOf(t.text('kind'))),
        lines: [...(a.by_feel ? [] : [`${Number(a.turns!.toFixed(3))} of a turn.`]), a.why],
        screw: a as Schemas['Screw'],
      }
    },
  })
}

/** Every sum, with the gears that there are. */
export const sumsWith = (gears: Gear[]): Sum[] => [turnSum(gears), ...others]

const others: Sum[] = [
  sum({
    id: 'leaves',
    name: 'Leaf stack',
    about: 'The leaf or stack that serves a thickness best, from the leaves that are there.',
    operation: 'leaves',
    fields: [
      leavesField('0.04 0.05 0.08 0.10 0.15 0.20 0.25 0.30'),
      length('aim', 'Thickness wanted', '0.23'),
      ...limits('', '').map((f) => ({ ...f, hint: 'may be left empty' })),
    ],
    request: (t) =>
      given({
        owned: owned(t),
        aim_mm: t.length('aim'),
        lower_mm: t.length('lower', true),
        upper_mm: t.length('upper', true),
      }),
    answer: (a, t) => {
      const limited = t.text('lower').trim() !== '' || t.text('upper').trim() !== ''
      const fits = a.within
        ? 'Its whole range lies within the limits.'
        : 'No stack lies wholly within the limits; this one is the nearest.'
      return {
        large: stack(a.leaves_mm, t.unit),
        lines: [
          `Makes ${both(a.thickness_mm, t.unit)}, ± ${say(a.uncertainty_mm, t.unit)}.`,
          ...(limited ? [fits] : []),
        ],
      }
    },
  }),
  sum({
    id: 'judge',
    name: 'Verdict',
    about: 'What the feels of some leaves say of a gap, and the next leaf to try.',
    operation: 'judge',
    fields: [
      ...limits('0.20', '0.24'),
      {
        key: 'readings',
        label: 'Tried, one a line: leaf and feel',
        kind: 'lines',
        start: '0.20 free\n0.25 won’t go',
        hint: 'free, drag or won’t go; 0.20 + 0.04 drag for a stack',
        at: ['readings'],
        lengths: true,
      },
      leavesField(usualSet),
      {
        key: 'rule',
        label: 'Rule',
        kind: 'choice',
        options: rules,
        start: 'workshop',
        at: ['rule'],
      },
      length('feel', 'Uncertainty of feel', '0.005'),
    ],
    request: (t) =>
      given({
        limits: given({ lower_mm: t.length('lower'), upper_mm: t.length('upper') }),
        readings: t.readings('readings'),
        owned: owned(t),
        rule: t.text('rule'),
        feel_mm: t.length('feel'),
      }),
    answer: (a, { unit }) => ({
      large: verdictWord[a.verdict] + (a.verdict !== 'undecided' && !a.sure ? ', close' : ''),
      verdict: a.verdict,
      lines: [
        a.why,
        a.gap_high_mm === null
          ? `The gap is ${both(a.gap_low_mm, unit)} or more.`
          : `The gap lies from ${say(a.gap_low_mm, unit)} to ${both(a.gap_high_mm, unit)}.`,
        ...(a.try_next ? [`Try ${stack(a.try_next.leaves_mm, unit)} next.`] : []),
      ],
    }),
  }),
  sum({
    id: 'units',
    name: 'Units',
    about: 'Millimetres and thousandths of an inch; 1 in is 25.4 mm exactly.',
    operation: 'convert',
    fields: [
      { key: 'value', label: 'Length', start: '0.010', at: ['length_mm', 'length_in'] },
      {
        key: 'unit',
        label: 'Unit',
        kind: 'choice',
        options: [
          { value: 'in', title: 'inch' },
          { value: 'thou', title: 'thousandths of an inch' },
          { value: 'mm', title: 'mm' },
        ],
        start: 'in',
        at: [],
      },
    ],
    request: (t) => {
      const length = t.number('value')
      if (t.text('unit') === 'mm') return { length_mm: length }
      return { length_in: length !== undefined && t.text('unit') === 'thou' ? short(length / 1000) : length }
    },
    answer: (a, t) => ({
      large: t.text('unit') === 'mm' ? `${short(a.length_in!)} in` : `${short(a.length_mm!)} mm`,
      lines: [`${short(a.length_mm!)} mm = ${short(a.length_in!)} in = ${Number(a.thou!.toFixed(3))} thou.`],
    }),
  }),
  sum({
    id: 'torque',
    name: 'Torque',
    about: 'Newton-metres and pound-feet, by the exact foot and pound and standard gravity.',
    operation: 'convert',
    fields: [
      { key: 'value', label: 'Torque', start: '14', at: ['torque_nm', 'torque_lbft'] },
      {
        key: 'unit',
        label: 'Unit',
        kind: 'choice',
        options: [
          { value: 'nm', title: 'N·m' },
          { value: 'lbft', title: 'lbf·ft' },
        ],
        start: 'nm',
        at: [],
      },
    ],
    request: (t) => ({ [t.text('unit') === 'nm' ? 'torque_nm' : 'torque_lbft']: t.number('value') }),
    answer: (a, t) => ({
      large: t.text('unit') === 'nm' ? `${a.torque_lbft!.toFixed(1)} lbf·ft` : `${a.torque_nm!.toFixed(1)} N·m`,
      lines: [
        `${Number(a.torque_nm!.toFixed(4))} N·m = ${Number(a.torque_lbft!.toFixed(4))} lbf·ft.`,
        'Over-tightening strips threads.',
      ],
    }),
  }),
  sum({
    id: 'cooldown',
    name: 'Cooling wait',
    about: 'By Newton’s law of cooling: how long until the engine is cold enough.',
    operation: 'cooldown',
    fields: [
      {
        key: 'readings',
        label: 'Minute and engine °C, one a line',
        kind: 'lines',
        start: '0 85\n10 72',
        at: ['readings'],
      },
      { key: 'ambient', label: 'Ambient', unit: '°C', start: '18', at: ['ambient_c'] },
      { key: 'gate', label: 'Cold at', unit: '°C', start: '38', at: ['gate_c'] },
    ],
    request: (t) => ({
      ambient_c: t.number('ambient'),
      readings: t.rows('readings', 2, true).map(([minute, engine_c]) => ({ minute, engine_c })),
      gate_c: t.number('gate'),
    }),
    answer: (a) => ({
      large: a.reachable ? `${Math.ceil(a.minutes_from_last!)} minutes` : 'Not reached',
      lines: a.reachable
        ? [`From the last reading. k = ${a.k_per_min === null ? '–' : Number(a.k_per_min.toFixed(4))} per minute.`]
        : [a.why],
    }),
  }),
  sum({
    id: 'shims',
    name: 'Shim choice',
    about: 'Swap among the engine’s own shims first, buy the fewest, disturb the fewest.',
    operation: 'shims',
    fields: [
      {
        key: 'valves',
        label: 'Valve, shim fitted, gap; one a line',
        kind: 'lines',
        start: 'I1 2.70 0.10\nI2 2.60 0.30\nI3 2.65 0.20',
        at: ['valves'],
        lengths: true,
      },
      ...limits('0.15', '0.25'),
      length('aim', 'Aim', '0.20'),
      {
        key: 'sizes',
        label: 'Shim sizes available',
        kind: 'lengths',
        start: '2.50 2.55 2.60 2.65 2.70 2.75 2.80',
        at: ['sizes_mm'],
      },
    ],
    request: (t) => ({
      valves: t.named('valves', 2).map(({ name, figures: [fitted_mm, measured_mm] }) => ({
        valve: name,
        fitted_mm,
        measured_mm,
        lower_mm: t.length('lower'),
        upper_mm: t.length('upper'),
        aim_mm: t.length('aim'),
      })),
      sizes_mm: t.lengths('sizes'),
    }),
    answer: (a, { unit }) => {
      const none = a.impossible.map((l) => l.valve).join(', ')
      const bought = a.buy.map((b) => `${b.count} × ${say(b.shim_mm, unit)}`).join(', ')
      return {
        large: none ? `No shim for ${none}` : bought ? `Buy ${bought}` : 'Nothing to buy',
        lines: [
          ...(none && bought ? [`For the others buy ${bought}.`] : []),
          ...a.impossible.map((l) => l.reason),
          ...a.fit.map((f) =>
            f.from === f.valve
              ? `${f.valve} keeps ${say(f.shim_mm, unit)}, gap ${say(f.gap_mm, unit)}.`
              : `${f.valve}: ${say(f.shim_mm, unit)} from ${f.from}, gap ${say(f.gap_mm, unit)}.`,
          ),
          ...(a.spare_mm.length ? [`Left over: ${a.spare_mm.map((x) => say(x, unit)).join(', ')}.`] : []),
        ],
      }
    },
  }),
  sum({
    id: 'lock-shift',
    name: 'Lock-nut shift',
    about: 'What locking usually does to the gap, and what to set with the nut slack.',
    operation: 'lock-shift',
    fields: [
      {
        key: 'pairs',
        label: 'Before and after, one pair a line',
        kind: 'lines',
        start: '0.30 0.28\n0.30 0.27\n0.31 0.29\n0.30 0.28\n0.32 0.29',
        at: ['pairs'],
        lengths: true,
      },
      length('aim', 'Gap wanted', '0.30'),
    ],
    request: (t) => ({
      pairs: t.rows('pairs', 2).map(([before_mm, after_mm]) => ({ before_mm, after_mm })),
      aim_mm: t.length('aim'),
    }),
    answer: (a, { unit }) => ({
      large: a.enough ? `Set ${say(a.pre_lock_aim_mm!, unit)}` : 'Not enough yet',
      lines: a.enough
        ? [
            `Locking usually ${a.median_mm! < 0 ? 'closes' : 'opens'} the gap by ${both(Math.abs(a.median_mm!), unit)} at the median, spread ${say(a.spread_mm!, unit)}, from ${a.count} pairs.`,
          ]
        : [`${a.count} of the five pairs that it takes.`],
    }),
  }),
]
