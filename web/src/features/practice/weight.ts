import type { EngineView } from '@/shared/api/client'

/** From how far before a firing top dead centre compression is felt, and how little the crank then yields (common practice: most of it in the last third). */
const from = 120
const hardest = 0.3

/**
 * By how much the crank follows the hand at a place, from 1, freely, to less where a cylinder compresses: every cylinder has its firing top
 * dead centre 720° apart, one after the other by the firing order.
 */
export function yields({ firing_order }: EngineView, crank: number): number {
  const n = firing_order.length
  const each = 720 / n
  // the next firing top dead centre from here, forwards
  const before = (each - (((crank % each) + each) % each)) % each || 0
  if (before > from || n === 0) return 1
  const near = 1 - before / from
  return 1 - (1 - hardest) * Math.sin((near * Math.PI) / 2) ** 2
}
