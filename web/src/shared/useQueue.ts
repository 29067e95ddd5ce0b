import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { ref, shallowRef, watch } from 'vue'
import { answered, api, newID, Refused, Unreachable, type Happening, type StateAnswer } from '@/shared/api/client'
import { people } from '@/shared/session'

/** Something done that the program does not have on disk yet, or would not take: why, where it did not. */
export interface Waiting {
  job: string
  body: Happening
  /** When it was done, by the program's clock. */
  at: string
  /** It says where the crank is: left out, nobody knows where it stands. */
  moves?: boolean
  /** It was done after a move of the crank that was left out: it cannot count for a place. */
  adrift?: boolean
  refused?: string
  /** The type of the refusal, where a screen answers it with a choice. */
  type?: string
}

const retryAfter = 2000
/** After so long without an answer it is sent again: a line may be cut without either end being told. */
const givesUp = 8000
/** How long a thing may wait before the program is told when it was done. */
const soon = 3000

/*
 * What waits is kept in the browser's database, one entry an id, so that two tabs never write over each other, and stays until the
 * program has it or the mechanic removes it. It is sent from whichever page of the program is open.
 */
interface Kept extends DBSchema {
  waits: { key: string; value: Waiting }
}
let opening: Promise<IDBPDatabase<Kept>> | undefined
const database = () =>
  (opening ??= openDB<Kept>('metronix', 1, { upgrade: (db) => void db.createObjectStore('waits') }))
const otherTabs = new BroadcastChannel('metronix.waits')

const waiting = shallowRef<Waiting[]>([])
const offline = ref(false)
const told = ref('')
const busy = ref(false)
/** Of the program's clock before this browser's, milliseconds: known from before where a page opens without the program. */
const clockKey = 'metronix.ahead'
let ahead = Number(localStorage.getItem(clockKey)) || 0
let timer = 0
let known = false // what this tab has of the list is what the database has
let changes = 0 // made here: a list read before one of them is older than what it brought
/** What this tab has and the database does not, or not yet. */
const unwritten = new Map<string, Waiting>()
/** Whether something waits that the browser would not keep: it is gone if the page is closed. */
const unkept = ref(false)

const inOrder = (list: Waiting[]) => list.sort((a, b) => a.at.localeCompare(b.at))

let adopting: Promise<void> | undefined
/** Takes over what earlier versions of this page left in the local storage: a job's list under one key, or an entry a key. */
async function adopt() {
  for (const key of Object.keys(localStorage)) {
    const list = key.startsWith('metronix.waiting.')
    if (!list && !key.startsWith('metronix.waits.')) continue
    try {
      const left: unknown = JSON.parse(localStorage.getItem(key)!)
      const job = key.slice('metronix.waiting.'.length)
      const at = (i: number) => new Date(Date.now() - 1000 + i).toISOString()
      const entries = list ? (left as Happening[]).map((body, i) => ({ job, body, at: at(i) })) : [left as Waiting]
      for (const w of entries) await store(w)
      localStorage.removeItem(key)
    } catch {
      // not what those versions wrote: left as it is
    }
  }
}

/** Reads what waits; what this tab could not write stays beside it. */
async function load() {
  await (adopting ??= adopt().finally(() => (adopting = undefined)))
  const before = changes
  const list = await database()
    .then((db) => db.getAll('waits'))
    .catch(() => [])
  if (before !== changes) return
  known = true
  waiting.value = inOrder([...list.filter((w) => !unwritten.has(w.body.id)), ...unwritten.values()])
}

/** Shows it at once, and keeps it; where the browser keeps nothing it is held for as long as the page is open. */
async function store(w: Waiting) {
  const { id } = w.body
  changes++
  unwritten.set(id, w)
  waiting.value = inOrder([...waiting.value.filter((x) => x.body.id !== id), w])
  try {
    await (await database()).put('waits', w, id)
    if (unwritten.get(id) === w) unwritten.delete(id)
    otherTabs.postMessage('')
    unkept.value = unwritten.size > 0
  } catch {
    unkept.value = true // held in memory: it is sent all the same
  }
}

async function forget(w: Waiting) {
  const { id } = w.body
  changes++
  unwritten.delete(id)
  unkept.value &&= unwritten.size > 0
  waiting.value = waiting.value.filter((x) => x.body.id !== id)
  await database()
    .then((db) => db.delete('waits', id))
    .catch(() => {})
  otherTabs.postMessage('')
}

/** Done here before it was known who is signed in: it gets its author as soon as that is. */
const nameless = new Set<string>()
watch(people.session, () => {
  for (const w of waiting.value)
    if (nameless.delete(w.body.id) && people.me.value)
      void store({ ...w, body: { ...w.body, author: people.me.value } })
  if (people.session.value) nameless.clear()
})

/** The program's time, milliseconds. */
export const programTime = () => Date.now() + ahead

/** Where something is on no disk but this browser's, whoever leaves is asked whether he means to. */
window.addEventListener('beforeunload', (e) => {
  if (waiting.value.length) e.preventDefault()
})

/**
 * Leaves some out, as the mechanic decides. Where the crank was moved with them, it is said in their place that nobody knows where it
 * stands, before anything that was done after them is sent. That itself is refused only where no crank counts: before a sequence is
 * chosen, and once the job is signed.
 */
async function leaveOut(list: Waiting[]) {
  const moved = list.find((w) => w.moves && w.body.kind !== 'doubted')
  if (moved) {
    const body: Happening = { id: newID(), kind: 'doubted', seen: moved.body.seen as string, screen: moved.body.screen }
    for (const x of waiting.value.filter((x) => x.job === moved.job && x.at > moved.at))
      await store({ ...x, adrift: true })
    await store({ job: moved.job, at: moved.at, body, moves: true })
  }
  for (const w of list) await forget(w)
}

let latest = 0
/** The program's time, and never the same twice: what was done one after the other stays in that order. */
function clock(): string {
  latest = Math.max(Date.now() + ahead, latest + 1)
  return new Date(latest).toISOString()
}

/** What is sent: with when it was done, where it waited. */
function body(w: Waiting): Happening {
  return Date.now() + ahead - Date.parse(w.at) > soon ? { ...w.body, done_at: w.at } : w.body
}

/** What stands from the first refused entry of a job on: nothing of it is sent before the mechanic has decided. */
export function undecided(list: Waiting[], job: string): Waiting[] {
  const mine = list.filter((w) => w.job === job)
  const at = mine.findIndex((w) => w.refused)
  return at < 0 ? [] : mine.slice(at)
}

/** Whether somebody else has to sign in before it goes out: what one person did another does not send, unless in his place. */
export function anothers({ body }: Waiting): boolean {
  const me = people.me.value
  return me !== '' && Boolean(body.author) && body.author !== me && body.sent_by !== me
}

/** The first that may be sent. */
function nextOut(list: Waiting[]): Waiting | undefined {
  const stopped = new Set<string>()
  return list.find((w) => {
    if (w.refused || anothers(w)) stopped.add(w.job)
    return !stopped.has(w.job)
  })
}

/**
 * Sends what waits, in order, and says what was refused. A refusal of the core may still count and stays, with its reason, for the
 * mechanic to decide, and so does one that others of its job wait behind: they were done in the belief that it was taken, and wait
 * with it. Anything else that is not taken is tried again.
 */
async function flush(taken: (w: Waiting, state: StateAnswer) => void | Promise<void>): Promise<string> {
  if (busy.value) return ''
  busy.value = true
  let said = ''
  try {
    for (;;) {
      if (!known) await load()
      const w = nextOut(waiting.value)
      if (!w) break
      try {
        const params = { path: { id: w.job }, query: { changes: true } }
        const signal = AbortSignal.timeout(givesUp)
        await taken(w, await answered(api.POST('/api/v1/jobs/{id}/happenings', { params, body: body(w), signal })))
      } catch (e) {
        const status = e instanceof Refused ? (e.problem.status ?? 500) : 0
        const forbidden = status === 403 && (e as Refused).problem.type === 'urn:metronix:not_allowed'
        if (status !== 409 && status !== 422 && !forbidden) {
          offline.value = true
          told.value = e instanceof Unreachable ? '' : (e as Error).message
          clearTimeout(timer)
          timer = window.setTimeout(() => void flush(taken), retryAfter)
          return said
        }
        said = (e as Refused).message
        const late = Date.now() + ahead - Date.parse(w.at) > soon
        const type = (e as Refused).problem.type ?? ''
        const followed = waiting.value.some((x) => x.job === w.job && x.at > w.at)
        if (late || followed || w.moves || type.startsWith('urn:metronix:')) {
          await store({ ...w, refused: said, type })
          continue
        }
      }
      void forget(w) // sent once more, it would be the same
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
  known = false
  void load()
  return {
    waiting,
    offline,
    told,
    unkept,
    busy,
    flush,
    leaveOut,
    tell(now: string) {
      const before = ahead
      ahead = (Date.parse(now) || Date.now()) - Date.now()
      if (Math.abs(ahead - before) > 1000) localStorage.setItem(clockKey, String(ahead))
    },
    /** The program's time. */
    now: clock,
    add: (job: string, h: Happening, moves = false) => {
      if (!people.session.value) nameless.add(h.id)
      return store({ job, body: { ...h, author: people.me.value || undefined }, at: clock(), moves })
    },
    /** What waited on this tablet under another address waits here. */
    takeOver: store,
    change: (w: Waiting, h: Happening) => store({ ...w, body: h, refused: undefined, type: undefined }),
  }
}

otherTabs.onmessage = () => {
  known = false
  void load()
}
