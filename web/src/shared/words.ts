import type { Judgement, PlanView, Schemas, Sighting, Verdict } from '@/shared/api/client'
import { degrees } from '@/shared/units'

/*
 * The words of the front end for what travels on the wire, and the choices that stand for its values. docs/glossary.md says where a
 * word on a screen is another than the one on the wire.
 */

/** Choices of one wire field, each with its words. */
/** Choices of a list, by their words. */
export const choices = <T extends string>(words: Record<T, string>) =>
  (Object.entries(words) as [T, string][]).map(([value, title]) => ({ value, title }))

/** A sighting as something seen: "cylinder 4 is rocking"; a sign of the engine in its sheet's words. */
export function seenWords(s: Sighting, signs: Schemas['Sign'][] = []): string {
  switch (s.what) {
    case 'sign': {
      const sign = signs.find((x) => x.id === s.sign)
      return sign ? `${sign.where}: ${sign.text}` : (s.sign ?? '')
    }
    case 'lobes_away':
      return `the lobes of cylinder ${s.cylinder} point away`
    case 'lobe_away':
      return `the lobe of ${s.valve} points away`
    case 'rocking':
      return `cylinder ${s.cylinder} is rocking`
    case 'full_lift':
      return `${s.valve} is fully down`
    case 'tdc_firing':
      return `cylinder ${s.cylinder}: both rockers have play, at TDC`
    case 'mark':
      return !s.mark_deg ? 'the TDC mark is at the pointer' : `the ${degrees(s.mark_deg)} mark is at the pointer`
    case 'opening':
      return `${s.valve} just starts to open`
    case 'closing':
      return `${s.valve} is nearly closed`
    case 'loose':
      return `${s.valve} has play`
    case 'pressed':
      return `${s.valve} is held open`
    case 'degrees':
      return `the degree wheel reads ${degrees(s.mark_deg ?? 0)}`
  }
}

/** A phrase as the beginning of a sentence. */
export const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1)

/** The order of a way round. */
export function orderName({ order, direction }: { order: string; direction?: string }): string {
  const name = order === 'numerical' ? 'by number' : 'as the crank turns'
  return direction === 'back' ? `${name}, turned back` : name
}

export const verdictWord: Record<Verdict, string> = { in: 'In', tight: 'Tight', loose: 'Loose', undecided: 'Undecided' }

/** A verdict in words; by one leaf it is a side, and not out of limits. */
export function verdictOf({ verdict, figure }: Pick<Judgement, 'verdict' | 'figure'>): string {
  if (figure.kind === 'looser') return 'Looser than wanted'
  if (figure.kind === 'tighter') return 'Tighter than wanted'
  return verdictWord[verdict]
}

export const feelWord: Record<string, string> = {
  free: 'free',
  drag: 'drag',
  drag_light: 'light drag',
  drag_firm: 'firm drag',
  wont_go: 'won’t go',
}

const layoutNames: Record<string, string> = { inline: 'Inline ', vee: 'V', flat: 'Flat ' }

/** How the cylinders sit: "Inline 4", "V8". */
export function layoutName(layout: string, cylinders: number): string {
  return layoutNames[layout] ? `${layoutNames[layout]}${cylinders}` : `${cylinders} cylinders`
}

export const threads = choices({ right: 'Right-hand thread', left: 'Left-hand thread' })
export const closings = choices({
  '': 'Usual for this adjuster',
  in: 'Screwing in closes the gap',
  out: 'Screwing out closes the gap',
})
export const rotations = choices({ clockwise: 'clockwise', anticlockwise: 'anticlockwise' })
export const signPeriods = [
  { value: 360, title: 'every turn, with the crank' },
  { value: 720, title: 'every two turns, with the cam' },
] as const
export const layouts = choices({ inline: 'Inline', vee: 'V', flat: 'Flat', other: 'Other' })
export const portSides = choices({ left: 'intake left', right: 'intake right' })
export const thermalStates = choices({ cold: 'cold', hot: 'hot' })
export const aims = choices({
  nominal: 'Aim for the nominal',
  loose: 'Aim for the loose end',
  upper: 'Aim for the upper limit’s leaf',
})
const aimWords: Record<string, string> = { loose: 'loose end', upper: 'the leaf of the upper limit' }

/** The aim of a job, with its reason where it is not the nominal. */
export const aimSaid = (aim: string, reason: string) =>
  aimWords[aim] ? `${aimWords[aim]}: ${reason || 'no reason given'}` : 'nominal'
export const rules = choices({
  workshop: 'Workshop rule: the estimate decides',
  guarded: 'Strict rule: the whole uncertainty inside',
  one_leaf: 'One leaf: the side of the wanted gap',
})

/** How the engine is gone round, and which valves are checked at the end. */
export const rounds = choices({
  set_as_you_go: 'Set as you go',
  read_first: 'Read all first',
  read_only: 'Read only',
  free_first: 'Slacken all first',
})
/** The rounds as they are chosen: going round twice is a whole second round in which every valve is read and, where out, set again. */
export const roundsChosen = [
  ...rounds.slice(0, 1),
  { value: 'twice', title: 'Go round twice' } as const,
  ...rounds.slice(1),
]
export const kindsFirst = choices({
  both: 'Both kinds at each stop',
  exhaust: 'Exhausts first',
  intake: 'Intakes first',
})
export const lockings = choices({ one_go: 'Tighten in one go', nip_then_torque: 'Nip, then torque' })
export const aimings = choices({ leave_in: 'Leave valves that are in', all_to_aim: 'Set every valve to the aim' })

export const checkTurns = [
  { value: 2, title: 'Two turns, then check' },
  { value: 4, title: 'Four turns, then check' },
] as const
export const checkRounds = choices({ set_ones: 'Check those set', all: 'Check all', none: 'No check' })
const roundHow = {
  set_as_you_go: 'At each stop: read a valve, leave it if it is in, else set it, lock it and read it again.',
  twice: 'As set as you go, then the whole way round once more: every valve is read again, and set where it is out.',
  read_first: 'The whole engine as found, nothing touched; then those that are out are set.',
  read_only: 'Every valve as found, nothing is set: an inspection, or a second opinion.',
  free_first:
    'Every adjuster is slackened and found free; then each valve is set, locked and read. Nothing is read as found.',
}

/** What a round does, in a sentence. */
export const roundWords = (round: keyof typeof roundHow) => roundHow[round]

/** What a sequence costs by the round that is chosen, and how far its valves stand from their lobes, line by line. */
export function costLines({ costs, smallest_margin_deg: margin }: PlanView): string[] {
  const clear = `${degrees(margin!)} from the lobes`
  if (!costs) return [clear]
  const { all_in, some_out, out_count } = costs
  const check = some_out.check_turn_deg ? `, and ${degrees(some_out.check_turn_deg)} to check` : ''
  return [
    `${all_in.gestures} taps, ${all_in.leaf_changes} leaf changes, ${clear}`,
    `${out_count} valves out: ${degrees(some_out.turn_deg)}${check}, ${some_out.gestures} taps`,
  ]
}

/** What a choice of shims is after first. */
export const shimChoice: Record<string, string> = { fewest_bought: 'Fewest bought', nearest_aim: 'Nearest the aim' }

/** What is seen at a valve or a cylinder, in a word that fits under it on the drawing. */
/** What may be seen of a cylinder or a valve, as something to tap. */
export const sightTitle: Record<string, string> = {
  rocking: 'A cylinder rocks',
  tdc_firing: 'Both rockers of a cylinder have play',
  full_lift: 'A valve is fully down',
  lobe_away: 'A lobe points away',
  pressed: 'A valve is held open',
  loose: 'A valve has play',
}

export const seenShort: Record<string, string> = {
  lobe_away: 'lobe away',
  loose: 'play',
  pressed: 'open',
  full_lift: 'down',
  rocking: 'rocking',
  tdc_firing: 'firing TDC',
}

/** So many entries of a job, in words. */
export const entries = (n: number): string => (n === 1 ? '1 entry' : `${n} entries`)
