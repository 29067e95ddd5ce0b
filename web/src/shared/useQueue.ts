import { ref } from 'vue'
import { answered, api, Refused, Unreachable, type Happening, type JobState } from '@/shared/api/client'

/** Something done that the program does not have on disk yet, or would not take: why, where it did not. */
export interface Waiting {
  job: string
  body: Happening
  /** When it was done, by the program's clock. */
  at: string
  refused?: string
  /** The type of the refusal, where a screen answers it with a choice. */
  type?: string
}

const prefix = 'metronix.waits.'
const retryAfter = 2000
/** How long a thing may wait before the program is told when it was done. */
const soon = 3000

/*
 * What waits is kept one entry a key, so that two tabs never write over each other, and stays until the program has it or the
 * mechanic removes it. It is sent from whichever page of the program is open.
 */
const waiting = ref<Waiting[]>([])
const offline = ref(false)
const told = ref('')
const busy = ref(false)
let ahead = 0 // of the program's clock before this browser's, milliseconds
let timer = 0

/** What an earlier version of this page left waiting, all of a job under one key. */
function adopt() {
  for (const key of Object.keys(localStorage).filter((k) => k.startsWith('metronix.waiting.'))) {
    try {
      const list = JSON.parse(localStorage.getItem(key)!) as Happening[]
      list.forEach((body, i) => {
        const at = new Date(Date.now() - list.length + i).toISOString()
        const w: Waiting = { job: key.slice('metronix.waiting.'.length), body, at }
        localStorage.setItem(prefix + body.id, JSON.stringify(w))
      })
      localStorage.removeItem(key)
    } catch {
      // not what that version wrote: left as it is
    }
  }
}

function load() {
  adopt()
  const list: Waiting[] = []
  for (let i = 0; i < localStorage.length; i++) {
    const key = localStorage.key(i)!
    if (!key.startsWith(prefix)) continue
    try {
      list.push(JSON.parse(localStorage.getItem(key)!) as Waiting)
    } catch {
      // another program's, under our name: left as it is
    }
  }
  waiting.value = list.sort((a, b) => a.at.localeCompare(b.at))
}

function store(w: Waiting) {
  localStorage.setItem(prefix + w.body.id, JSON.stringify(w))
  load()
}

function forget(w: Waiting) {
  localStorage.removeItem(prefix + w.body.id)
  load()
}

const clock = () => new Date(Date.now() + ahead).toISOString()

/** What is sent: with when it was done, where it waited. */
function body(w: Waiting): Happening {
  return Date.now() + ahead - Date.parse(w.at) > soon ? { ...w.body, done_at: w.at } : w.body
}

/**
 * Sends what waits, in order, and says what was refused. A refusal of the core may still count and stays, with its reason, for the
 * mechanic to decide; anything else that is not taken is tried again.
 */
async function flush(taken: (w: Waiting, state: JobState) => void | Promise<void>): Promise<string> {
  if (busy.value) return ''
  busy.value = true
  let said = ''
  try {
    for (;;) {
      load()
      const w = waiting.value.find((x) => !x.refused)
      if (!w) break
      try {
        const params = { path: { id: w.job }, query: { changes: true } }
        await taken(w, await answered(api.POST('/api/v1/jobs/{id}/happenings', { params, body: body(w) })))
      } catch (e) {
        const status = e instanceof Refused ? (e.problem.status ?? 500) : 0
        if (status !== 409 && status !== 422) {
          offline.value = true
          told.value = e instanceof Unreachable ? '' : (e as Error).message
          clearTimeout(timer)
          timer = window.setTimeout(() => void flush(taken), retryAfter)
          return said
        }
        said = (e as Refused).message
        const late = Date.now() + ahead - Date.parse(w.at) > soon
        const type = (e as Refused).problem.type ?? ''
        if (late || type.startsWith('urn:metronix:')) {
          store({ ...w, refused: said, type })
          continue
        }
      }
      forget(w)
      offline.value = false
      told.value = ''
    }
    offline.value = false
  } finally {
    busy.value = false
  }
  return said
}

export function useQueue() {
  load()
  return {
    waiting,
    offline,
    told,
    busy,
    flush,
    forget,
    tell: (now: string) => (ahead = (Date.parse(now) || Date.now()) - Date.now()),
    add: (job: string, h: Happening) => store({ job, body: h, at: clock() }),
    change: (w: Waiting, h: Happening) => store({ job: w.job, at: w.at, body: h }),
  }
}

window.addEventListener('storage', load)
