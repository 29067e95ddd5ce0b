import { computed, ref, shallowRef } from 'vue'
import { answered, api, type Found, type JobView, type Sighting } from '@/shared/api/client'
import { seenShort } from '@/shared/words'
import type { ValveShown } from '@/shared/engine/HeadDrawing.vue'

type What = Sighting['what']

/** What may be seen of a cylinder and of a valve, the plainest first. */
export const cylinderSights: What[] = ['rocking', 'tdc_firing']
export const valveSights: What[] = ['full_lift', 'lobe_away', 'pressed', 'loose']

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

  /** What a tap on a cylinder or a valve says of it. */
  const looking = ref<What>('rocking')
  const looks = (kinds: What[]) => (kinds.includes(looking.value) ? looking.value : kinds[0]!)

  /** Says one thing of something, or takes it back; of one thing one is said. */
  function toggle(now: Sighting, about: (s: Sighting) => boolean) {
    const was = seen.value.some((s) => about(s) && s.what === now.what && s.mark_deg === now.mark_deg)
    const rest = seen.value.filter((s) => !about(s))
    put(was ? rest : [...rest, now])
  }

  const tapValve = (valve: string) => toggle({ what: looks(valveSights), valve }, (s) => s.valve === valve)
  const tapCylinder = (cylinder: number) =>
    toggle({ what: looks(cylinderSights), cylinder }, (s) => s.cylinder === cylinder)
  const tapMark = (mark_deg: number) => toggle({ what: 'mark', mark_deg }, (s) => s.what === 'mark')
  const tapSign = (sign: string) => toggle({ what: 'sign', sign }, (s) => s.sign === sign)
  const add = (s: Sighting) => put([...seen.value, s])
  const drop = (s: Sighting) => put(seen.value.filter((x) => x !== s))

  function begin() {
    on.value = true
    looking.value = 'rocking'
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

  return {
    on,
    seen,
    found,
    trouble,
    looking,
    tapValve,
    tapCylinder,
    tapMark,
    tapSign,
    add,
    drop,
    begin,
    end,
    shown,
    notes,
  }
}
