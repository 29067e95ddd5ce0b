import { dequal } from 'dequal/lite'
import { computed, inject, provide, type ComputedRef, type InjectionKey, type Ref } from 'vue'
import type { HappeningOf, JobView, PlanView, Schemas, ValveState } from '@/shared/api/client'
import { leaves } from '@/shared/units'
import type { Waiting } from '@/shared/useQueue'
import type { Doing } from './useJob'

type Reading = Schemas['Reading']

/** What a thermometer shows of a practice engine and beside it, °C. */
export interface Thermometer {
  engine_c: number
  ambient_c: number
}

/** What every panel of the bench works with: the job as it stands, and the ways to act on it. */
export interface Bench {
  view: ComputedRef<JobView>
  state: ComputedRef<JobView['state']>
  /** The valve that the one next action is about. */
  valve: ComputedRef<ValveState | undefined>
  /** What was felt of that valve in this round, and what waits to be sent of it. */
  round: ComputedRef<Reading[]>
  /** Whether a tap now would be a bounce of the one before, or meant for the valve before: no answer is taken. */
  settling: Readonly<Ref<boolean>>
  /** The valve whose drag is being proved: what is felt of it is kept by a key alone. */
  proving: ComputedRef<string>
  /** Shows what may be done at the valve in hand instead of what is next, until something is done; again: what is next. */
  instead(): void
  /** The engine is one to practise on: what the thermometer on it shows, °C; null: it is a real one. */
  practice: ComputedRef<Thermometer | null>
  /** Whether the last thing done was refused. */
  refused: ComputedRef<boolean>
  act(doing: Doing): void
  /** Asks why a valve is left out of limits. */
  leave(valve: string): void
  /** Asks why a valve that is in is set all the same. */
  setThough(valve: string): void
  /** Shows another sequence on the drawing, or none. */
  look(plan: PlanView | null): void
  /** Ends the choosing of another sequence. */
  stay(): void
}

const key: InjectionKey<Bench> = Symbol('bench')

/** A reading that waits to be sent is shown as felt at once. */
function waitingReadings(waiting: Waiting[], valve: string): Reading[] {
  const bodies = waiting.map((w) => w.body)
  return [
    ...bodies
      .filter((h): h is HappeningOf<'reading'> => h.kind === 'reading' && h.valve === valve)
      .map((h) => ({
        leaves_mm: h.leaves_mm ?? [],
        angled: h.angled ?? (h.leaves_mm ?? []).map(() => false),
        name: leaves(h.leaves_mm ?? []),
        feel: h.feel as Reading['feel'],
      })),
    ...bodies
      .filter((h): h is HappeningOf<'dial'> => h.kind === 'dial' && h.valve === valve)
      .map((h) => ({ leaves_mm: [], angled: [], name: '', feel: '' as const, dial_mm: h.gap_mm })),
  ]
}

/** Lays out the bench for its panels. */
export function provideBench(
  view: Ref<JobView>,
  waiting: Ref<Waiting[]>,
  does: Pick<
    Bench,
    'practice' | 'settling' | 'proving' | 'instead' | 'refused' | 'act' | 'leave' | 'setThough' | 'look' | 'stay'
  >,
): Bench {
  const state = computed(() => view.value.state)
  const valve = computed(() => state.value.valves.find((v) => v.name === state.value.now.valve))
  const bench: Bench = {
    view: computed(() => view.value),
    state,
    valve,
    // the same list while nothing of it changes: a ladder is not drawn anew for it
    round: computed<Schemas['Reading'][]>((before) => {
      const waits = valve.value ? waitingReadings(waiting.value, valve.value.name) : []
      const now = [...(valve.value?.round ?? []), ...waits]
      return before && !waits.length && dequal(before, now) ? before : now
    }),
    ...does,
  }
  provide(key, bench)
  return bench
}

/** The bench that a panel stands on. */
export function useBench(): Bench {
  const bench = inject(key)
  if (!bench) throw new Error('a panel stands on a bench')
  return bench
}
