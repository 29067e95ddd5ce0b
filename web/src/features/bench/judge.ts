import { onScopeDispose, ref, watch } from 'vue'
import { benchModule } from 'virtual:bench-module'
import type { Happening, JobState } from '@/shared/api/client'

/** What the worker says: a state as the program sends it, or why it cannot. */
export interface Said {
  state?: string
  why?: string
}
/** What it is asked, by a number that its answer bears. */
export interface Asked {
  n: number
  what: 'start' | 'open' | 'take'
  args: string[]
}

/**
 * The bench beside its screen: the Go that judges in the program, in a worker of this page. It opens a job with all that its state follows
 * from, takes what is done, and says what the program will say of it, whether that can be reached or not. Where it cannot be loaded it is
 * never ready, and the program answers as ever.
 */
export function useJudge(id: string) {
  let worker: Worker | undefined
  let n = 0
  const asked = new Map<number, (said: Said) => void>()
  const ready = ref(false)
  watch(ready, (on) => document.documentElement.toggleAttribute('data-judges', on), { flush: 'sync' })
  /** The newest happening that it has. */
  let knows = ''

  function end() {
    ready.value = false
    worker?.terminate()
    worker = undefined
    for (const answer of asked.values()) answer({ why: 'it ended' })
    asked.clear()
  }
  onScopeDispose(end, true)

  function ask(what: Asked['what'], ...args: string[]): Promise<Said> {
    return new Promise((answer) => {
      if (!worker) return answer({ why: 'it ended' })
      asked.set(++n, answer)
      worker.postMessage({ n, what, args } satisfies Asked)
    })
  }

  /** Fetches and starts it, once. */
  async function begin() {
    if (worker || !benchModule.url) return
    worker = new Worker(new URL('./judge.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<{ n: number; said: Said }>) => {
      asked.get(data.n)?.(data.said)
      asked.delete(data.n)
    }
    worker.onerror = end
    const said = await ask('start', benchModule.url, benchModule.integrity)
    if (said.why) return end()
    await open()
  }

  /** Opens the job as the program has it now. */
  async function open() {
    ready.value = false
    if (!worker) return
    const answer = await fetch(`/api/v1/jobs/${id}/opening`).catch(() => null)
    if (!answer?.ok) return
    const text = await answer.text()
    if ((await ask('open', text)).why) return
    const list = (JSON.parse(text) as { happenings: { happening: { id: string } }[] }).happenings
    knows = list.at(-1)?.happening.id ?? ''
    ready.value = true
  }

  /**
   * What the program will say once it has a happening; null where that is not foreseen: it is refused, or follows upon something that is
   * not known here.
   */
  async function take(h: Happening, at: string): Promise<JobState | null> {
    if (!ready.value || ('seen' in h && h.seen ? h.seen : '') !== knows) return null
    const before = knows
    knows = h.id
    const said = await ask('take', JSON.stringify(h), at)
    if (said.state) return JSON.parse(said.state) as JobState
    if (knows === h.id) knows = before
    return null
  }

  /** Opens it anew where the program has come to another end than is known here. */
  const follow = (newest: string) => void (ready.value && newest !== knows && open())

  return { ready, begin, take, follow }
}
