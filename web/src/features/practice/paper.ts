import type { JobView } from '@/shared/api/client'
import type { ValveShown } from '@/shared/engine/HeadDrawing.vue'
import type { Claim } from './usePractice'

/** The valves as whoever does a run on paper sees them: what he holds of each, and nothing of where it may be set. */
export function claimsShown(view: JobView, claims: Claim[], chosen: string): Record<string, ValveShown> {
  return Object.fromEntries(
    view.state.valves.map((v) => {
      const claim = claims.find((c) => c.valve === v.name)
      return [
        v.name,
        {
          figure: '',
          verdict: claim?.is ?? null,
          settable: true,
          untold: true,
          here: false,
          chosen: v.name === chosen,
        },
      ]
    }),
  )
}
