import type { JobView } from '@/shared/api/client'
import { untold } from './untold'
import type { Claim } from './usePractice'

/** The valves as whoever does a run on paper sees them: what he holds of each, and nothing of where it may be set. */
export const claimsShown = (view: JobView, claims: Claim[], chosen: string) =>
  untold(view.state.valves, ({ name }) => ({
    name,
    verdict: claims.find((c) => c.valve === name)?.is ?? null,
    chosen: name === chosen,
  }))
