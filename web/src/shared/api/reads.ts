import type { operations } from './schema.gen'
import { keepPreviousData, QueryClient, useQuery, type UseQueryOptions } from '@tanstack/vue-query'
import { ref, watchEffect, type MaybeRefOrGetter, type Ref } from 'vue'
import { answered, api, Unreachable } from './client'

/**
 * The one store of what was read. A refusal is an answer and is not asked for again; a program that cannot be reached may be
 * just starting. What is typed over an answer is never overwritten by a later one: pages ask again only where they say so.
 */
export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      networkMode: 'always', // the program is on this network, whatever the browser thinks of the wider one
      retry: (failed, error) => error instanceof Unreachable && failed < 2,
      retryDelay: 500,
      refetchOnWindowFocus: false,
      refetchOnReconnect: false,
      gcTime: 0, // what a page left is read anew: nothing old is shown for a moment
      structuralSharing: false,
    },
  },
})

/** One thing that is read: its key and how, and when it is read again. */
export interface Read<T> {
  queryKey: readonly unknown[]
  queryFn: () => Promise<T>
  refetchInterval?: () => number
  refetchOnWindowFocus?: boolean
  enabled?: Ref<boolean>
  /** What was read ahead of the page. */ initialData?: T
  /** For how long it is not asked for again, milliseconds. */ staleTime?: number
  /** The answer before stays until the next is there. */ placeholderData?: typeof keepPreviousData
}

const read = <T>(queryKey: readonly unknown[], queryFn: () => Promise<T>): Read<T> => ({ queryKey, queryFn })
const path = (id: string) => ({ params: { path: { id } } })

type WaysAsked = NonNullable<operations['get-ways']['parameters']['query']>

/** Everything that pages read, each with its key: what is changed names the key that is to be read anew. */
export const reads = {
  jobs: () => read(['jobs'], () => answered(api.GET('/api/v1/jobs'))),
  offBoard: () =>
    read(['jobs', 'off'], () => answered(api.GET('/api/v1/jobs', { params: { query: { off_board: true } } }))),
  signedJobs: () =>
    read(['jobs', 'signed'], () =>
      answered(api.GET('/api/v1/jobs', { params: { query: { open: 'no', limit: 200 } } })),
    ),
  openJobs: () =>
    read(['jobs', 'open'], () => answered(api.GET('/api/v1/jobs', { params: { query: { open: 'yes' } } }))),
  sheet: (id: string) => read(['job', id, 'sheet'], () => answered(api.GET('/api/v1/jobs/{id}/sheet', path(id)))),
  job: (id: string) => read(['job', id], () => answered(api.GET('/api/v1/jobs/{id}', path(id)))),
  shims: (id: string, prefer: 'fewest_bought' | 'nearest_aim', camsOut: boolean) => ({
    ...read(['job', id, 'shims', prefer, camsOut], () =>
      answered(api.GET('/api/v1/jobs/{id}/shims', { params: { path: { id }, query: { prefer, cams_out: camsOut } } })),
    ),
    placeholderData: keepPreviousData,
  }),
  practiceShims: (id: string, prefer: 'fewest_bought' | 'nearest_aim', camsOut: boolean) => ({
    ...read(['practice', id, 'shims', prefer, camsOut], () =>
      answered(
        api.GET('/api/v1/practice/{id}/shims', { params: { path: { id }, query: { prefer, cams_out: camsOut } } }),
      ),
    ),
    placeholderData: keepPreviousData,
  }),
  ways: (of: { job?: string; practice?: string; engine?: string }, query?: WaysAsked) => ({
    ...read(['ways', of, query], () =>
      of.job
        ? answered(api.GET('/api/v1/jobs/{id}/ways', { params: { path: { id: of.job }, query } }))
        : of.practice
          ? answered(api.GET('/api/v1/practice/{id}/ways', { params: { path: { id: of.practice }, query } }))
          : answered(api.GET('/api/v1/engines/{id}/ways', { params: { path: { id: of.engine! }, query } })),
    ),
    placeholderData: keepPreviousData,
  }),
  gears: () => read(['gears'], () => answered(api.GET('/api/v1/gears'))),
  engines: () => read(['engines'], () => answered(api.GET('/api/v1/engines'))),
  engine: (id: string) => read(['engines', id], () => answered(api.GET('/api/v1/engines/{id}', path(id)))),
  sets: () => read(['sets'], () => answered(api.GET('/api/v1/gauge-sets'))),
  vehiclesFound: (search: string, limit: number) => ({
    ...read(['vehicles', 'found', search, limit], async () => {
      const got = await api.GET('/api/v1/vehicles', { params: { query: { search, limit } } }).catch(() => {
        throw new Unreachable()
      })
      const list = await answered(Promise.resolve(got))
      return { list, total: Number(got.response.headers.get('X-Total-Count') ?? list.length) }
    }),
    placeholderData: keepPreviousData,
  }),
  history: (id: string) => read(['vehicle', id], () => answered(api.GET('/api/v1/vehicles/{id}/history', path(id)))),
  due: (limit = 20) => read(['due', limit], () => answered(api.GET('/api/v1/due', { params: { query: { limit } } }))),
  myWay: (
    id: string,
    query: {
      mechanic: string
      gauge_set_id?: string
      card?: number
      variant?: string
      as_sheet?: boolean
      reason?: string
    },
  ) =>
    read(['vehicle', id, 'my-way', query], () =>
      answered(api.GET('/api/v1/vehicles/{id}/my-way', { params: { path: { id }, query } })),
    ),
  vehicles: () => read(['vehicles'], () => answered(api.GET('/api/v1/vehicles'))),
  shop: () => read(['shop'], () => answered(api.GET('/api/v1/shop'))),
  practice: () => read(['practice'], () => answered(api.GET('/api/v1/practice'))),
  exercises: () => read(['exercises'], () => answered(api.GET('/api/v1/exercises'))),
  drills: () => read(['drills'], () => answered(api.GET('/api/v1/drills'))),
  progress: () => read(['progress'], () => answered(api.GET('/api/v1/progress'))),
  gaugeStudies: () => read(['gauge-studies'], () => answered(api.GET('/api/v1/gauge-studies'))),
  studies: () => read(['studies'], () => answered(api.GET('/api/v1/studies'))),
  learners: () => read(['learners'], () => answered(api.GET('/api/v1/learners'))),
  practiceActs: (id: string) =>
    read(['practice', id, 'acts'], () => answered(api.GET('/api/v1/practice/{id}/acts', path(id)))),
  practiceScore: (id: string) =>
    read(['practice', id, 'score'], () => answered(api.GET('/api/v1/practice/{id}/score', path(id)))),
  probe: () => read(['probe'], () => answered(api.GET('/api/v1/probe'))),
  instruments: (job = '') =>
    read(['instruments', job], () => answered(api.GET('/api/v1/instruments', { params: { query: { job } } }))),
}

/** What a page reads: its answer, what went wrong in words, and a way to ask again. */
export function useRead<T>(what: MaybeRefOrGetter<Read<T>>) {
  const query = useQuery(what as UseQueryOptions<T>, queryClient)
  /** It stays while it is tried again: what stands beside it is not drawn anew under a finger. */
  const trouble = ref('')
  watchEffect(() => {
    if (query.error.value) trouble.value = query.error.value.message
    else if (query.isSuccess.value) trouble.value = ''
  })
  return {
    data: query.data as Ref<T | undefined>,
    trouble,
    again: () => void query.refetch(),
  }
}

/** What is read once, for what is then worked on. */
export const readOnce = <T>(what: Read<T>): Promise<T> =>
  queryClient.fetchQuery({ queryKey: what.queryKey, queryFn: what.queryFn })

/** How long the first page waits for what it reads first, so that it is drawn once and whole; after that it comes without. */
const mostAhead = 600
let ahead: { key: string; value: unknown } | null = null
const keyOf = (r: Read<unknown>) => JSON.stringify(r.queryKey)

/** Reads ahead what the first page begins with, while its pieces are still on their way. */
export async function readAhead(r: Read<unknown>) {
  const late = new Promise((done) => setTimeout(done, mostAhead))
  const value = await Promise.race([r.queryFn(), late]).catch(() => undefined) // the page asks again, and says what is wrong
  if (value !== undefined) ahead = { key: keyOf(r), value }
}

/** What was read ahead, once. */
export function takeAhead<T>(r: Read<T>): T | undefined {
  const taken = ahead?.key === keyOf(r) ? (ahead.value as T) : undefined
  ahead = null
  return taken
}
