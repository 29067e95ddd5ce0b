import { onScopeDispose, ref, watch, type Ref } from 'vue'

/** So many valves move in each frame at most, the others in the frames after it: a frame of a large head costs little more than one of a small. */
const atOnce = 16
/** How long after the crank stands all of them are where they belong, ms. */
const settles = 50

/** Where the crank is drawn for a valve by its place in the list. */
export function useShares(crank: () => number | null, valves: () => number): (at: number) => number | null {
  const shares: Ref<number | null>[] = [ref(crank())]
  let turn = 0
  let timer = 0
  const all = () => shares.forEach((share) => (share.value = crank()))
  watch(
    () => [crank(), Math.max(1, Math.ceil(valves() / atOnce))] as const,
    ([now, many]) => {
      clearTimeout(timer)
      const whole = now === null || many !== shares.length
      while (shares.length < many) shares.push(ref(now))
      shares.length = many
      if (whole || many === 1) {
        all()
        return
      }
      turn = (turn + 1) % many
      shares[turn]!.value = now
      timer = window.setTimeout(all, settles)
    },
    { flush: 'sync', immediate: true },
  )
  onScopeDispose(() => clearTimeout(timer))
  return (at) => shares[at % shares.length]!.value
}
