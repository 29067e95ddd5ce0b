import { useEventListener, useIntervalFn } from '@vueuse/core'
import { onScopeDispose, ref, watch, type Ref } from 'vue'
import { api, type JobState, type Schemas } from '@/shared/api/client'
import { screen } from '@/shared/screen'

/** How often it is said that this screen is still there, ms; it is forgotten after three times that. A helper's says it more often. */
const beat = { bench: 5000, helper: 2000 }
/** How soon it is said that another valve was taken in hand, ms. */
const after = 250
/** After so long without an answer the line is taken to be lost, ms: a helper waits at once. */
const lost = { bench: 12_000, helper: 5000 }
/** How long one answer is waited for, ms. */
const patience = 5000

const name = () =>
  matchMedia('(width <= 480px)').matches ? 'a phone' : matchMedia('(width <= 1100px)').matches ? 'a tablet' : 'a screen'

/** Says to all who are at a job that this screen is at it too, and what is in hand here; and hears who else is. */
export function usePresence(
  id: string,
  state: Ref<JobState | null>,
  others: Ref<Schemas['Presence'][]>,
  as: keyof typeof beat = 'bench',
) {
  let answeredAt = as === 'helper' ? 0 : Date.now()
  /** Whether the program was heard a moment ago. */
  const reached = ref(as !== 'helper')
  useIntervalFn(() => (reached.value = Date.now() - answeredAt < lost[as]), 500)
  const params = { path: { id, screen } }
  async function here() {
    if (!state.value || document.visibilityState === 'hidden') return
    const { valve, action } = state.value.now
    const body = as === 'helper' ? { name: name(), valve: '', doing: as } : { name: name(), valve, doing: action }
    // where nobody hears it, nobody else is heard of either
    const signal = AbortSignal.timeout(patience)
    const got = await api.PUT('/api/v1/jobs/{id}/screens/{screen}', { params, body, signal }).catch(() => null)
    if (!got?.data) return
    answeredAt = Date.now()
    reached.value = true
    others.value = got.data.others
  }
  const leave = () =>
    void fetch(`/api/v1/jobs/${id}/screens/${screen}`, { method: 'DELETE', keepalive: true }).catch(() => {})
  useIntervalFn(here, beat[as])
  let soon = 0
  const settles = () => {
    clearTimeout(soon)
    soon = window.setTimeout(here, after) // what is next is drawn first
  }
  watch(() => [state.value?.now.valve, state.value?.now.action], settles)
  useEventListener(window, 'pagehide', leave)
  useEventListener(document, 'visibilitychange', here)
  onScopeDispose(() => {
    clearTimeout(soon)
    leave()
  })
  return { here, reached }
}
