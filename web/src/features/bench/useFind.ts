import { computed, ref, shallowRef } from 'vue'
import { answered, api, type Found, type JobView, type Sighting } from '@/shared/api/client'
import { seenShort } from '@/shared/words'
import type { ValveShown } from '@/shared/engine/HeadDrawing.vue'

const seenOn = (what: Sighting['what'], more: Partial<Sighting>): Sighting => ({
  what,
  cylinder: 0,
  valve: '',
  mark_deg: 0,
  ...more,
})
const valveStates: Sighting['what'][] = ['loose', 'pressed', 'full_lift']
const cylinderStates: Sighting['what'][] = ['rocking', 'tdc_firing']

/** What is seen on the engine, and where the crank stands by it. */
export function useFind(id: string) {
  const on = ref(false)
  const seen = ref<Sighting[]>([])
  const found = shallowRef<Found | null>(null)
  const trouble = ref('')
  let asked = 0

  async function ask() {
    const mine = ++asked
    try {
      const got = await answered(
        api.POST('/api/v1/jobs/{id}/find', { params: { path: { id } }, body: { seen: seen.value } }),
      )
      if (mine === asked) found.value = got
      trouble.value = ''
    } catch (e) {
      if (mine === asked) trouble.value = (e as Error).message
    }
  }

  function put(list: Sighting[]) {
    seen.value = list
    void ask()
  }

  /** A further tap on the same thing says the next thing that may be seen there, and after the last one nothing. */
  function cycle(states: Sighting['what'][], same: (s: Sighting) => boolean, more: Partial<Sighting>) {
    const was = seen.value.find((s) => states.includes(s.what) && same(s))
    const next = states[was ? states.indexOf(was.what) + 1 : 0]
    const rest = seen.value.filter((s) => s !== was)
    put(next ? [...rest, seenOn(next, more)] : rest)
  }

  const tapValve = (valve: string) => cycle(valveStates, (s) => s.valve === valve, { valve })
  const tapCylinder = (cylinder: number) => cycle(cylinderStates, (s) => s.cylinder === cylinder, { cylinder })
  function tapMark(mark: number) {
    const rest = seen.value.filter((s) => s.what !== 'mark')
    const was = seen.value.some((s) => s.what === 'mark' && s.mark_deg === mark)
    put(was ? rest : [...rest, seenOn('mark', { mark_deg: mark })])
  }
  const add = (s: Sighting) => put([...seen.value, s])
  const drop = (s: Sighting) => put(seen.value.filter((x) => x !== s))

  function begin() {
    on.value = true
    put([])
  }
  function end() {
    on.value = false
    seen.value = []
    found.value = null
  }

  /** How the valves look while the place is being found: what is seen of each, and those that may be set wherever it may be. */
  function shown(view: JobView): Record<string, ValveShown> {
    return Object.fromEntries(
      view.state.valves.map((v) => {
        const s = seen.value.find((x) => x.valve === v.name)
        const settable = Boolean(found.value?.settable.includes(v.name))
        return [
          v.name,
          {
            figure: s ? seenShort[s.what]! : '',
            verdict: null,
            settable,
            here: settable && found.value!.known,
            chosen: Boolean(s),
          },
        ]
      }),
    )
  }

  const notes = computed(() =>
    Object.fromEntries(
      seen.value.filter((s) => s.cylinder).map((s) => [s.cylinder, { text: seenShort[s.what]!, strong: true }]),
    ),
  )

  return { on, seen, found, trouble, tapValve, tapCylinder, tapMark, add, drop, begin, end, shown, notes }
}
