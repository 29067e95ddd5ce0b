import type { Schemas } from '@/shared/api/client'

type Visit = { meter: number; valves: Schemas['VisitValve'][] }
type Wear = Schemas['ValveWear']

/** The standard normal's quantile of the fan: nine of ten ways that a rate may go on lie within (as the forecast's range has it). */
const z = 1.645

/** One valve's gaps over its vehicle's counter: found and left at each visit, and where they may go from the last. */
export interface Tooth {
  wear: Wear
  /** Runs of [counter, gap, mm]; a run ends where nobody knows how the gap came to the next. */ runs: [
    number,
    number,
  ][][]
  lower: number
  upper: number
  /** The last gap left, from which the fan opens; null: not known. */ from: [number, number] | null
  /** The gap at the end of the chart, at the slowest, the likely and the fastest rate; null: no rate is known. */
  fan: [number, number, number] | null
}

/** What a counter shows at some time to come, as it is told: to hundreds of kilometres, to tens of the fewer hours. */
export function foreseen(meter: number, counts: 'km' | 'h'): number {
  const step = counts === 'h' ? 10 : 100
  return Math.round(meter / step) * step
}

/** How far the charts reach: as far again as the vehicle has run since its first visit, or to where the first valve surely leaves. */
export function horizon(visits: Visit[], wear: Wear[]): number {
  const meters = visits.map((v) => v.meter)
  const [first, last] = [Math.min(...meters), Math.max(...meters)]
  const leaving = wear
    .flatMap((w) => [w.leaves_at, w.range?.[1] ?? null])
    .filter((x): x is number => x !== null && x > last)
  const span = Math.max(1, last - first)
  return Math.min(last + 2 * span, Math.max(last + span / 2, ...leaving.slice(0, 2)))
}

/** The chart of one valve up to a counter's figure; null where it was never seen. */
export function tooth(visits: Visit[], wear: Wear, to: number): Tooth | null {
  const runs: [number, number][][] = []
  let run: [number, number][] = []
  let last: { meter: number; valve: Schemas['VisitValve'] } | null = null
  for (const visit of visits) {
    const valve = visit.valves.find((v) => v.valve === wear.valve)
    if (!valve) continue
    if (valve.found_mm === null && run.length) {
      runs.push(run)
      run = []
    }
    if (valve.found_mm !== null) run.push([visit.meter, valve.found_mm])
    if (valve.left_mm !== null) run.push([visit.meter, valve.left_mm])
    last = { meter: visit.meter, valve }
  }
  if (run.length) runs.push(run)
  if (!last) return null
  const { meter, valve } = last
  const from: [number, number] | null = valve.left_mm === null ? null : [meter, valve.left_mm]
  const { rate_mm_per_1000: rate, rate_u_mm_per_1000: u } = wear
  const on = (r: number) => valve.left_mm! + (r * (to - meter)) / 1000
  const fan: Tooth['fan'] = from && rate !== null ? [on(rate - z * (u ?? 0)), on(rate), on(rate + z * (u ?? 0))] : null
  return { wear, runs, lower: valve.lower_mm, upper: valve.upper_mm, from, fan }
}
