import { onScopeDispose, ref, watch, type Ref } from 'vue'
import { benchModule } from 'virtual:bench-module'
import type { Happening, JobState, Schemas } from '@/shared/api/client'
import { screen } from '@/shared/screen'

/** What the worker says: a state as the program sends it, or why it cannot. */
export interface Said {
  state?: string
  why?: string
  /** Why the job itself refuses it: the program will say the same. */
  refused?: string
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
export function useJudge(id: string, others: Ref<Schemas['Presence'][]>) {
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

  const takes = (h: string, at: string) =>
    ask('take', h, at, screen, JSON.stringify(others.value.filter((o) => o.doing !== 'helper').map((o) => o.screen)))

  /**
   * What the program will say once it has a happening: the state, or why it is refused; null where that is not foreseen, because it follows
   * upon something that is not known here. [knew] is the newest happening that its screen showed.
   */
  async function take(h: Happening, at: string, knew: string): Promise<JobState | { refused: string } | null> {
    if (!ready.value || knew !== knows) return null
    const before = knows
    knows = h.id
    const said = await takes(JSON.stringify(h), at)
    if (said.state) return JSON.parse(said.state) as JobState
    if (knows === h.id) knows = before
    return said.refused ? { refused: said.refused } : null
  }

  let following = false

  /** Takes in what others did, where the program has come to another end than is known here; where that does not fit, it opens the job anew. */
  async function follow(newest: string) {
    if (!ready.value || newest === knows || following) return
    following = true
    try {
      const from = knows
      const answer = await fetch(`/api/v1/jobs/${id}/opening?after=${encodeURIComponent(from)}`).catch(() => null)
      if (!answer?.ok) return
      const rest = (await answer.json()) as Schemas['Opening']
      if (rest.after !== from || knows !== from) return await open()
      for (const e of rest.happenings) {
        const h = e.happening as Happening
        if (!(await takes(JSON.stringify(h), e.at)).state) return await open()
        knows = h.id
      }
    } finally {
      following = false
    }
  }

  return { ready, begin, take, follow }
}
