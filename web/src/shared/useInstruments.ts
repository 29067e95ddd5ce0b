import { useQuery } from '@tanstack/vue-query'
import { computed, inject, provide, type ComputedRef, type InjectionKey } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { queryClient, reads } from '@/shared/api/reads'

type Told = Schemas['InstrumentView']

/** How often they are asked while one is set up, ms: what the encoder shows is followed by eye. */
const every = 250
/** How long after the first ask failed they are asked again, ms. */
const later = 5000

/** What the instruments at an engine tell, for as long as somebody looks. */
export interface Instruments {
  /** Each that is set up. */ list: ComputedRef<Told[]>
  /** What the crank encoder tells of this job; null: there is none. */ crank: ComputedRef<
    Schemas['EncoderSeen'] | null
  >
  /** One kind, as long as it tells something; undefined: it is not there, or lost. */
  of(kind: Told['kind']): Told | undefined
  again(): Promise<unknown>
}

const key: InjectionKey<Instruments> = Symbol('instruments')

/** Asks them again and again; not where none is set up, until again. */
export function askInstruments(job = ''): Instruments {
  const query = useQuery(
    {
      ...reads.instruments(job),
      retry: false,
      refetchInterval: (q) => {
        if (!q.state.data) return q.state.error ? later : false
        return q.state.data.list.length ? every : false
      },
    },
    queryClient,
  )
  const gone = 'the program cannot be reached'
  const list = computed(() => {
    const told = query.data.value?.list ?? []
    return query.error.value ? told.map((i) => ({ ...i, state: 'lost' as const, detail: gone })) : told
  })
  const crank = computed(() => {
    const seen = query.data.value?.crank ?? null
    return seen && query.error.value ? { says: '', waits: false, off: false } : seen
  })
  const of = (kind: Told['kind']) => list.value.find((i) => i.kind === kind && i.state === 'ok')
  return { list, crank, of, again: () => query.refetch() }
}

/** Lays out the instruments of a job for what stands on its page. */
export function provideInstruments(job: string): Instruments {
  const instruments = askInstruments(job)
  provide(key, instruments)
  return instruments
}

/** The instruments of this page; none where it has none. */
export const useInstruments = (): Instruments =>
  inject(
    key,
    () => ({ list: computed(() => []), crank: computed(() => null), of: () => undefined, again: async () => {} }),
    true,
  )
