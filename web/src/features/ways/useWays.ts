import { computed, ref } from 'vue'
import { newID, type Happening, type HappeningOf, type PlanView } from '@/shared/api/client'
import { reads, useRead } from '@/shared/api/reads'
import { useQueue } from '@/shared/useQueue'

/** How the engine is to be gone round, as the bench hands it on. */
type Round = Pick<HappeningOf<'way_chosen'>, 'round' | 'check' | 'one_kind_first' | 'check_turns' | 'scope'>

/** The round in an address; what is not there is as before. */
export function roundOf(query: Record<string, unknown>): Round {
  const text = (name: string) => (query[name] ? { [name]: String(query[name]) } : {})
  return {
    ...text('round'),
    ...text('check'),
    ...text('one_kind_first'),
    ...(query.check_turns ? { check_turns: Number(query.check_turns) as 2 | 4 } : {}),
    ...(query.scope ? { scope: String(query.scope).split(',') } : {}),
  }
}

/** Every way round one engine, of a job or of the library, and the one looked at. */
export function useWays(of: { job?: string; engine?: string }, goes: Round = {}) {
  const direction = ref<'running' | 'back'>('running')
  const positions = ref<'any' | 'marks'>('any')
  const stops = ref(0)
  const chosen = ref('')
  /** Why the crank is turned back for this job though the sheet does not allow it. */
  const backReason = ref('')

  const asked = computed(() =>
    reads.ways(of, {
      direction: direction.value,
      positions: positions.value,
      stops: stops.value,
      back_anyway: backReason.value ? true : undefined,
      round: goes.round ?? 'set_as_you_go',
      check: goes.check,
      one_kind_first: goes.one_kind_first,
      check_turns: goes.check_turns,
    }),
  )
  const { data: ways, trouble: unread, again } = useRead(asked)
  const refused = ref('')
  const trouble = computed(() => refused.value || unread.value)

  const key = (p: PlanView) => `${p.school} ${p.order}${p.direction === direction.value ? '' : ` ${p.direction}`}`
  const open = computed(() => (ways.value?.plans ?? []).filter((p) => p.applies))
  const shut = computed(() =>
    (ways.value?.plans ?? []).filter(
      (p, i, all) => !p.applies && all.findIndex((o) => o.school === p.school && !o.applies) === i,
    ),
  )
  const plan = computed(() => open.value.find((p) => key(p) === chosen.value) ?? open.value[0] ?? null)

  /** The best plan of so many stops, from the frontier. */
  function best(k: number) {
    stops.value = k
    positions.value = 'any'
    chosen.value = 'fewest_stops turning'
  }

  function step(by: number) {
    const at = open.value.findIndex((p) => p === plan.value)
    const next = open.value[(at + by + open.value.length) % open.value.length]
    if (next) chosen.value = key(next)
  }

  const queue = useQueue()
  const waits = computed(() => queue.waiting.value.some((x) => x.job === of.job && !x.refused))

  /** Takes the plan looked at for the job, by the same queue as the bench: it is sent once, after what waits. */
  async function take() {
    const p = plan.value
    const job = of.job
    if (!p || !job || queue.busy.value) return false
    refused.value = await queue.flush(() => {}) // what was done before this comes first
    if (!waits.value && !refused.value) {
      const { school, order, direction, positions, stop_count } = p
      await queue.add(job, {
        id: newID(),
        kind: 'way_chosen',
        school,
        order,
        direction,
        positions,
        stop_count,
        back_reason: direction === 'back' && backReason.value ? backReason.value : undefined,
        ...goes,
      } as Happening)
      refused.value = await queue.flush(() => {})
    }
    if (waits.value)
      refused.value =
        'The program cannot be reached. What waits in this browser is sent when it can be; then choose again if need be.'
    return refused.value === ''
  }

  /** Looks at turning back all the same, for a reason. */
  function backAnyway(reason: string) {
    backReason.value = reason
    direction.value = 'back'
  }

  return {
    backReason,
    backAnyway,
    ways,
    trouble,
    direction,
    positions,
    stops,
    chosen,
    key,
    open,
    shut,
    plan,
    again,
    best,
    step,
    take,
  }
}
