import { useDebounceFn, useEventListener, useIntervalFn, useTimeoutFn } from '@vueuse/core'
import { computed, reactive, ref, shallowReactive, shallowRef, watch } from 'vue'
import {
  answered,
  api,
  newID,
  Refused,
  Unreachable,
  type Act,
  type Happening,
  type StateAnswer,
  type JobState,
  type Schemas,
  type JobView,
  type ValveState,
} from '@/shared/api/client'
import { reads, takeAhead } from '@/shared/api/reads'
import { keptJobs } from '@/shared/keptJobs'
import { screen } from '@/shared/screen'
import { live } from '@/shared/live'
import { anothers, undecided, useQueue, type Waiting } from '@/shared/useQueue'
import { dequal } from 'dequal/lite'
import { isChanges, sharing, withChanges } from './changes'
import { useJudge } from './judge'
import { answerTo } from './refusals'

/** What stands between a screen and the program: what was refused, what waits to be sent, and why. */
export interface Line {
  waiting: Waiting[]
  refused: Waiting[]
  /** What others did since. */
  theirs: Happening[]
  offline: boolean
  told: string
  /** The browser keeps nothing. */
  unkept: boolean
  /** What is shown was kept on this tablet at that time, and the program has not been reached since; empty: it was. */
  keptAt: string
  refusal: string
}

/** What the mechanic does, before it has its id and what its screen knew. */
export type Doing = Act

/** How often the job is asked for again while no events come, so that what another hand did appears by itself. */
const askAgain = 4000
/** What comes within so long is asked for together, ms. */
const together = 40
/** Every so many times it is asked for though they come: what follows from the time alone changes too. */
const onceIn = 5

/** How long after the last thing that the program took a job is kept on this tablet, and how long at most while things go on, ms. */
const keepAfter = 2000
const keepWithin = 10_000

/** For so long a thing that waits is not shown, ms. */
const unseen = 150

/** What the program alone can do: it waits for it. */
const alone = new Set<Doing['kind']>(['signed', 'amended', 'countersigned'])

/** Whether two states say the same, whenever they were said. */
const same = (a: JobState, b: JobState) => dequal({ ...a, clock: '' }, { ...b, clock: '' })

/** What says where the crank is, or that the engine ran, after which nobody knows. */
const movers = new Set<Doing['kind']>([
  'turned',
  'barred_over',
  'located',
  'doubted',
  'engine_stopped',
  'judged_hot',
  'went_hot',
])

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
  /** Who is at it on other screens. */
  const others = shallowRef<Schemas['Presence'][]>([])
  const judge = useJudge(id, others)
  /** What was refused and may still count, and what was done after it. */
  const refused = computed<Waiting[]>((before) => {
    const now = undecided(queue.waiting.value, id)
    return before?.length === now.length && now.every((w, i) => w === before[i]) ? before : now
  })
  const waiting = computed(() => queue.waiting.value.filter((w) => w.job === id && !refused.value.includes(w)))
  /** What waits, as it is shown: not what is answered before anybody could see it wait. */
  const shown = shallowRef<Waiting[]>([])
  const { start, stop } = useTimeoutFn(() => (shown.value = waiting.value), unseen, { immediate: false })
  watch([waiting, queue.offline], ([now, offline]) => {
    if (now.length && !offline && !shown.value.length) return start()
    stop()
    if (now.length || shown.value.length) shown.value = now
  })

  /** At which valves. */
  const waits = computed(() =>
    [...shown.value, ...refused.value].flatMap(({ body }) => ('valve' in body && body.valve) || []),
  )

  let taken = 0
  /** The state as the program has said it last. */
  let sure: JobState | null = view.value?.state ?? null
  /** What is shown though the program has not said it yet: it was judged here. */
  const foreseen = shallowReactive(new Set<string>())
  /** Whether something was done that is not in what is shown. */
  const behind = computed(() => waiting.value.some((w) => !foreseen.has(w.body.id)))
  /** What was done on this screen: that it is told of it is no news. */
  const own = new Set<string>()
  /** How much is being judged just now. */
  let judging = 0

  const show = (state: JobState) => void (view.value &&= { ...view.value, state: sharing(view.value.state, state) })

  /** Reads the whole job. An answer asked for before something was done is older than what that brought, and is let go. */
  async function read() {
    const before = taken
    const got = await answered(api.GET('/api/v1/jobs/{id}', { params: { path: { id }, query: { screen } } }))
    if (taken !== before) return
    view.value = got
    sure = got.state
    others.value = got.screens
    if (!waiting.value.length) judge.follow(got.state.newest)
    queue.tell(got.state.clock)
    trouble.value = null
    keptAt.value = ''
    void keep()
  }

  /** When what is shown was kept here, where the program could not be reached since. */
  const keptAt = ref('')

  /** Keeps the job on this tablet as the program has it, so that it can be opened again without the program. */
  const keep = useDebounceFn(
    async () => {
      const [of, state] = [view.value, sure]
      const opening = of && state && !keptAt.value ? await judge.upTo(state.newest) : null
      if (opening) await keptJobs.keep({ id, at: state!.clock, view: { ...of!, state: state! }, opening })
    },
    keepAfter,
    { maxWait: keepWithin },
  )

  /** Shows the job as it was kept here. */
  async function showKept(): Promise<boolean> {
    const job = await keptJobs.get(id)
    if (!job || view.value) return Boolean(view.value)
    keptAt.value = job.at
    view.value = job.view
    sure = job.view.state
    return true
  }

  /**
   * Has the bench judge by itself. What waits here from before is judged first, so that what is shown goes on from it; where it is not taken
   * the program decides, when it is reached.
   */
  async function begin() {
    await judge.begin()
    void keep()
    const state = keptAt.value ? await judge.state(queue.now()) : null
    if (state && !foreseen.size) {
      sure = state
      show(state)
    }
    for (const { body, at } of waiting.value) {
      if (foreseen.has(body.id) || judge.has(body.id)) continue // the program has it, and its answer was lost
      const said = await judge.take(body, at, judge.knows())
      if (!said || 'refused' in said) return
      if (!waiting.value.some((w) => w.body.id === body.id)) continue
      foreseen.add(body.id)
      taken++
      show(said)
    }
  }

  async function load() {
    try {
      await flush()
      // what another tab has sent meanwhile waits no more
      for (const h of foreseen) if (!waiting.value.some((w) => w.body.id === h)) foreseen.delete(h)
      if (!foreseen.size) await read()
    } catch (e) {
      const unreached = e instanceof Unreachable && (await showKept())
      trouble.value = unreached ? null : (e as Refused | Unreachable)
    }
  }

  /** Shows what the program will say of something, whether it can be reached or not. */
  async function foresee(h: Happening, knew: string) {
    judging++
    const said = await judge.take(h, queue.now(), knew).finally(() => judging--)
    const kept = waiting.value.find((w) => w.body.id === h.id)
    if (!said || !kept) return
    if ('refused' in said) {
      refusal.value = said.refused
      if (queue.offline.value) await queue.leaveOut([kept])
      return
    }
    foreseen.add(h.id)
    taken++
    show(said)
  }

  /** Takes an answer in. One that says only what changed is put together with what was known before, if it was just before. */
  async function take({ body }: Waiting, answer: StateAnswer) {
    taken++
    queue.tell(answer.clock)
    if (!view.value) return
    if (!isChanges(answer)) sure = answer
    else if (!sure || sure.newest !== body.seen) return foreseen.size ? undefined : read()
    else sure = withChanges(sure, answer)
    if (foreseen.size) return // what is shown is ahead of it
    if (!same(sure, view.value.state)) show(sure)
    void keep()
    if (waiting.value.every((w) => w.body.id === body.id)) judge.follow(sure.newest)
  }

  /** Sends what waits. What is refused is told; what may still count stays, with a choice. */
  async function flush() {
    const told = await queue.flush(async (w, state) => {
      foreseen.delete(w.body.id)
      if (w.job === id) await take(w, state)
    })
    if (told) {
      refusal.value = told
      foreseen.clear()
      await read().catch(() => {})
    }
  }

  /**
   * Where the bench judges by itself, what is next is on the screen at once and may be done. Else readings and notes may queue up, and any
   * other step waits until the one before it is on disk, so that a second press does nothing. A step around the bench queues up once.
   */
  async function send(doing: Doing) {
    const ticked = doing.kind === 'task' ? doing.task : ''
    if (ticked && waiting.value.some(({ body }) => body.kind === 'task' && body.task === ticked)) return
    // what somebody else did here is not in what is shown: the crank may stand elsewhere than it says
    const other = waiting.value.find(anothers)?.body.author
    if (other)
      return void (refusal.value = `First ${other} has to sign in here, or a foreman takes over what ${other} did.`)
    if (refused.value.length) return void (refusal.value = 'First say what is to become of what was not taken.')
    // a valve that is tapped while the step before is on its way is meant, and is no second press of anything
    const follows = queues.has(doing.kind) || (doing.kind === 'picked' && !queue.offline.value)
    const judged = judge.ready.value && !behind.value && !judging && !alone.has(doing.kind)
    if (!follows && !judged && waiting.value.length > 0) {
      if (queue.offline.value)
        refusal.value = 'The program cannot be reached: this can only be done when what waits is sent.'
      else if (alone.has(doing.kind))
        refusal.value = 'Not everything done before is on the workshop’s disk yet. Try again in a moment.'
      return
    }
    refusal.value = ''
    const knew = waiting.value.at(-1)?.body.id ?? view.value?.state.newest
    // of what others did it knows what the program has said; what waits here comes before it by itself
    const since = sure?.newest || undefined
    const seen = 'seen' in doing && doing.seen ? doing.seen : since
    const h = { ...doing, id: newID(), seen, screen } as Happening
    if (h.kind === 'located') h.knew = since
    const moves = movers.has(h.kind) || (h.kind === 'undone' && movers.has(state.value?.undo_kind as Doing['kind']))
    own.add(h.id)
    const kept = queue.add(id, h, moves)
    void foresee(h, knew ?? '')
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

  /** Sends once more what was refused, with the mechanic's answer to why. */
  async function answer(w: Waiting) {
    const said = answerTo(w)
    if (!said) return
    await queue.change(w, said.body)
    await flush()
  }

  /** Has the audit list say that what another did is left out; false: it does not, and nothing is let go of. */
  async function noted(list: Waiting[]): Promise<boolean> {
    const entries = list.map(({ body }) => ({
      id: body.id,
      kind: body.kind,
      valve: 'valve' in body && body.valve ? body.valve : undefined,
      author: body.author!,
    }))
    try {
      await answered(api.POST('/api/v1/jobs/{id}/left-out', { params: { path: { id } }, body: { entries } }))
      return true
    } catch (e) {
      refusal.value = `It stays, because it could not be noted who leaves it out. ${(e as Error).message}`
      return false
    }
  }

  /** Leaves out what was refused, or all from there on; what stays is sent. What another did is noted first. */
  async function forget(list: Waiting[]) {
    const others = list.filter(anothers)
    if (others.length && !(await noted(others))) return
    await queue.leaveOut(list)
    refusal.value = ''
    await flush()
    if (!refused.value.length) await read().catch(() => {})
  }

  /** What others did since what the first refused entry followed upon, the first first. */
  const theirs = shallowRef<Happening[]>([])
  watch(refused, async ([first]) => {
    if (!first) return void (theirs.value = [])
    const after = typeof first.body.seen === 'string' ? first.body.seen : ''
    const params = { path: { id }, query: { after } }
    const rest = await answered(api.GET('/api/v1/jobs/{id}/opening', { params })).catch(() => null)
    theirs.value = rest?.after ? rest.happenings.map((e) => e.happening as Happening) : []
  })

  const { offline, told, unkept } = queue
  /** What stands between this screen and the program. */
  const line: Line = reactive({ waiting: shown, refused, theirs, offline, told, unkept, refusal, keptAt })

  const again = () => void (document.visibilityState === 'visible' && !queue.busy.value && load())
  let times = 0
  useIntervalFn(() => (!live.holds.value || ++times % onceIn === 0) && again(), askAgain)
  let comes = 0
  live.on(({ all, jobs }) => {
    const it = jobs.find((j) => j.id === id)
    if (it ? it.here === screen || own.has(it.newest) || it.newest === sure?.newest : !all) return
    comes ||= window.setTimeout(() => {
      comes = 0
      again()
    }, together)
  })
  useEventListener(document, 'visibilitychange', again)
  useEventListener(window, 'online', again)

  return {
    view,
    state,
    others,
    trouble,
    refusal,
    behind,
    waiting,
    line,
    waits,
    refused,
    offline,
    busy: queue.busy,
    load,
    send,
    undo,
    reopen,
    answer,
    forget,
    begin,
  }
}
