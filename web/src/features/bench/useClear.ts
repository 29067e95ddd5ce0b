import { useIntervalFn } from '@vueuse/core'
import { computed, ref, watch, type Ref } from 'vue'
import { answered, api, type JobView } from '@/shared/api/client'
import { screen } from '@/shared/screen'

/** Whole seconds until then; a browser's idea of the program's clock may be a little behind. */
export const secondsLeft = (until: string, now: number) =>
  Math.max(0, Math.min(60, Math.ceil((Date.parse(until) - now) / 1000) || 0))

/** Says on the bench that hands are clear, so that a helper at the crank may turn it, and takes that back. */
export function useClear(view: Ref<JobView>, clock: () => number) {
  const params = { path: { id: view.value.state.id, screen } }
  /** What was said here of what is shown now, before the job is read again: null: taken back. */
  const said = ref<JobView['clear'] | null>()
  watch(
    () => view.value.state.newest,
    () => (said.value = undefined),
  )
  const trouble = ref('')
  const now = ref(clock())
  useIntervalFn(() => (now.value = clock()), 500)
  /** For how many seconds the helper may still turn; 0: he may not. */
  const left = computed(() => {
    const clear = said.value === undefined ? view.value.clear : said.value
    if (!clear || clear.newest !== view.value.state.newest) return 0
    return secondsLeft(clear.until, now.value)
  })

  async function clear() {
    trouble.value = ''
    const body = { newest: view.value.state.newest }
    try {
      said.value = await answered(api.PUT('/api/v1/jobs/{id}/screens/{screen}/clear', { params, body }))
    } catch (e) {
      trouble.value = (e as Error).message
    }
  }

  /** Hands are in there again, whether the program hears it or not: then its minute is over soon. */
  async function stop() {
    try {
      await answered(api.DELETE('/api/v1/jobs/{id}/screens/{screen}/clear', { params }))
      said.value = null
      trouble.value = ''
    } catch {
      trouble.value = 'This could not be told to the helper: call out, and wait for the answer.'
    }
  }

  return { left, trouble, clear, stop }
}
