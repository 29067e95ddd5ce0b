import { computed } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { queryClient, reads } from '@/shared/api/reads'

const every = 2000
/** How long after the first ask failed it is asked again, ms. */
const later = 5000

/** What the temperature probe tells, asked again and again for as long as the panel is open; not where none is set, until again. */
export function useProbe() {
  const query = useQuery(
    {
      ...reads.probe(),
      retry: false,
      refetchInterval: (q) => {
        if (!q.state.data) return q.state.error ? later : every
        return q.state.data.state === 'off' ? false : every
      },
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
