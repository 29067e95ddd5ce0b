import { Unreachable } from './api/client'
import { keptJobs } from './keptJobs'
import type { Session } from './session'

/** Who was here when the program said so last, and when this screen was last touched. */
const whoKey = 'metronix.session'
const touchKey = 'metronix.touched'
/** How often a touch is noted, ms. */
const often = 20_000

let noted = 0
for (const kind of ['pointerdown', 'keydown'])
  addEventListener(
    kind,
    () => {
      if (Date.now() - noted < often) return
      noted = Date.now()
      localStorage.setItem(touchKey, String(noted))
    },
    true,
  )

/** Keeps who is here. Where nobody is, the next one reads the jobs from the program: none stay on this tablet. */
export function keepSession(s: Session) {
  localStorage.setItem(whoKey, JSON.stringify(s))
  localStorage.setItem(touchKey, String(Date.now()))
  if (!s.open && !s.person) void keptJobs.clear()
}

/**
 * Who is here where the program does not say: whoever was here last, unless he would have been signed out by the time. Then nobody is known
 * to be: what is done is sent by whoever signs in next.
 */
export function lastSession(why: unknown): Session {
  const text = localStorage.getItem(whoKey)
  if (!(why instanceof Unreachable) || !text) throw why
  const s = JSON.parse(text) as Session
  const idle = Date.now() - Number(localStorage.getItem(touchKey))
  if (s.person && idle > s.out_after_min * 60_000) return { ...s, person: undefined, open: true }
  return s
}
