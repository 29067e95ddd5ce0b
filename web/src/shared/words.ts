import type { Judgement, PlanView, Schemas, Sighting, Verdict } from '@/shared/api/client'
import { degrees } from '@/shared/units'

/*
 * The words of the front end for what travels on the wire, and the choices that stand for its values. docs/glossary.md says where a
 * word on a screen is another than the one on the wire.
 */

/** Choices of one wire field, each with its words. */
const choices = <T extends string>(words: Record<T, string>) =>
  (Object.entries(words) as [T, string][]).map(([value, title]) => ({ value, title }))

/** A sighting as something seen: "cylinder 4 is rocking"; a sign of the engine in its sheet's words. */
export function seenWords(s: Sighting, signs: Schemas['Sign'][] = []): string {
  switch (s.what) {
    case 'sign': {
      const sign = signs.find((x) => x.id === s.sign)
      return sign ? `${sign.where}: ${sign.text}` : (s.sign ?? '')
    }
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
export function orderName(order: string): string {
  return order === 'numerical' ? 'by number' : 'as the crank turns'
}

export const verdictWord: Record<Verdict, string> = { in: 'In', tight: 'Tight', loose: 'Loose', undecided: 'Undecided' }

/** A verdict in words; by one leaf it is a side, and not out of limits. */
export function verdictOf({ verdict, figure }: Pick<Judgement, 'verdict' | 'figure'>): string {
  if (figure.kind === 'looser') return 'Looser than wanted'
  if (figure.kind === 'tighter') return 'Tighter than wanted'
  return verdictWord[verdict]
}

const phases: Record<string, string> = {
  choose_way: 'Sequence',
  prepare: 'Temperature',
  as_found: 'As found',
  adjust: 'Adjust',
  verify: 'Check pass',
  sign: 'Sign',
  await_hot: 'Hot pass',
  done: 'Signed',
}

/** The name of a phase of the job. */
export function phaseName(phase: string): string {
  return phases[phase] ?? phase
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

const adjusters: Record<string, string> = {
  screw_valve_end: 'Screw at the valve end of the rocker',
  screw_pushrod_end: 'Screw at the push-rod end of the rocker',
  centre_nut: 'Rocker stud nut',
  finger_pivot_at_cam: 'Pivot of a finger follower, gap at the cam',
  finger_pivot_at_valve: 'Pivot of a finger follower, gap at the valve',
  screw_valve_end_at_cam: 'Screw at the valve end, gap at the cam',
  threaded_tappet: 'Threaded tappet, gap at the tappet',
  threaded_tappet_at_valve: 'Threaded tappet, gap at the valve',
  eccentric: 'Eccentric at the valve end',
  shim: 'Shim or bucket',
  hydraulic: 'Hydraulic: holds zero clearance',
}

export const adjusterKinds = choices(adjusters)
export const threads = choices({ right: 'Right-hand thread', left: 'Left-hand thread' })
export const closings = choices({ '': 'Closes as its kind does', in: 'Closes screwed in', out: 'Closes screwed out' })
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

/** The rule of a job, as its sheet says it. */
export const ruleSaid: Record<string, string> = {
  workshop: 'Workshop rule: the estimate decides.',
  guarded: 'Strict rule: in or out only when the whole uncertainty lies there.',
  one_leaf: 'One leaf, that of the wanted gap: without a drag it tells the side and no figure.',
}

/** How the engine is gone round, and which valves are checked at the end. */
export const rounds = choices({
  set_as_you_go: 'Set as you go',
  read_first: 'Read all first',
  read_only: 'Read only',
  free_first: 'Free all first',
})
export const kindsFirst = choices({
  both: 'Both kinds at each stop',
  exhaust: 'Exhausts first',
  intake: 'Intakes first',
})
export const lockings = choices({ one_go: 'Lock in one go', nip_then_torque: 'Nip, then torque' })
/** Schools of locking: the screw is held still, or set off the aim by what the nut will take. */
export const nutWays = choices({
  held: 'Hold the screw still',
  closes: 'It closes the gap: back off first',
  opens: 'It opens the gap: leave it tight',
})
export const aimings = choices({ leave_in: 'Leave alone what is in', all_to_aim: 'All to the aim' })

/** What a vehicle is brought in for, and the side of the limits it points to. */
export const complaints = [
  { value: 'ticks', title: 'Ticks', points: 'points to loose' },
  { value: 'rough_idle', title: 'Rough idle', points: 'points to tight' },
  { value: 'back_fires', title: 'Back-fires', points: 'points to a tight intake' },
  { value: 'smokes', title: 'Smokes', points: 'points to tight' },
  { value: 'hard_start', title: 'Hard to start', points: 'points to tight' },
  { value: 'low_compression', title: 'Low compression', points: 'points to tight' },
  { value: 'ticks_by_nature', title: 'Ticks by nature', points: 'this engine always did' },
  { value: 'none', title: 'No complaint', points: 'due, or checked' },
] as const

/** What a job that is put off waits for. */
export const waitsFor = choices({ date: 'A date', odometer: 'An odometer', parts: 'Parts', cams: 'Other cams' })

/** How an engine is judged cold without a thermometer. */
export const coldBy = choices({ overnight: 'Stood overnight', hours: 'Stood for hours', hand: 'Cool to the hand' })
export const checkTurns = [
  { value: 2, title: 'Two turns, then check' },
  { value: 4, title: 'Four turns, then check' },
] as const
export const checkRounds = choices({ set_ones: 'Check those set', all: 'Check all', none: 'No check' })
const roundHow = {
  set_as_you_go: 'At each stop: read a valve, leave it if it is in, else set it, lock it and read it again.',
  read_first: 'The whole engine as found, nothing touched; then those that are out are set.',
  read_only: 'Every valve as found, nothing is set: an inspection, or a second opinion.',
  free_first:
    'Every adjuster is slackened and found free; then each valve is set, locked and read. Nothing is read as found.',
}

/** What a round does, in a sentence. */
export const roundWords = (round: keyof typeof roundHow) => roundHow[round]

/** What a sequence costs by the round that is chosen, and how far its valves stand from their lobes, line by line. */
export function costLines({ costs, smallest_margin_deg: margin }: PlanView): string[] {
  const clear = `clear by ${degrees(margin!)}`
  if (!costs) return [clear]
  const { all_in, some_out, out_count } = costs
  const check = some_out.check_turn_deg ? ` + ${degrees(some_out.check_turn_deg)} to check` : ''
  return [
    `${all_in.gestures} taps, ${all_in.leaf_changes} changes of leaf, ${clear}`,
    `with ${out_count} out: ${degrees(some_out.turn_deg)}${check}, ${some_out.gestures} taps`,
  ]
}

/** What a choice of shims is after first. */
export const shimChoice: Record<string, string> = { fewest_bought: 'Fewest bought', nearest_aim: 'Nearest the aim' }

/** Where a shim comes from. */
export function shimOrigin(source: string, from: string): string {
  const words: Record<string, string> = {
    valve: `from ${from}`,
    bench: 'from the loose shims',
    buy: 'to order',
    shop: 'from the shop',
    stays: 'stays',
  }
  return words[source] ?? source
}

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

/** How a gear is drawn and spoken of when it is set. */
export interface GearWords {
  /** The picture: a slotted screw in its nut, an eccentric, two nuts, a nut on a stud. */
  form: 'screw' | 'eccentric' | 'nuts' | 'stud'
  /** What is done until the leaf drags: "Slacken …, turn … until 0.30 drags." */
  turn: (leaf: string) => string
  tools: string
  lock: string
}
const screwWords: GearWords = {
  form: 'screw',
  turn: (leaf) => `Slacken the lock nut, turn the screw until ${leaf} drags.`,
  tools:
    'Check first that the screw turns freely: a ring spanner on the nut, a driver or key in the screw. Turn it until it touches the leaf without clamping it. Never a socket on the nut: it drags the screw round.',
  lock: 'Tightening drags the screw round and closes the gap. Hold the screw still with the driver while the nut goes tight.',
}
const tappetWords: GearWords = {
  form: 'nuts',
  turn: (leaf) => `Slacken the lock nut, turn the tappet’s head until ${leaf} drags.`,
  tools:
    'Two thin spanners, cranked where it is tight. Too tight: loosen the lock nut first. Too loose: start with the upper nut.',
  lock: 'Tightening draws the thread up and moves the gap. Hold the head with one spanner while the other brings the lock nut up.',
}
const pivotWords: GearWords = {
  form: 'nuts',
  turn: (leaf) => `Slacken the lock nut, turn the pivot until ${leaf} drags.`,
  tools:
    'An open spanner on the pivot, another on its lock nut. A finger can jump out of its socket under too much force.',
  lock: 'Tightening draws the thread up and moves the gap. Hold the pivot still while the nut goes tight.',
}
const gears: Record<string, GearWords> = {
  eccentric: {
    form: 'eccentric',
    turn: (leaf) => `Slacken the clamp nut, turn the eccentric until ${leaf} drags.`,
    tools:
      'A thin key or a hooked rod in the hole of the eccentric. It moves the gap by feel: little near its ends, most between.',
    lock: 'Hold the eccentric with its key or rod while the clamp nut goes tight.',
  },
  centre_nut: {
    form: 'stud',
    turn: (leaf) => `Turn the nut on the stud until ${leaf} drags.`,
    tools:
      'A deep socket or ring spanner on the self-locking nut. One that turns by hand has lost its grip: replace it.',
    lock: 'A self-locking nut holds as it stands; with a set screw in it, tighten that and hold the nut.',
  },
  threaded_tappet: tappetWords,
  threaded_tappet_at_valve: tappetWords,
  finger_pivot_at_cam: pivotWords,
  finger_pivot_at_valve: pivotWords,
}

/** The words, tools and picture of a kind of adjuster; a screw with its lock nut where none is stated. */
export const gearOf = (adjuster: string): GearWords => gears[adjuster] ?? screwWords

/** Which way an adjuster goes and how far, "Screw in 36°, clockwise": a stud nut goes down and up, every other screw in and out. */
export function turnOf(
  screw: { turn_deg?: number | null; travel: string; rotation: string },
  adjuster: string,
  valve = '',
): string {
  const nut = adjuster === 'centre_nut'
  const way = nut ? { in: 'down', out: 'up' }[screw.travel] : screw.travel
  const what = [nut ? 'Nut' : 'Screw', valve, way].filter(Boolean).join(' ')
  return `${what} ${degrees(screw.turn_deg ?? 0)}, ${screw.rotation}`
}
