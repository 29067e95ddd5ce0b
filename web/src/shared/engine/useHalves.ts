import { onScopeDispose, ref, watch } from 'vue'

/** On a head of more valves than these every other one moves in each frame, so that a frame of a large head costs no more than one of a small. */
const atOnce = 24
/** How long after the crank stands all of them are where they belong, ms. */
const settles = 50

/** Where the crank is drawn for a valve by its place in the list. */
export function useHalves(crank: () => number | null, valves: () => number): (at: number) => number | null {
  const halves = [ref(crank()), ref(crank())]
  let turn = 0
  let timer = 0
  const both = () => halves.forEach((half) => (half.value = crank()))
  watch(
    crank,
    (now) => {
      clearTimeout(timer)
      if (now === null || valves() <= atOnce) {
        both()
        return
      }
      turn = 1 - turn
      halves[turn]!.value = now
      timer = window.setTimeout(both, settles)
    },
    { flush: 'sync' },
  )
  onScopeDispose(() => clearTimeout(timer))
  return (at) => halves[at % 2]!.value
}
