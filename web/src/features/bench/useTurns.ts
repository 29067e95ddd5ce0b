import { computed, type Ref } from 'vue'
import { useCrank } from '@/shared/engine/useCrank'
import { provideInstruments, useInstruments } from '@/shared/useInstruments'
import type { JobView } from '@/shared/api/client'
import { helpable } from './wordsNow'

/** Whether the crank turns still, by its encoder, where turning is asked for: that it stands is not confirmed yet. */
export function useTurns(action: Ref<string>) {
  const { crank } = useInstruments()
  return computed(() => helpable(action.value) && Boolean(crank.value?.waits))
}

/** Where the crank of a job is drawn: where its encoder shows it, else where it is believed to stand. */
export function useDrawnCrank(job: string, state: Ref<JobView['state'] | null>) {
  const { crank } = provideInstruments(job)
  return useCrank(
    computed(() => crank.value?.crank_deg ?? state.value?.crank_deg ?? null),
    computed(() => state.value?.plan?.direction === 'back'),
    computed(() => crank.value?.crank_deg !== undefined),
  )
}
