import { computed, reactive } from 'vue'
import type { JobView } from '@/shared/api/client'

type State = JobView['state']

/** A hair, where a mechanic has named no figure yet, mm. */
const usualShift = 0.02

/** How the engine is to be gone round, as it is being chosen: what the job has, else what is usual. */
export function useRound(state: State) {
  const begun = Boolean(state.plan)
  const round = reactive({
    round: begun ? state.round : state.rounds[0]!,
    check: begun ? state.check : state.usual_check,
    one_kind_first: state.one_kind_first,
    check_turns: state.check_turns as 2 | 4,
    aiming: state.aiming,
    locking: state.locking,
    /** Which way the nut takes the gap by the mechanic's own word, and by how much. */
    nut:
      state.own_shift_mm === 0 ? ('held' as const) : state.own_shift_mm < 0 ? ('closes' as const) : ('opens' as const),
    nutMM: Math.abs(state.own_shift_mm) || usualShift,
    /** The valves that are left out of this job. */
    without: state.valves.filter((v) => v.outside).map((v) => v.name),
  })
  /** The valves of the job; undefined where it is about all, and was. */
  const scope = computed(() =>
    round.without.length || state.scope
      ? state.valves.map((v) => v.name).filter((n) => !round.without.includes(n))
      : undefined,
  )

  /** As it is sent with the sequence, and asked for with the sequences. */
  const fields = computed(() => ({
    round: round.round,
    check: round.check,
    one_kind_first: round.one_kind_first,
    check_turns: round.check_turns,
  }))
  const setting = computed(() => ({
    aiming: round.aiming,
    locking: round.locking,
    own_shift_mm: { held: 0, closes: -round.nutMM, opens: round.nutMM }[round.nut],
  }))
  return { round, scope, fields, setting }
}
