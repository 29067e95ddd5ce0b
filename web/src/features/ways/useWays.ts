import { computed, ref, watch } from 'vue'
import { answered, api, newID, type PlanView, type Ways } from '@/shared/api/client'

/** Every way round one engine, of a job or of the library, and the one looked at. */
export function useWays(of: { job?: string; engine?: string }) {
  const ways = ref<Ways | null>(null)
  const trouble = ref('')
  const direction = ref<'running' | 'back'>('running')
  const positions = ref<'any' | 'marks'>('any')
  const stops = ref(0)
  const chosen = ref('')

  const key = (p: PlanView) => `${p.school} ${p.order}`
  const open = computed(() => (ways.value?.plans ?? []).filter((p) => p.applies))
  const shut = computed(() =>
    (ways.value?.plans ?? []).filter(
      (p, i, all) => !p.applies && all.findIndex((o) => o.school === p.school && !o.applies) === i,
    ),
  )
  const plan = computed(() => open.value.find((p) => key(p) === chosen.value) ?? open.value[0] ?? null)

  async function load() {
    const query = { direction: direction.value, positions: positions.value, stops: stops.value }
    try {
      ways.value = of.job
        ? await answered(api.GET('/api/v1/jobs/{id}/ways', { params: { path: { id: of.job }, query } }))
        : await answered(api.GET('/api/v1/engines/{id}/ways', { params: { path: { id: of.engine! }, query } }))
      trouble.value = ''
    } catch (e) {
      trouble.value = (e as Error).message
    }
  }
  watch([direction, positions, stops], load)

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

  /** Takes the plan looked at for the job. */
  async function take() {
    const p = plan.value
    if (!p || !of.job) return false
    try {
      const body = {
        id: newID(),
        kind: 'way_chosen' as const,
        school: p.school,
        order: p.order,
        direction: p.direction,
        positions: p.positions,
        stop_count: p.stop_count,
      }
      await answered(api.POST('/api/v1/jobs/{id}/happenings', { params: { path: { id: of.job } }, body }))
      return true
    } catch (e) {
      trouble.value = (e as Error).message
      return false
    }
  }

  return { ways, trouble, direction, positions, stops, chosen, key, open, shut, plan, load, best, step, take }
}
