import type { Schemas } from '@/shared/api/client'
import { liftAt } from './headLayout'

/** What a gear consists of, as it is served with the engine. */
export type Picture = Schemas['GearPicture']
type Train = Picture['train']

/** How far the valve opens, in the drawing's units. */
export const rise = 22

/** How far the cam lifts for a gap on the base circle: it takes up the gap, then opens the valve; a finger doubles what it is given. */
export function camLift({ train, at_cam }: Picture, gap: number): number {
  const ratio = ratioOf(train)
  return at_cam ? gap + rise / ratio : (gap + rise) / ratio
}

const ratioOf = (train: Train) => (train === 'finger' ? 2 : 1)

/** How far cam and valve have moved at an open fraction, and what is left of the gap; all in the drawing's units. */
export function moves(gear: Picture, open: number, gap: number): { cam: number; valve: number; gap: number } {
  const ratio = ratioOf(gear.train)
  const cam = open * camLift(gear, gap)
  const taken = gear.at_cam ? cam : cam * ratio
  return { cam, valve: Math.max(0, taken - gap) * (gear.at_cam ? ratio : 1), gap: Math.max(0, gap - taken) }
}

/** The crank position of most lift: the middle of the highest stretch of a lift curve over two turns. */
export function peakOf(curve: number[]): number {
  const most = Math.max(...curve)
  const at = curve.flatMap((l, i) => (l > most - 1e-6 ? [i] : []))
  // a stretch that reaches over 720° stands at both ends of the curve
  const low =
    at.at(-1)! - at[0]! > curve.length / 2 ? at.map((i) => (i < curve.length / 2 ? i + curve.length - 1 : i)) : at
  return ((low.reduce((a, b) => a + b, 0) / low.length / (curve.length - 1)) * 720) % 720
}

/** Outline of a cam about the origin, its nose up, from a valve's lift curve: the cam turns at half the speed of the crank. */
export function camOutline(curve: number[], base: number, lift: number): string {
  const peak = peakOf(curve)
  const points = Array.from({ length: 120 }, (_, i) => {
    const a = (i / 120) * 2 * Math.PI
    const r = base + lift * liftAt(curve, peak + (i / 120) * 720)
    return `${(Math.sin(a) * r).toFixed(1)} ${(-Math.cos(a) * r).toFixed(1)}`
  })
  return `M${points.join('L')}Z`
}

/** A coil spring between two heights about x. */
export function spring(x: number, from: number, to: number, wide: number): string {
  const coils = 5
  const step = (to - from) / coils
  return Array.from(
    { length: coils },
    (_, i) => `M${x - wide} ${(from + i * step).toFixed(1)}L${x + wide} ${(from + (i + 0.55) * step).toFixed(1)}`,
  ).join('')
}
