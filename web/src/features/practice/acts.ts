import type { Happening, Schemas } from '@/shared/api/client'
import { degrees, leaves, mm } from '@/shared/units'
import { actWords } from '@/features/bench/actWords'

const claims = { in: 'in', tight: 'too tight', loose: 'too loose' } as const

/** What was done in a run, in words: by hand, or said at the bench. */
export function actSays(act: Schemas['PracticeAct']): string {
  const h = act.hand
  if (!h) return actWords(act.said as Happening)
  if (h.turn_deg) {
    const kicked = act.kicked_deg ? `, thrown back by ${degrees(act.kicked_deg)}` : ''
    return `crank turned ${h.turn_deg < 0 ? 'back' : 'on'} by ${degrees(Math.abs(h.turn_deg))}${kicked}`
  }
  if (h.take_off) return 'tool taken off the crank'
  if (h.slide) return `${h.slide.valve}: ${leaves(h.slide.leaves_mm ?? [])}. ${act.felt?.went ?? ''}`
  if (h.loosen) return `${h.loosen}: nut loosened`
  if (h.screw)
    return `${h.screw.valve}: screw ${degrees(Math.abs(h.screw.by_deg))} ${h.screw.by_deg > 0 ? 'clockwise' : 'anticlockwise'}`
  if (h.tighten) return `${h.tighten}: nut tightened`
  if (h.dial) return `${h.dial}: dial read`
  if (h.rock) return `${h.rock}: rocked`
  if (h.take_shim) return `${h.take_shim}: shim taken out`
  if (h.fit_shim) return `${h.fit_shim.valve}: shim of ${mm(h.fit_shim.shim_mm)} laid in`
  if (h.claim)
    return `${h.claim.valve}: held to be ${claims[h.claim.is]}${h.claim.left ? `, left: ${h.claim.left}` : ''}`
  return ''
}
