import { newID, type Schemas } from './api/client'
import { hear, holds, type Changed } from './live'

/*
 * One stream of events a browser, whatever number of tabs it has: browsers open few connections to one place. One tab listens and passes
 * on what it hears. It says that it does every second; where nobody has said so for a while another one takes over.
 */
interface Says {
  /** The tab that listens, whether it is seen, and whether its line holds. */
  listens?: { tab: string; hidden: boolean; holds: boolean }
  changed?: Changed
  /** Who listens? */
  asks?: true
  /** Nobody any more. */
  leaves?: true
}
const beat = 1000
const missed = 3500
/** How long an answer is waited for when a tab comes up. */
const asked = 500
/** A line is broken where the program has not said for so long that it holds; it does so every ten seconds. */
const silent = 25_000
/** After so long a stream that the browser gave up is tried again. */
const retry = 2000

const others = new BroadcastChannel('metronix.live')
const tab = newID()
let source: EventSource | undefined
let heard = 0 // when somebody else said that he listens
let last = 0 // when the program was heard

const say = (what: Says) => others.postMessage(what)
const hidden = () => document.visibilityState === 'hidden'
const told = () => say({ listens: { tab, hidden: hidden(), holds: holds.value } })

function close() {
  source?.close()
  source = undefined
}

/** Becomes the one that listens. */
function listen() {
  close()
  last = Date.now()
  source = new EventSource('/api/v1/events')
  const alive = () => {
    last = Date.now()
    if (holds.value) return
    holds.value = true
    told()
  }
  source.onopen = alive
  source.addEventListener('alive', alive)
  source.addEventListener('changed', ({ data }: MessageEvent<string>) => {
    alive()
    const { all, jobs } = JSON.parse(data) as Schemas['BoardEvent']
    const changed = { all, jobs: jobs.map(({ id, newest, here }) => ({ id, newest, here })) }
    say({ changed })
    hear(changed)
  })
  source.onerror = () => {
    holds.value = false
    told()
    if (source?.readyState === EventSource.CLOSED) last = Date.now() - silent + retry
  }
  told()
}

function yields() {
  close()
  heard = Date.now()
}

others.onmessage = ({ data }: MessageEvent<Says>) => {
  if (data.asks && source) told()
  if (data.changed && !source) hear(data.changed)
  if (data.leaves) heard = 0
  const other = data.listens
  if (!other) return
  heard = Date.now()
  if (!source) holds.value = other.holds
  // two took over at once, or one slept: whoever is seen goes on
  else if (Number(other.hidden) - Number(hidden()) < 0 || (other.hidden === hidden() && other.tab < tab)) yields()
}

function tick() {
  if (!source) {
    if (Date.now() - heard > missed) listen()
  } else if (Date.now() - last > silent) {
    holds.value = false
    listen()
  } else told()
}

/** Has this tab listen, or hear from the one that does. */
export function listenHere() {
  say({ asks: true })
  setTimeout(tick, asked)
  setInterval(tick, beat)
  addEventListener('pagehide', () => {
    if (!source) return
    close()
    say({ leaves: true })
  })
}
