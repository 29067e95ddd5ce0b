import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import {
  answered,
  api,
  newID,
  Refused,
  Unreachable,
  type Happening,
  type JobState,
  type JobView,
} from '@/shared/api/client'

/** What the mechanic does, before it has its id. */
export type Doing = Omit<Happening, 'id' | '$schema'>

const retryAfter = 2000

/**
 * One job: what the program says of it, and a way to tell it what was done. What was done is kept in this browser until
 * the program has it on disk, so a lost connection or a closed page loses nothing; its id lets it be sent again safely.
 */
export function useJob(id: string) {
  const view = shallowRef<JobView | null>(null)
  const trouble = ref<Refused | Unreachable | null>(null)
  const refusal = ref('')
  const waiting = ref<Happening[]>(kept())
  const offline = ref(false)
  const busy = ref(false)
  let timer = 0

  function kept(): Happening[] {
    try {
      return JSON.parse(localStorage.getItem(`metronix.waiting.${id}`) ?? '[]') as Happening[]
    } catch {
      return []
    }
  }

  function keep() {
    if (waiting.value.length === 0) localStorage.removeItem(`metronix.waiting.${id}`)
    else localStorage.setItem(`metronix.waiting.${id}`, JSON.stringify(waiting.value))
  }

  async function load() {
    try {
      await flush()
      view.value = await answered(api.GET('/api/v1/jobs/{id}', { params: { path: { id } } }))
      trouble.value = null
    } catch (e) {
      trouble.value = e as Refused | Unreachable
    }
  }

  function take(state: JobState) {
    if (view.value) view.value = { ...view.value, state }
  }

  /**
   * Sends what waits, in order. A refused one is told and taken out, those behind it are still sent, and then the job is
   * read again.
   */
  async function flush(): Promise<void> {
    if (busy.value) return
    busy.value = true
    let refused = false
    try {
      while (waiting.value.length > 0) {
        const body = waiting.value[0]!
        try {
          take(await answered(api.POST('/api/v1/jobs/{id}/happenings', { params: { path: { id } }, body })))
        } catch (e) {
          if (e instanceof Unreachable || (e instanceof Refused && (e.problem.status ?? 500) >= 500)) {
            offline.value = true
            clearTimeout(timer)
            timer = window.setTimeout(() => void flush(), retryAfter)
            return
          }
          refusal.value = (e as Refused).message
          refused = true
        }
        waiting.value = waiting.value.slice(1)
        keep()
        offline.value = false
      }
      if (refused) view.value = await answered(api.GET('/api/v1/jobs/{id}', { params: { path: { id } } }))
    } catch {
      offline.value = true
    } finally {
      busy.value = false
    }
  }

  /** Readings may queue up; any other step waits until the one before it is on disk, so that a second press does nothing. */
  async function send(doing: Doing) {
    if (doing.kind !== 'reading' && waiting.value.length > 0) return
    refusal.value = ''
    waiting.value = [...waiting.value, { id: newID(), ...doing }]
    keep()
    await flush()
  }

  const state = computed(() => view.value?.state ?? null)

  async function undo() {
    if (state.value?.undo) await send({ kind: 'undone', target: state.value.undo })
  }

  const again = () => void (document.visibilityState === 'visible' && !busy.value && load())
  document.addEventListener('visibilitychange', again)
  window.addEventListener('online', again)
  onScopeDispose(() => {
    clearTimeout(timer)
    document.removeEventListener('visibilitychange', again)
    window.removeEventListener('online', again)
  })

  return { view, state, trouble, refusal, waiting, offline, busy, load, send, undo }
}
