import { computed, ref, watch } from 'vue'
import { answered, api, newID, Refused, type JobShort, type JobView, type Schemas } from '@/shared/api/client'
import { readOnce, reads } from '@/shared/api/reads'
import { decimal, slip } from '@/shared/decimal'
import { counter, meterName, mine, sent, shown, speakTo } from '@/shared/mine'
import { useDraft } from '@/shared/useDraft'
import { people } from '@/shared/session'
import { choices } from '@/shared/words'
import { useMyWay } from './useMyWay'

type Vehicle = Schemas['Vehicle']

/** How many vehicles are shown without looking for one, and how many of those worked on last where there are more. */
const many = 12
const lastFew = 5

/** What is chosen from. */
export const leavesAre = choices({ dry: 'Felt dry', oiled: 'Felt oiled' })
export const reasons = [
  'Distance interval',
  'Ticking when warm',
  'Rough idle',
  'After a new cam has run in',
  'Belt is due',
]

const remembered = (name: string, or = '') => localStorage.getItem(`metronix.${name}`) ?? or

/**
 * What a job starts from, as it is typed; with the id of a job, what that one started from, to be corrected. A vehicle that is asked for
 * is chosen from the beginning.
 */
export function useStart(correcting = '', asked = '') {
  const every = ref<Vehicle[]>([])
  const engines = ref<Schemas['Engine'][]>([])
  const sets = ref<Schemas['GaugeSet'][]>([])
  const open = ref<JobShort[]>([])
  /** The jobs touched last, of any vehicle. */
  const latest = ref<JobShort[]>([])
  const loaded = ref(false)
  const trouble = ref('')
  const faults = ref<Record<string, string>>({})

  const form = ref({
    vehicle: '',
    card: 0,
    variant: '',
    set: '',
    hotCard: -1,
    cardReason: '',
    aim: 'nominal' as JobView['aim'],
    aimReason: '',
    rule: 'workshop' as JobView['rule'],
    feel: remembered('feel', '0.005'),
    mechanic: people.me.value || remembered('mechanic'),
    reason: '',
    leavesAre: '' as '' | 'dry' | 'oiled',
    odometer: undefined as number | undefined,
    odometerWhy: '',
  })
  const my = useMyWay(form, correcting !== '')
  const untouched = ref(JSON.stringify(form.value))
  const draft = useDraft(
    correcting ? `start.${correcting}` : 'start',
    () => (JSON.stringify(form.value) === untouched.value ? null : { ...form.value, chosen: my.chosen.value }),
    ({ chosen, ...kept }) => {
      form.value = { ...form.value, ...kept }
      my.chosen.value = chosen // laid on after the vehicle, which clears it
    },
  )

  const vehicles = computed(() => every.value.filter((v) => v.on_board))
  /** What is looked for among the vehicles; and whether all are shown. */
  const search = ref('')
  const all = ref(false)
  /** The vehicles worked on last stand first; where there are many, these alone until one is looked for or all are wanted. */
  const offered = computed(() => {
    const rank = (v: Vehicle) => {
      const at = latest.value.findIndex((j) => j.vehicle === v.name && j.plate === v.plate)
      return at < 0 ? Infinity : at
    }
    const sorted = [...vehicles.value].sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name))
    const text = (search.value ?? '').trim().toLowerCase() // cleared, the field holds nothing
    if (text) return sorted.filter((v) => `${v.name} ${v.plate} ${v.engine_name}`.toLowerCase().includes(text))
    const few = sorted.length <= many || all.value
    return few ? sorted : sorted.filter((v, i) => i < lastFew || v.id === form.value.vehicle)
  })
  const off = computed(() => every.value.filter((v) => !v.on_board))
  const vehicle = computed(() => vehicles.value.find((v) => v.id === form.value.vehicle))
  const engine = computed(() => engines.value.find((e) => e.id === vehicle.value?.engine_id))
  /** The cards of the engine's sheet, then those of this vehicle alone. */
  const cards = computed(() => [...(engine.value?.cards ?? []), ...(vehicle.value?.cards ?? [])])
  /** The job that a vehicle has on the board. */
  const going = (v: Vehicle) =>
    open.value.find((j) => j.vehicle === v.name && j.plate === v.plate && j.id !== correcting)

  /** What the job that is corrected said its counter shows: that may be the slip. */
  let started = { vehicle: '', meter: -1 }
  /** Takes over what a job started from. */
  function takeOver(view: JobView) {
    started = { vehicle: view.vehicle.id, meter: shown(view) ?? 0 }
    form.value = {
      vehicle: view.vehicle.id,
      card: view.card_index,
      variant: view.variant,
      set: sets.value.find((s) => s.name === view.gauge_name)?.id ?? '',
      hotCard: view.hot_card,
      cardReason: view.card_reason,
      aim: view.aim,
      aimReason: view.aim_reason,
      rule: view.rule,
      feel: String(view.feel_mm),
      mechanic: view.mechanic,
      reason: view.reason,
      leavesAre: view.leaves_are as '' | 'dry' | 'oiled',
      odometer: shown(view),
      odometerWhy: view.odometer_why,
    }
  }

  async function load() {
    try {
      ;[every.value, engines.value, sets.value, open.value, latest.value] = await Promise.all([
        readOnce(reads.vehicles()),
        readOnce(reads.engines()),
        readOnce(reads.sets()),
        readOnce(reads.openJobs()),
        readOnce(reads.jobs()),
      ])
      if (!loaded.value) {
        const last = remembered('set')
        sets.value.sort((a, b) => Number(b.id === last) - Number(a.id === last)) // the last used stands first
        form.value.set = sets.value[0]?.id ?? ''
        if (correcting) takeOver(await readOnce(reads.job(correcting)))
        untouched.value = JSON.stringify(form.value)
        draft.restore()
        if (vehicles.value.some((v) => v.id === asked)) choose(asked)
        if (!vehicle.value) form.value.vehicle = ''
      }
      loaded.value = true
      trouble.value = ''
    } catch (e) {
      trouble.value = (e as Error).message
    }
  }

  /** Another vehicle is another engine: its first card; its counter is read anew. */
  function choose(id: string) {
    if (id === form.value.vehicle) return
    form.value = {
      ...form.value,
      vehicle: id,
      card: 0,
      variant: '',
      hotCard: -1,
      odometer: undefined,
      odometerWhy: '',
    }
  }
  // What is not to be used is never chosen by itself.
  watch(cards, (list) => {
    const { card } = form.value
    if (list[card]?.distrusted)
      form.value.card = Math.max(
        0,
        list.findIndex((c) => !c.distrusted),
      )
  })
  watch(
    () => form.value.card,
    (card) => {
      if (cards.value[card]?.state !== 'cold') form.value.hotCard = -1
    },
  )

  /** What stands in the counter's field and is no figure. */
  const slipped = ref('')
  /** Where its counter shows less than last time, what it showed then; that has its reason, or is a slip. */
  const backwards = computed(() => {
    const last = shown(vehicle.value ?? {}) ?? 0
    if (vehicle.value?.id === started.vehicle && last === started.meter) return ''
    return form.value.odometer && form.value.odometer < last ? mine(counter(vehicle.value?.counts)).say(last) : ''
  })
  /** What is still missing before the job can be started; empty when nothing is. */
  const missing = computed(() => {
    const f = form.value
    if (!vehicle.value) return 'Choose the vehicle.'
    if (vehicle.value.damaged) return vehicle.value.damaged
    if (!cards.value.length) return 'This engine’s sheet has no clearance card: add one first.'
    if (!cards.value[f.card]) return 'Choose the clearance card.'
    if (cards.value[f.card]!.distrusted) return 'These figures are not to be used: add a card that may be.'
    const set = sets.value.find((s) => s.id === f.set)
    if (!set) return 'Choose the feeler set.'
    if (set.damaged) return `The leaves of ${set.name} cannot be read: enter them again under Feelers.`
    if (!f.mechanic.trim()) return 'Say who does the job.'
    if (slipped.value) return `The ${meterName(vehicle.value.counts)} is a whole number, or empty.`
    if (backwards.value && !f.odometerWhy.trim())
      return `Say why the ${meterName(vehicle.value.counts)} shows less than last time.`
    if (decimal(f.feel) === null) return slip(f.feel)
    return ''
  })

  // One start is one job, however often it is pressed: the same id until it is answered.
  const id = correcting || newID()
  const starting = ref(false)

  /** Starts the job, by the sequence of last time too, or corrects it; gives its id, or nothing where that was refused. */
  async function start(asLast = false): Promise<string> {
    if (starting.value || missing.value || (asLast && !my.current.value)) return ''
    starting.value = true
    faults.value = {}
    trouble.value = ''
    const f = form.value
    const body = {
      vehicle_id: f.vehicle,
      gauge_set_id: f.set,
      card: f.card,
      ...(f.hotCard >= 0 ? { hot_card: f.hotCard } : {}),
      card_reason: f.cardReason.trim(),
      aim: f.aim,
      aim_reason: f.aim !== 'nominal' ? f.aimReason.trim() : '',
      rule: f.rule,
      feel_mm: decimal(f.feel)!,
      leaves_are: f.leavesAre,
      ...(f.variant ? { variant: f.variant } : {}),
      mechanic: f.mechanic.trim(),
      reason: f.reason,
      ...sent(vehicle.value?.counts, f.odometer),
      ...(backwards.value ? { odometer_why: f.odometerWhy.trim() } : {}),
    }
    try {
      if (correcting) await answered(api.PUT('/api/v1/jobs/{id}/start', { params: { path: { id } }, body }))
      else await answered(api.POST('/api/v1/jobs', { body: { id, ...body } }))
      const way = asLast && my.way.value?.way
      if (way)
        await answered(
          api.POST('/api/v1/jobs/{id}/happenings', {
            params: { path: { id } },
            body: { ...way, kind: 'way_chosen', id: `${id}-way` },
          }),
        ).catch(() => {}) // the bench asks for it where it was not taken
      for (const [name, value] of [
        ['feel', f.feel],
        ['set', f.set],
      ] as const)
        localStorage.setItem(`metronix.${name}`, value)
      speakTo(body.mechanic)
      untouched.value = JSON.stringify(form.value)
      draft.drop()
      return id
    } catch (e) {
      if (e instanceof Refused)
        faults.value = Object.fromEntries(e.faults.map((f) => [f.location.replace('body.', ''), f.message]))
      trouble.value = (e as Error).message
      return ''
    } finally {
      starting.value = false
    }
  }

  /** A set that was just made is the one to use. */
  function takeSet(set: Schemas['GaugeSet']) {
    sets.value = [set, ...sets.value]
    form.value.set = set.id
    my.byHand('set')
  }

  /** Takes a vehicle off the list, or brings it back. */
  async function putOnBoard(v: Vehicle, on: boolean) {
    trouble.value = ''
    try {
      await answered(
        api.PUT('/api/v1/vehicles/{id}/on-board', { params: { path: { id: v.id } }, body: { on_board: on } }),
      )
      if (form.value.vehicle === v.id) choose('')
      await load()
      if (on) choose(v.id)
    } catch (e) {
      trouble.value = (e as Error).message
    }
  }

  return {
    form,
    every,
    vehicles,
    many,
    offered,
    search,
    all,
    off,
    engines,
    sets,
    loaded,
    trouble,
    faults,
    vehicle,
    engine,
    cards,
    going,
    load,
    choose,
    missing,
    backwards,
    slipped,
    starting,
    start,
    putOnBoard,
    takeSet,
    my,
  }
}
