import { useEventListener, useIntervalFn, useTimeoutFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  answered,
  api,
  newID,
  Refused,
  Unreachable,
  type Act,
  type Happening,
  type StateAnswer,
  type JobView,
  type ValveState,
} from '@/shared/api/client'
import { reads, takeAhead } from '@/shared/api/reads'
import { useQueue, type Waiting } from '@/shared/useQueue'
import { isChanges, withChanges } from './changes'
import { useJudge } from './judge'

/** What the mechanic does, before it has its id and what its screen knew. */
export type Doing = Act

/** How often the job is asked for again, so that what another hand did appears by itself. */
const askAgain = 4000

/** For so long a thing that waits is not shown, ms. */
const unseen = 150

/** For so long the program's answer is waited for before what is foreseen of it is shown, ms. */
const patience = 120

/** What the program alone can do: it waits for it. */
const alone = new Set<Doing['kind']>(['signed', 'amended', 'countersigned'])

/** What may be said while the one before is still on its way: none of it depends on the other. */
const queues = new Set<Doing['kind']>([
  'reading',
  'taken_in',
  'sound',
  'finding',
  'stripped',
  'nut_felt',
  'task',
  'tool',
])

/**
 * One job: what the program says of it, and a way to tell it what was done. What was done is kept in this browser until
 * the program has it on disk, so a lost connection or a closed page loses nothing; its id lets it be sent again safely.
 */
export function useJob(id: string) {
  const view = shallowRef<JobView | null>(takeAhead(reads.job(id)) ?? null)
  const trouble = ref<Refused | Unreachable | null>(null)
  const refusal = ref('')
  const queue = useQueue()
  const judge = useJudge(id)
  const waiting = computed(() => queue.waiting.value.filter((w) => w.job === id && !w.refused))
  const refused = computed<Waiting[]>((before) => {
    const now = queue.waiting.value.filter((w) => w.job === id && w.refused)
    return before?.length === now.length && now.every((w, i) => w === before[i]) ? before : now
  })
  /** What waits, as it is shown: not what is answered before anybody could see it wait. */
  const shown = shallowRef<Waiting[]>([])
  const { start, stop } = useTimeoutFn(() => (shown.value = waiting.value), unseen, { immediate: false })
  watch([waiting, queue.offline], ([now, offline]) => {
    if (now.length && !offline && !shown.value.length) return start()
    stop()
    if (now.length || shown.value.length) shown.value = now
  })

  let taken = 0

  /** Reads the whole job. An answer asked for before something was done is older than what that brought, and is let go. */
  async function read() {
    const before = taken
    const got = await answered(api.GET('/api/v1/jobs/{id}', { params: { path: { id } } }))
    if (taken !== before) return
    view.value = got
    if (!waiting.value.length) judge.follow(got.state.newest)
    queue.tell(got.state.clock)
    trouble.value = null
  }

  async function load() {
    try {
      await flush()
      // what another tab has sent meanwhile waits no more
      for (const h of foreseen) if (!waiting.value.some((w) => w.body.id === h)) foreseen.delete(h)
      if (!foreseen.size) await read()
    } catch (e) {
      trouble.value = e as Refused | Unreachable
    }
  }

  /** What is shown of what the program has not answered yet. */
  const foreseen = new Set<string>()

  /** Shows what the program will say of something, where it does not say it soon. */
  async function foresee(h: Happening) {
    const state = await judge.take(h, queue.now())
    if (!state) return
    await new Promise((later) => setTimeout(later, queue.offline.value ? 0 : patience))
    if (!view.value || !waiting.value.some((w) => w.body.id === h.id)) return
    foreseen.add(h.id)
    taken++
    view.value = { ...view.value, state }
  }

  /** Takes an answer in. One that says only what changed is put together with what was known before, if it was just before. */
  async function take(answer: StateAnswer, knew: string) {
    taken++
    queue.tell(answer.clock)
    if (!view.value) return
    const before = view.value.state
    if (!isChanges(answer)) view.value = { ...view.value, state: answer }
    else if (before.newest !== knew) await read()
    else view.value = { ...view.value, state: withChanges(before, answer) }
  }

  /** Sends what waits. What is refused is told; what may still count stays, with a choice. */
  async function flush() {
    const told = await queue.flush(async (w, state) => {
      if (foreseen.delete(w.body.id)) queue.tell(state.clock)
      else if (w.job === id) await take(state, 'seen' in w.body && typeof w.body.seen === 'string' ? w.body.seen : '')
    })
    if (told) {
      refusal.value = told
      foreseen.clear()
      await read().catch(() => {})
    }
  }

  /**
   * Readings and notes may queue up; any other step waits until the one before it is on disk, so that a second press does
   * nothing. A step around the bench queues up once.
   */
  async function send(doing: Doing) {
    const ticked = doing.kind === 'task' ? doing.task : ''
    if (ticked && waiting.value.some(({ body }) => body.kind === 'task' && body.task === ticked)) return
    // a valve that is tapped while the step before is on its way is meant, and is no second press of anything
    const follows = queues.has(doing.kind) || (doing.kind === 'picked' && !queue.offline.value)
    const judged = queue.offline.value && judge.ready.value && !alone.has(doing.kind)
    if (!follows && !judged && waiting.value.length > 0) {
      if (queue.offline.value)
        refusal.value = 'The program cannot be reached: this can only be done when what waits is sent.'
      return
    }
    refusal.value = ''
    const knew = waiting.value.at(-1)?.body.id ?? view.value?.state.newest
    const seen = 'seen' in doing && doing.seen ? doing.seen : knew || undefined
    const h = { ...doing, id: newID(), seen } as Happening
    const kept = queue.add(id, h)
    void foresee(h)
    await flush() // it goes out while the browser keeps it
    await kept
  }

  const state = computed(() => view.value?.state ?? null)

  async function undo() {
    if (state.value?.undo) await send({ kind: 'undone', target: state.value.undo })
  }

  /**
   * Takes a valve that was kept by itself in hand again with what was felt of it, so that more leaves can prove it: its
   * reading is taken back and made anew, to be kept by a key.
   */
  async function reopen(valve: ValveState) {
    const felt = valve.last?.readings[0]
    if (!felt || state.value?.undo_valve !== valve.name) return
    const byItself = state.value.undo_kind === 'reading'
    await undo()
    // one kept by a key has its reading back by that alone
    if (refusal.value || !byItself) return
    await send({ kind: 'reading', valve: valve.name, leaves_mm: felt.leaves_mm, angled: felt.angled, feel: felt.feel })
  }

  /** A reading that the crank was moved after counts for the place where it was made. */
  async function keepThere(w: Waiting) {
    if (w.body.kind !== 'reading' && w.body.kind !== 'dial') return
    await queue.change(w, { ...w.body, made_there: true })
    await flush()
  }

  const again = () => void (document.visibilityState === 'visible' && !queue.busy.value && load())
  useIntervalFn(again, askAgain)
  useEventListener(document, 'visibilitychange', again)
  useEventListener(window, 'online', again)

  return {
    view,
    state,
    trouble,
    refusal,
    waiting,
    shown,
    refused,
    offline: queue.offline,
    told: queue.told,
    unkept: queue.unkept,
    busy: queue.busy,
    load,
    send,
    undo,
    reopen,
    keepThere,
    forget: queue.forget,
    judge: judge.begin,
  }
}
