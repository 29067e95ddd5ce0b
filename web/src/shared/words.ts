import type { PlanView, Sighting, Verdict } from '@/shared/api/client'

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
  }
  return 'the stop is reached'
}

/** A sighting as it stands now: "Cylinder 4 is rocking". */
export function standing(s: Sighting): string {
  if (s.what === 'rocking') return `Cylinder ${s.cylinder} is rocking`
  const text = until(s)
  return text[0]!.toUpperCase() + text.slice(1)
}

/** What the mechanic says at a stop, on the button: "Cylinder 4 rocks". */
export function confirmed(s: Sighting): string {
  const text = until(s)
  return text[0]!.toUpperCase() + text.slice(1)
}

/** How to tell the sighting from its look-alike a turn away. */
export function howToSee(s: Sighting): string {
  switch (s.what) {
    case 'rocking':
      return 'Rocking: as the exhaust finishes closing, the intake starts to open. Nothing of the cylinder you read may move.'
    case 'full_lift':
      return 'Fully down: the rocker neither sinks further nor rises when the crank is moved a little on.'
    case 'tdc_firing':
      return 'Firing TDC: both rockers of the cylinder have play. If they are rocking, the crank is one turn out: turn on 360°.'
  }
  return ''
}

const schools: Record<string, string> = {
  one_cylinder: 'One cylinder at a time',
  rocking_pairs: 'Rocking pairs',
  sum_rule: 'Rule of nine',
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
  done: 'Signed',
}

/** The name of a phase of the job. */
export function phaseName(phase: string): string {
  return phases[phase] ?? phase
}

export const feelWord: Record<string, string> = { free: 'free', drag: 'drag', wont_go: 'won’t go' }
