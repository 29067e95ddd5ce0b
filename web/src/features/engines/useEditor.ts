import { computed, ref, shallowRef, watch } from 'vue'
import { answered, api, newID, Refused, type Look, type Schemas } from '@/shared/api/client'
import { readOnce, reads } from '@/shared/api/reads'
import { putSheet } from '@/shared/api/sheets'
import { saidAt } from './places'

/** An engine sheet as it is edited, sound or not: a cam card may be half filled in. */
export type Sheet = Omit<Schemas['Sheet'], 'valve_timing'> & { valve_timing?: Partial<Schemas['Timing']> }
export type ClearanceCard = Schemas['ClearanceCard']
/** What banks, rows and usual orders follow from. */
export interface Shape {
  layout: Sheet['layout']
  cylinders: number
  valves: number
}
/** What a card says of one kind of valve; millimetres or inches, as the source has it. */
export type Stated = Schemas['Clearance']

const quiet = 180
const storedWords = 'Saved. Jobs on the go keep the sheet they began with.'

/** Makes a valve the other kind, by its place among all of the sheet, row after row; −1 is none. */
export function swapKind(sheet: Sheet, at: number) {
  for (const row of sheet.banks.flatMap((b) => b.rows)) {
    if (at >= 0 && at < row.valves.length) {
      const letter = row.valves[at] === 'I' ? 'E' : 'I'
      row.valves = row.valves.slice(0, at) + letter + row.valves.slice(at + 1)
      return
    }
    at -= row.valves.length
  }
}

/** A sheet under the pencil: every change is looked at by the program, can be undone, and is stored only when it is sound. */
export function useEditor(id: string | null) {
  const sheet = ref<Sheet | null>(null)
  const look = shallowRef<Look | null>(null)
  const orders = ref<Schemas['UsualOrder'][]>([])
  const source = ref('')
  const version = ref('')
  const trouble = ref('')
  const faults = ref<{ location: string; message: string }[]>([])
  const saved = ref('')
  const stored = ref('')
  /** The names of the other engines, for telling that two cannot be told apart. */
  const others = ref<string[]>([])
  const past = ref<string[]>([])
  const future = ref<string[]>([])
  let timer = 0
  let present = ''
  let asked = 0

  const perCylinder = computed(() => {
    const letters = sheet.value?.banks.flatMap((b) => b.rows).reduce((n, r) => n + r.valves.length, 0) ?? 0
    return sheet.value ? Math.round(letters / Math.max(1, sheet.value.cylinders)) : 2
  })
  const dirty = computed(() => sheet.value !== null && JSON.stringify(sheet.value) !== stored.value)

  function failed(e: unknown) {
    trouble.value = (e as Error).message
    faults.value = e instanceof Refused ? e.faults : []
  }

  async function examine() {
    const mine = ++asked
    const body = JSON.stringify(sheet.value) as never
    try {
      const got = await answered(
        api.POST('/api/v1/look-at-sheet', {
          body,
          bodySerializer: (b) => b as never,
          headers: { 'Content-Type': 'application/json' },
        }),
      )
      if (mine === asked) look.value = got
    } catch (e) {
      if (mine === asked) failed(e)
    }
  }

  /** The shape that was asked for last, until its answer is there: what is changed meanwhile goes on from it. */
  let wanted: Shape | null = null
  async function begin(shape: Shape): Promise<Sheet | null> {
    wanted = shape
    try {
      const got = await answered(api.GET('/api/v1/sheet-start', { params: { query: { ...shape } } }))
      if (wanted !== shape) return null
      orders.value = got.orders
      source.value = got.source
      return got.sheet as unknown as Sheet
    } catch (e) {
      if (wanted === shape) failed(e)
      return null
    } finally {
      if (wanted === shape) wanted = null
    }
  }

  async function load() {
    trouble.value = ''
    if (id === null) {
      sheet.value = await begin({ layout: 'inline', cylinders: 4, valves: 2 })
      present = JSON.stringify(sheet.value)
      stored.value = ''
    } else {
      try {
        const got = await readOnce(reads.engine(id))
        sheet.value = got.sheet as unknown as Sheet
        present = stored.value = JSON.stringify(sheet.value) // before the watch looks: reading is no change
        version.value = got.version
        look.value = got.look
        if (history.state?.stored) saved.value = storedWords
        const { layout, cylinders } = sheet.value
        await begin({ layout, cylinders, valves: Math.min(5, Math.max(2, perCylinder.value)) })
      } catch (e) {
        failed(e)
        return
      }
    }
    past.value = []
    future.value = []
    void examine()
    others.value = await readOnce(reads.engines())
      .then((list) => list.filter((e) => e.id !== id).map((e) => e.name.trim().toLowerCase()))
      .catch(() => [])
  }

  watch(
    sheet,
    () => {
      const now = JSON.stringify(sheet.value)
      if (now === present) return
      clearTimeout(timer)
      timer = window.setTimeout(() => {
        past.value = [...past.value.slice(-99), present]
        future.value = []
        present = JSON.stringify(sheet.value)
        saved.value = ''
        void examine()
      }, quiet)
    },
    { deep: true },
  )

  function travel(from: typeof past, to: typeof past) {
    const text = from.value.at(-1)
    if (!text) return
    clearTimeout(timer)
    wanted = null
    to.value = [...to.value, JSON.stringify(sheet.value)]
    from.value = from.value.slice(0, -1)
    present = text
    sheet.value = JSON.parse(text) as Sheet
    void examine()
  }

  /** Takes another shape: banks, rows and firing order anew; whatever else was entered stays. */
  async function reshape(change: Partial<Shape>) {
    if (!sheet.value) return
    const shape = wanted ?? { layout: sheet.value.layout, cylinders: sheet.value.cylinders, valves: perCylinder.value }
    const asked = { ...shape, ...change }
    const anew = await begin(asked)
    if (!anew) return
    const { layout, cylinders } = asked
    const kept = { ...sheet.value }
    delete kept.firing_angles_deg
    delete kept.own_sequence
    const { banks, firing_order } = anew
    sheet.value = { ...kept, layout, cylinders, banks, firing_order }
  }

  async function save(): Promise<string | null> {
    trouble.value = ''
    faults.value = []
    const target = id ?? newID()
    const text = JSON.stringify(sheet.value)
    try {
      const got = await putSheet(target, text, version.value || undefined)
      version.value = got.version
      stored.value = text
      saved.value = storedWords
      return target
    } catch (e) {
      failed(e)
      return null
    }
  }

  const said = (location: string) =>
    (look.value?.problems ?? [])
      .filter(
        (p) =>
          p.location === location || p.location.startsWith(`${location}.`) || p.location.startsWith(`${location}[`),
      )
      .map(saidAt)
  const twice = computed(() => others.value.includes(sheet.value?.name.trim().toLowerCase() ?? ''))
  const warned = (location: string) => [
    ...(look.value?.warnings ?? []).filter((p) => p.location.startsWith(location)).map((p) => p.message),
    ...(location === 'name' && twice.value
      ? ['Another engine of the library has this name: in lists the two look the same.']
      : []),
  ]

  return {
    sheet,
    look,
    orders,
    source,
    trouble,
    faults,
    saved,
    dirty,
    past,
    future,
    perCylinder,
    load,
    reshape,
    save,
    said,
    warned,
    undo: () => travel(past, future),
    redo: () => travel(future, past),
  }
}
