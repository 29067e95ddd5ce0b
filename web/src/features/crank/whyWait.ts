import type { JobView } from '@/shared/api/client'
import { helpable } from '@/features/bench/wordsNow'

/**
 * Why a helper at the crank has to wait; empty: he may turn. He may only while the program is heard, a turn is what is next, and whoever is
 * at the valves has said for just this that hands are clear, not longer ago than it holds.
 */
export function whyWait(view: JobView, { now, reached }: { now: number; reached: boolean }): string {
  const { state, clear } = view
  if (!reached) return 'The line to the bench is lost.'
  if (state.now.make_safe) return 'The vehicle is not made safe yet.'
  if (!helpable(state.now.action))
    return state.now.valve ? `${state.now.valve} is being worked on.` : 'Nothing is to be turned now.'
  if (state.now.waits_for) return state.now.waits_for
  if (!clear || clear.newest !== state.newest || now >= Date.parse(clear.until)) return 'Hands are not clear yet.'
  return ''
}
