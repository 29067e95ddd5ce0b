import type { Found, PlanView } from '@/shared/api/client'
import { degrees } from '@/shared/units'

/** Where the crank stands by what is seen: plain words, and the part that stands out. */
export function placeSaid(found: Found | null, seen: number): [string, string] {
  if (found?.conflict) return ['That cannot ', 'all be.']
  if (found?.known) return ['The crank stands at ', `${degrees(found.crank_deg!)}.`]
  if (found && seen && found.positions.length > 1) return ['It may stand in ', `${found.positions.length} places.`]
  return ['What do you ', 'see?']
}

/** What to do from there; empty where it is not known, or leads nowhere. */
export function nextSaid(found: Found | null, plan: PlanView | undefined): string {
  const stop = found?.known && found.stop >= 0 ? plan?.stops[found.stop] : undefined
  if (!found || !stop) return ''
  if (!found.turn) return `That is stop ${found.stop + 1}: ${stop.valves.join(' and ')} may be read.`
  const { how, until } = found.instruction!
  return `Nearest stop. ${how} until ${until}.`
}

/** How much of the cycle is left where one thing more has to be said. */
export function leftSaid(found: Found): string {
  const left = found.positions.reduce((n, p) => n + ((p.to_deg - p.from_deg + 720) % 720), 0)
  return `That leaves ${degrees(left)} of the cycle: say one thing more.`
}
