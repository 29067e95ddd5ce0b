import { reactive, ref, shallowRef } from 'vue'
import { answered, api, newID, type Happening, type JobView, type Schemas } from '@/shared/api/client'
import type { Doing, Line } from '@/features/bench/useJob'

/** One thing done by hand, before it has its id. */
export type Hand = Omit<Schemas['PracticeHand'], 'id' | '$schema'>

/** A run on a practice engine: what is believed of it, what eyes see, and ways to do and to say. The program alone knows what is hidden. */
export function usePractice(id: string) {
  const view = shallowRef<JobView | null>(null)
  const eyes = shallowRef<Schemas['Eyes']>({ crank_deg: 0, loose: [], firing_deg: [] })
  const ended = ref(false)
  const trouble = ref('')
  const refusal = ref('')
  const params = { path: { id } }
  let last: Promise<unknown> = Promise.resolve()

  async function load() {
    try {
      const got = await answered(api.GET('/api/v1/practice/{id}', { params }))
      view.value = got.view
      eyes.value = got.eyes
      ended.value = got.ended
      trouble.value = ''
    } catch (e) {
      trouble.value = (e as Error).message
    }
  }

  /** One after the other, as hands do. */
  function does(ask: () => Promise<Schemas['PracticeAnswer']>): Promise<Schemas['PracticeAnswer'] | null> {
    const next = last.then(async () => {
      try {
        const got = await ask()
        refusal.value = ''
        eyes.value = got.eyes
        if (view.value) view.value = { ...view.value, state: got.state }
        return got
      } catch (e) {
        refusal.value = (e as Error).message
        return null
      }
    })
    last = next
    return next
  }

  const hand = (h: Hand) =>
    does(() => answered(api.POST('/api/v1/practice/{id}/hands', { params, body: { ...h, id: newID() } })))

  const say = (doing: Doing) =>
    does(() => {
      const body = { ...doing, id: newID() } as Happening
      return answered(api.POST('/api/v1/practice/{id}/happenings', { params, body }))
    })

  async function undo() {
    const target = view.value?.state.undo
    if (target) await say({ kind: 'undone', target })
  }

  /** Ends the run; true where it has ended. */
  async function end(): Promise<boolean> {
    try {
      await answered(api.POST('/api/v1/practice/{id}/end', { params }))
      return true
    } catch (e) {
      refusal.value = (e as Error).message
      return false
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

  return { view, eyes, ended, trouble, refusal, line, load, hand, say, undo, end }
}
