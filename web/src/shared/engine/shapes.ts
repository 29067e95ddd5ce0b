import type { Verdict } from '@/shared/api/client'

/** Forms of the verdicts about the origin, 28 wide: wedges pressing a line, standing off a line, a closed pair, one wedge. */
export const verdictPaths: Record<Verdict, { fill: string; line: string }> = {
  tight: { fill: 'M-13-14H13L0-3Z M-13 14H13L0 3Z', line: 'M-15 0H15' },
  loose: { fill: 'M-9-8H9L0-16Z M-9 8H9L0 16Z', line: 'M-15 0H15' },
  in: { fill: '', line: 'M-14-5H14 M-14 5H14' },
  undecided: { fill: 'M-13-12H13L0 1Z', line: 'M-14 9H-8 M-3 9H3 M8 9H14' },
}

/** Outline of an exhaust valve's token: a square with cut corners. */
export function octagon(r: number): string {
  const c = r * 0.45
  return `M${-r + c} ${-r}H${r - c}L${r} ${-r + c}V${r - c}L${r - c} ${r}H${-r + c}L${-r} ${r - c}V${-r + c}Z`
}
