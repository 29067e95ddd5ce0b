import type { PlanView, Sighting, Verdict } from '@/shared/api/client'
import { degrees } from '@/shared/units'

/** A sighting as something to turn the crank until: "cylinder 4 rocks". */
export function until(s: Sighting): string {
  switch (s.what) {
    case 'rocking':
      return `cylinder ${s.cylinder} rocks`
    case 'full_lift':
      return `${s.valve} is fully down`
    case 'tdc_firing':
      return `cylinder ${s.cylinder} is at firing TDC`
    case 'mark':
      return s.mark_deg === 0 ? 'the TDC mark is at the pointer' : `the ${s.mark_deg}° mark is at the pointer`
    case 'opening':
      return `${s.valve} just starts to open`
    case 'closing':
      return `${s.valve} is nearly closed`
    case 'loose':
      return `the lobe of ${s.valve} points straight away`
    case 'degrees':
      return `the degree wheel reads ${degrees(s.mark_deg)}`
  }
  return 'the stop is reached'
}

/** A sighting as something seen: "cylinder 4 is rocking". */
export function seenWords(s: Sighting): string {
  switch (s.what) {
    case 'rocking':
      return `cylinder ${s.cylinder} is rocking`
    case 'tdc_firing':
      return `cylinder ${s.cylinder}: both rockers have play, at TDC`
    case 'loose':
      return `${s.valve} has play`
    case 'pressed':
      return `${s.valve} is held open`
  }
  return until(s)
}

/** What to turn the crank until at a stop: its own sign, and where that comes twice in two turns, what tells the turns apart. */
export function untilStop(watch: Sighting[]): string {
  const [sign, other] = watch
  if (!sign) return 'the stop is reached'
  const twice = sign.what === 'mark' || sign.what === 'degrees'
  return twice && other ? `${until(other)}, ${until(sign)}` : until(sign)
}

const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1)

/** A stop as it stands now: "Cylinder 4 is rocking". */
export function standing(watch: Sighting[]): string {
  return watch[0]?.what === 'rocking' ? `Cylinder ${watch[0].cylinder} is rocking` : capital(untilStop(watch))
}

/** What the mechanic says at a stop, on the button: "Cylinder 4 rocks". */
export function confirmed(watch: Sighting[]): string {
  return capital(untilStop(watch))
}

/** How to tell the sighting from its look-alike a turn away. */
export function howToSee(s: Sighting): string {
  switch (s.what) {
    case 'rocking':
      return 'Rocking: as the exhaust finishes closing, the intake starts to open. Nothing of the cylinder you read may move.'
    case 'full_lift':
      return 'Fully down: the rocker neither sinks further nor rises when the crank is moved a little on.'
    case 'mark':
    case 'degrees':
      return 'The pulley passes it twice in two turns: look at the rockers too, or the crank may be one turn out.'
    case 'opening':
      return 'Turn slowly: the rocker has just begun to sink.'
    case 'closing':
      return 'Turn slowly: the rocker has all but come up again.'
    case 'loose':
      return 'The lobe points straight away from its follower: the valve has play and is in the middle of its base circle.'
    case 'tdc_firing':
      return 'Firing TDC: both rockers of the cylinder have play. If they are rocking, the crank is one turn out: turn a further 360°.'
  }
  return ''
}

const schools: Record<string, string> = {
  one_cylinder: 'One cylinder at a time',
  rocking_pairs: 'Rocking pairs',
  sum_rule: 'Rule of nine',
  exhaust_open: 'Exhaust fully open',
  two_stop: 'Two stops',
  opening_closing: 'Exhaust opening, intake closing',
  one_lobe: 'One lobe at a time',
  own: 'The maker’s own order',
  fewest_stops: 'Fewest stops',
}

/** The name of a way round; the sum rule is named by the number of valves. */
export function schoolName(school: string, valves: number): string {
  if (school === 'sum_rule' && valves !== 8) return `Rule of ${valves + 1}`
  return schools[school] ?? school
}

/** The order of a way round. */
export function orderName(order: string): string {
  return order === 'numerical' ? 'by number' : 'as they come'
}

/** One line on how a way round is done. */
export function schoolLine(plan: PlanView): string {
  switch (plan.school) {
    case 'rocking_pairs':
      return 'Watch the companion cylinder rock, read both valves of the other.'
    case 'sum_rule':
      return 'Press-down of one valve puts its partner in the middle of its base circle.'
    case 'exhaust_open':
      return 'Watch each exhaust go fully down, read what stands deepest there.'
    case 'two_stop':
      return 'Firing TDC of the first cylinder, then one turn on.'
    case 'opening_closing':
      return 'Intake as its own exhaust starts to open, exhaust as its own intake nearly closes: for long cams.'
    case 'one_lobe':
      return 'Every valve in the middle of its base circle, its lobe straight away.'
    case 'own':
      return 'As printed for this engine. Where given it wins.'
    case 'fewest_stops':
      return 'As few stops as the required margin allows, by mark or degree wheel.'
  }
  return 'Each cylinder at its own firing TDC, both valves there.'
}

export const verdictWord: Record<Verdict, string> = { in: 'In', tight: 'Tight', loose: 'Loose', undecided: 'Undecided' }

const phases: Record<string, string> = {
  choose_way: 'Way round',
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

export const feelWord: Record<string, string> = { free: 'free', drag: 'drag', wont_go: 'won’t go' }

const layouts: Record<string, string> = { inline: 'in line', vee: 'vee', flat: 'flat', other: 'of its own layout' }

/** How the cylinders sit: "4 in line", "8 vee". */
export function layoutName(layout: string, cylinders: number): string {
  return `${cylinders} ${layouts[layout] ?? layout}`
}

const adjusters: Record<string, string> = {
  screw_valve_end: 'Screw at the valve end of the rocker',
  screw_pushrod_end: 'Screw at the push-rod end of the rocker',
  centre_nut: 'Nut at the centre of a stud rocker',
  finger_pivot_at_cam: 'Pivot of a finger follower, gap at the cam',
  finger_pivot_at_valve: 'Pivot of a finger follower, gap at the valve',
  screw_valve_end_at_cam: 'Screw at the valve end, gap at the cam',
  threaded_tappet: 'Threaded tappet, gap at the tappet',
  threaded_tappet_at_valve: 'Threaded tappet, gap at the valve',
  eccentric: 'Eccentric at the valve end',
  shim: 'Shim or bucket',
  hydraulic: 'Hydraulic: holds zero clearance',
}

/** The kinds of adjuster, with their names. */
export const adjusterKinds = Object.entries(adjusters).map(([value, title]) => ({ value, title }))

/** How far to turn, and which way. */
export function turnBy(direction: string, deg: number): string {
  return direction === 'back' ? `Turn back ${degrees(deg)}` : `Turn a further ${degrees(deg)}`
}
