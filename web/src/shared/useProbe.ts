import { onScopeDispose, ref } from 'vue'
import { answered, api, type Schemas } from '@/shared/api/client'

const every = 2000

/** What the temperature probe tells, asked again and again for as long as the panel is open; not where none is set, until again. */
export function useProbe() {
  const probe = ref<Schemas['ProbeStatus'] | null>(null)
  let timer = 0
  let over = false

  async function ask() {
    clearTimeout(timer)
    try {
      probe.value = await answered(api.GET('/api/v1/probe'))
    } catch {
      if (probe.value && probe.value.state !== 'off')
        probe.value = { ...probe.value, state: 'lost', detail: 'the program cannot be reached' }
    }
    if (!over && probe.value?.state !== 'off') timer = window.setTimeout(() => void ask(), every)
  }
  void ask()
  onScopeDispose(() => {
    over = true
    clearTimeout(timer)
  })
  return { probe, again: ask }
}
