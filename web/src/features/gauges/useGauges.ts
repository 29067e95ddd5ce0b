import { decimal, slip } from '@/shared/decimal'
import { useSessionStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { answered, api, newID, Refused, type Schemas } from '@/shared/api/client'
import { readOnce, reads } from '@/shared/api/reads'
import { compute, type Answers } from '@/shared/api/compute'
import { mm } from '@/shared/units'
import { readLeafLine } from '@/shared/leafLine'

type Leaf = Schemas['Leaf']
type Fault = { location: string; message: string }

/** A leaf as it is edited: figures as they are typed. */
export interface Row {
  marked: string
  measured: string
  thou: boolean
  angled: boolean
  missing: boolean
}

type Reach = Answers<'reach'>

const number = (t: string) => decimal(t) ?? undefined

/** Figures that are none, each beside its leaf: a slip is refused here and never stored as 'not measured'. */
function slips(rows: Row[]): { location: string; message: string }[] {
  return rows.flatMap((r, i) =>
    (
      [
        ['marked_mm', slip(r.marked)],
        ['measured_mm', slip(r.measured, true)],
      ] as const
    )
      .filter(([, message]) => message)
      .map(([field, message]) => ({ location: `body.leaves[${i}].${field}`, message })),
  )
}

function toRow(l: Leaf): Row {
  return {
    marked: l.marked_in != null ? String(Number(l.marked_in.toFixed(6))) : mm(l.marked_mm ?? 0),
    measured: l.measured_mm == null ? '' : mm(l.measured_mm),
    thou: Boolean(l.thou),
    angled: Boolean(l.angled),
    missing: Boolean(l.missing),
  }
}

function toLeaf(r: Row): Leaf {
  const marked = number(r.marked) ?? 0
  const measured = number(r.measured)
  return {
    ...(r.thou ? { marked_in: marked } : { marked_mm: marked }),
    ...(measured === undefined ? {} : { measured_mm: measured }),
    thou: r.thou,
    angled: r.angled,
    missing: r.missing,
  }
}

/** The gauge sets, and the one under the pencil. */
export function useGauges() {
  const sets = ref<Schemas['GaugeSet'][] | null>(null)
  const chosen = ref('')
  const name = ref('')
  const checked = ref('')
  const rows = ref<Row[]>([])
  const trouble = ref('')
  const faults = ref<Fault[]>([])
  const said = ref('')
  const removed = ref<Schemas['GaugeSet'] | null>(null)
  const lower = ref('0.20')
  const upper = ref('0.32')
  const reach = ref<Reach | null>(null)
  const reachTrouble = ref('')
  /** What was typed in each set and is not stored, for as long as the tab is open. */
  const typed = useSessionStorage<Record<string, { name: string; checked: string; rows: Row[] }>>('metronix.gauges', {})

  function failed(e: unknown) {
    trouble.value = (e as Error).message
    faults.value = e instanceof Refused ? e.faults : []
  }

  function clear() {
    trouble.value = ''
    faults.value = []
    said.value = ''
    removed.value = null
  }

  function look(set: Schemas['GaugeSet'] | undefined) {
    chosen.value = set?.id ?? ''
    name.value = set?.name ?? 'New set'
    checked.value = set?.checked ?? ''
    rows.value = (set?.items ?? []).map(toRow)
    const kept = typed.value[set?.id ?? '']
    if (!kept) return
    name.value = kept.name
    checked.value = kept.checked
    rows.value = kept.rows
    said.value = 'What was typed here before and is not saved is still there.'
  }

  /** What was typed in the set looked at is stored, or not wanted. */
  function drop() {
    const rest = { ...typed.value }
    delete rest[chosen.value]
    typed.value = rest
  }

  async function load(keep = chosen.value) {
    try {
      sets.value = await readOnce(reads.sets())
      look(sets.value.find((s) => s.id === keep) ?? sets.value[0])
    } catch (e) {
      failed(e)
    }
  }

  const body = () => ({
    name: name.value,
    leaves: rows.value.map(toLeaf),
    ...(checked.value ? { checked: checked.value } : {}),
  })

  async function save() {
    clear()
    faults.value = slips(rows.value)
    if (faults.value.length) {
      trouble.value = 'These leaves cannot be saved: a figure is not a number.'
      return
    }
    try {
      const stored = chosen.value
        ? await answered(api.PUT('/api/v1/gauge-sets/{id}', { params: { path: { id: chosen.value } }, body: body() }))
        : await answered(api.POST('/api/v1/gauge-sets', { body: { id: newID(), ...body() } }))
      drop()
      await load(stored.id)
      said.value = `${stored.name} is saved. Jobs on the go keep the leaves they began with.`
    } catch (e) {
      failed(e)
    }
  }

  async function remove() {
    clear()
    const set = sets.value?.find((s) => s.id === chosen.value)
    if (!set) return
    try {
      await answered(api.DELETE('/api/v1/gauge-sets/{id}', { params: { path: { id: set.id } } }))
      drop()
      await load('')
      said.value = `${set.name} was removed.`
      removed.value = set
    } catch (e) {
      failed(e)
    }
  }

  async function putBack() {
    const set = removed.value
    if (!set) return
    clear()
    try {
      await answered(
        api.POST('/api/v1/gauge-sets', {
          body: { id: set.id, name: set.name, leaves: set.items, ...(set.checked ? { checked: set.checked } : {}) },
        }),
      )
      await load(set.id)
      said.value = `${set.name} is restored.`
    } catch (e) {
      failed(e)
    }
  }

  async function importFile(file: File) {
    clear()
    try {
      const leaves = await answered(
        api.POST('/api/v1/read-gauge-csv', {
          body: (await file.text()) as never,
          bodySerializer: (b) => b as never,
          headers: { 'Content-Type': 'text/csv' },
        }),
      )
      look(undefined)
      name.value = file.name.replace(/\.csv$/i, '')
      rows.value = leaves.map(toRow)
      said.value = `${leaves.length} leaves are read. Look them over, then save the set.`
    } catch (e) {
      failed(e)
    }
  }

  function add() {
    rows.value = [
      ...rows.value,
      { marked: '', measured: '', thou: rows.value.at(-1)?.thou ?? false, angled: false, missing: false },
    ]
  }

  /** Takes a set that was written in one line; a slip is told, and nothing of the set is changed. */
  function takeLine(text: string) {
    clear()
    const line = readLeafLine(text)
    if (line.trouble) {
      trouble.value = `This line cannot be read: ${line.trouble}`
      return false
    }
    rows.value = line.marks.map((marked) => ({ marked, measured: '', thou: line.thou, angled: false, missing: false }))
    said.value = `${line.marks.length} leaves. Look them over, then save the set.`
    return true
  }

  const dirty = computed(() => {
    const set = sets.value?.find((s) => s.id === chosen.value)
    if (!set) return rows.value.length > 0
    const was = JSON.stringify([set.name, set.checked, set.items.map(toRow)])
    return JSON.stringify([name.value, checked.value, rows.value]) !== was
  })

  watch(
    [chosen, name, checked, rows],
    () => {
      const rest = { ...typed.value }
      delete rest[chosen.value]
      if (dirty.value) rest[chosen.value] = { name: name.value, checked: checked.value, rows: rows.value }
      typed.value = rest
    },
    { deep: true },
  )

  let asked = 0
  let timer = 0
  watch(
    [rows, lower, upper],
    () => {
      clearTimeout(timer)
      timer = window.setTimeout(() => void askReach(), 200)
    },
    { deep: true },
  )
  async function askReach() {
    const mine = ++asked
    const owned = rows.value
      .filter((r) => !r.missing && number(r.marked))
      .map((r) => {
        const measured = number(r.measured)
        const marked = r.thou ? { marked_in: number(r.marked) } : { marked_mm: number(r.marked) }
        return { ...marked, ...(measured ? { measured_mm: measured } : {}) }
      })
      .filter((l, i, all) => all.findIndex((o) => JSON.stringify(o) === JSON.stringify(l)) === i)
    try {
      const window = { lower_mm: number(lower.value)!, upper_mm: number(upper.value)! }
      const got = await compute('reach', { owned, ...window })
      if (mine === asked) reach.value = got
      reachTrouble.value = ''
    } catch (e) {
      if (mine === asked) reachTrouble.value = (e as Error).message
    }
  }

  return {
    sets,
    chosen,
    name,
    checked,
    rows,
    trouble,
    faults,
    said,
    removed,
    lower,
    upper,
    reach,
    reachTrouble,
    dirty,
    load,
    look,
    save,
    remove,
    putBack,
    importFile,
    takeLine,
    add,
  }
}
