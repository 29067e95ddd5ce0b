/** From how far before a firing top dead centre compression is felt, and how little the crank then yields (common practice: most of it in the last third). */
const from = 120
const hardest = 0.3

/**
 * By how much the crank follows the hand at a place, from 1, freely, to less where a cylinder compresses. [firing] are the places of the
 * firing top dead centres, as the program says them.
 */
export function yields(firing: number[], crank: number): number {
  const ahead = firing.map((tdc) => (((tdc - crank) % 720) + 720) % 720)
  const before = Math.min(...ahead, 720)
  if (before > from) return 1
  return 1 - (1 - hardest) * Math.sin(((1 - before / from) * Math.PI) / 2) ** 2
}
