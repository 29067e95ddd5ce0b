import type { Verdict } from '@/shared/api/client'

/** Forms of the verdicts about the origin, 28 wide: wedges pressing a line, standing off a line, a closed pair, one wedge. */
export const verdictPaths: Record<Verdict, { fill: string; line: string }> = {
  tight: { fill: 'M-13-14H13L0-3Z M-13 14H13L0 3Z', line: 'M-15 0H15' },
  loose: { fill: 'M-9-8H9L0-16Z M-9 8H9L0 16Z', line: 'M-15 0H15' },
  in: { fill: '', line: 'M-14-5H14 M-14 5H14' },
  undecided: { fill: 'M-13-12H13L0 1Z', line: 'M-14 9H-8 M-3 9H3 M8 9H14' },
}

/** Outline of an exhaust valve's token about a place, the origin where none is said: a square with cut corners. */
export function octagon(r: number, x = 0, y = 0): string {
  const c = r * 0.45
  return `M${x - r + c} ${y - r}h${2 * (r - c)}l${c} ${c}v${2 * (r - c)}l${-c} ${c}h${-2 * (r - c)}l${-c} ${-c}v${-2 * (r - c)}Z`
}
