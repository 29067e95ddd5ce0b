import { computed } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { queryClient, reads } from '@/shared/api/reads'

const every = 2000

/** What the temperature probe tells, asked again and again for as long as the panel is open; not where none is set, until again. */
export function useProbe() {
  const query = useQuery(
    {
      ...reads.probe(),
      retry: false,
      refetchInterval: (q) => (q.state.data?.state === 'off' || (!q.state.data && q.state.error) ? false : every),
    },
    queryClient,
  )
  const probe = computed(() => {
    const told = query.data.value ?? null
    return told && told.state !== 'off' && query.error.value
      ? { ...told, state: 'lost' as const, detail: 'the program cannot be reached' }
      : told
  })
  return { probe, again: () => query.refetch() }
}
