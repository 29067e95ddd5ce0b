import { reactive, ref, shallowRef } from 'vue'
import { answered, api, newID, Refused, type Happening, type JobView, type Schemas } from '@/shared/api/client'
import type { Doing, Line } from '@/features/bench/useJob'

/** One thing done by hand, before it has its id. */
export type Hand = Omit<Schemas['PracticeHand'], 'id' | '$schema'>
export type Claim = Schemas['PracticeClaim']
/** What is known of a run besides its job. */
export type Run = Omit<Schemas['PracticeView'], 'view' | 'eyes' | 'claims' | '$schema'>

/** What would go wrong, and a way to do it all the same. */
export interface Warning {
  says: string
  anyway: () => void
}

const warningType = 'urn:metronix:practice_warning'

/** A run on a practice engine: what is believed of it, what eyes see, and ways to do and to say. The program alone knows what is hidden. */
export function usePractice(id: string) {
  const view = shallowRef<JobView | null>(null)
  const run = shallowRef<Run | null>(null)
  const eyes = shallowRef<Schemas['Eyes']>({
    crank_deg: 0,
    loose: [],
    firing_deg: [],
    open: [],
    tool: false,
    kicks: false,
    engine_c: 0,
    ambient_c: 0,
  })
  const claims = shallowRef<Claim[]>([])
  const trouble = ref('')
  const refusal = ref('')
  const warning = shallowRef<Warning | null>(null)
  /** By how much compression threw the crank back just now, degrees. */
  const kicked = ref(0)
  const params = { path: { id } }
  let last: Promise<unknown> = Promise.resolve()

  async function load() {
    try {
      const got = await answered(api.GET('/api/v1/practice/{id}', { params }))
      ;({ view: view.value, eyes: eyes.value, claims: claims.value } = got)
      run.value = got
      trouble.value = ''
    } catch (e) {
      trouble.value = (e as Error).message
    }
  }

  /** Looks again, after what is being done. */
  function look(): void {
    last = last.then(load)
  }

  /** What was refused is told; what whoever looks on would say before it is done, is asked. */
  function told(e: unknown, anyway: () => void) {
    const refused = e as Refused
    if (refused.problem?.type === warningType) warning.value = { says: refused.message, anyway }
    else refusal.value = refused.message
  }

  /** One after the other, as hands do. */
  function does(
    ask: () => Promise<Schemas['PracticeAnswer']>,
    anyway = () => {},
  ): Promise<Schemas['PracticeAnswer'] | null> {
    const next = last.then(async () => {
      try {
        const got = await ask()
        refusal.value = ''
        ;({ eyes: eyes.value, claims: claims.value } = got)
        kicked.value = got.kicked_deg ?? 0
        if (view.value) view.value = { ...view.value, state: got.state }
        return got
      } catch (e) {
        told(e, anyway)
        return null
      }
    })
    last = next
    return next
  }

  const hand = (h: Hand): Promise<Schemas['PracticeAnswer'] | null> =>
    does(
      () => answered(api.POST('/api/v1/practice/{id}/hands', { params, body: { ...h, id: newID() } })),
      () => void hand({ ...h, anyway: true }),
    )

  const say = (doing: Doing) =>
    does(() => {
      const body = { ...doing, id: newID() } as Happening
      return answered(api.POST('/api/v1/practice/{id}/happenings', { params, body }))
    })

  async function undo() {
    const target = view.value?.state.undo
    if (target) await say({ kind: 'undone', target })
  }

  /** Ends the run, and goes on where it has ended. */
  async function end(then: () => void, anyway = false): Promise<void> {
    try {
      const query = { anyway }
      await answered(api.POST('/api/v1/practice/{id}/end', { params: { ...params, query } }))
      then()
    } catch (e) {
      told(e, () => void end(then, true))
    }
  }

  /** Between this screen and the program nothing waits: what is hidden is there. */
  const line: Line = reactive({
    waiting: [],
    refused: [],
    theirs: [],
    offline: false,
    told: '',
    unkept: false,
    refusal,
    keptAt: '',
  })

  return { view, run, eyes, claims, trouble, refusal, warning, kicked, line, load, look, hand, say, undo, end }
}
