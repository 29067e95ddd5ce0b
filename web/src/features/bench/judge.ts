import { onScopeDispose, ref, watch, type Ref } from 'vue'
import { benchModule } from 'virtual:bench-module'
import type { Happening, JobState, Schemas } from '@/shared/api/client'
import { keptJobs } from '@/shared/keptJobs'
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
  what: 'start' | 'open' | 'take' | 'state'
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
  /** What the program has said of the job, with all that its state follows from. */
  let said: Schemas['Opening'] | null = null
  const newest = () => (said?.happenings.at(-1)?.happening as Happening | undefined)?.id ?? ''

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

  /** Opens the job as the program has it now; where it cannot be reached, as it was kept here. */
  async function open() {
    ready.value = false
    if (!worker) return
    const answer = await fetch(`/api/v1/jobs/${id}/opening`).catch(() => null)
    if (answer && !answer.ok) return
    // a line that is cut in the middle is no answer
    const whole = await answer?.text().catch(() => null)
    const text = whole ?? JSON.stringify((await keptJobs.get(id))?.opening ?? null)
    if (text === 'null' || (await ask('open', text)).why) return
    said = JSON.parse(text) as Schemas['Opening']
    knows = newest()
    ready.value = true
  }

  const beside = () => JSON.stringify(others.value.filter((o) => o.doing !== 'helper').map((o) => o.screen))
  const takes = (h: string, at: string) => ask('take', h, at, screen, beside())

  /** The state as it is known here. */
  async function state(at: string): Promise<JobState | null> {
    const answer = ready.value ? await ask('state', at, screen, beside()) : {}
    return answer.state ? (JSON.parse(answer.state) as JobState) : null
  }

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

  /** What the program has taken since something; 'other' where its list is another one, null where it does not say. */
  async function since(from: string): Promise<Schemas['Opening']['happenings'] | 'other' | null> {
    const answer = await fetch(`/api/v1/jobs/${id}/opening?after=${encodeURIComponent(from)}`).catch(() => null)
    const rest = answer?.ok ? ((await answer.json().catch(() => null)) as Schemas['Opening'] | null) : null
    if (!rest) return null
    return rest.after === from ? rest.happenings : 'other'
  }

  let following = false

  /** Takes in what others did, where the program has come to another end than is known here; where that does not fit, it opens the job anew. */
  async function follow(to: string) {
    if (!ready.value || to === knows || following) return
    following = true
    try {
      const from = knows
      const rest = await since(from)
      if (!rest) return
      if (rest === 'other' || knows !== from) return await open()
      for (const e of rest) {
        const h = e.happening as Happening
        if (!(await takes(JSON.stringify(h), e.at)).state) return await open()
        knows = h.id
      }
    } finally {
      following = false
    }
  }

  /** All that the program has said, up to a happening that it has taken; null where that cannot be told. */
  async function upTo(last: string): Promise<Schemas['Opening'] | null> {
    const from = newest()
    if (!said || from === last) return said
    const rest = await since(from)
    if (!rest || rest === 'other' || newest() !== from) return null
    said.happenings.push(...rest)
    return newest() === last ? said : null
  }

  /** Whether what it was opened with holds a happening: it is not to be taken twice. */
  const has = (h: string) => Boolean(said?.happenings.some((e) => (e.happening as Happening).id === h))

  return { ready, begin, take, follow, state, upTo, has, knows: () => knows }
}
