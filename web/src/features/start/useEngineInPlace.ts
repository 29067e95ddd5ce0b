import { watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { answered, api, newID, type Look, type Schemas } from '@/shared/api/client'
import { putSheet } from '@/shared/api/sheets'
import { layoutName } from '@/shared/words'
import { readLimit, type Unit } from './limitLine'

/** Numbers of cylinders that are offered. */
export const numbers = [1, 2, 3, 4, 5, 6, 8, 10, 12]

/** What is tapped and typed of an engine that is made where a job is started. Nothing of it is chosen beforehand. */
const nothing = {
  cylinders: 0,
  usual: -1,
  rows: -1,
  rotation: 'clockwise' as 'clockwise' | 'anticlockwise',
  adjuster: '' as '' | Schemas['Adjuster']['kind'],
  unit: '' as Unit | '',
  intake: '',
  exhaust: '',
  state: '' as '' | 'cold' | 'hot',
  source: '',
  name: '',
}
export type EngineTapped = typeof nothing

/** Makes an engine from what is widely printed and from the two limits of its card; what is left out is assumed, and said. */
export function useEngineInPlace() {
  const form = ref<EngineTapped>({ ...nothing })
  const usual = shallowRef<Schemas['UsualEngines'] | null>(null)
  const look = shallowRef<Look | null>(null)
  const trouble = ref('')

  // The list belongs to the number that was tapped last, and what was chosen from another one is chosen no more.
  watch(
    () => form.value.cylinders,
    async (cylinders, was) => {
      usual.value = null
      if (was) form.value = { ...form.value, usual: -1, rows: -1 }
      if (!cylinders) return
      try {
        const got = await answered(api.GET('/api/v1/usual-engines', { params: { query: { cylinders } } }))
        if (form.value.cylinders !== cylinders) return
        usual.value = got
        trouble.value = ''
        if (got.engines.length === 1) form.value.usual = 0 // nothing else is printed
      } catch (e) {
        trouble.value = (e as Error).message
      }
    },
  )
  watch(
    () => form.value.usual,
    (_, was) => {
      if (was >= 0) form.value.rows = -1
    },
  )

  const chosen = computed(() => usual.value?.engines[form.value.usual])
  const intake = computed(() => readLimit(form.value.intake, form.value.unit))
  const exhaust = computed(() => readLimit(form.value.exhaust, form.value.unit))
  /** The name that it gets where none is typed. */
  const called = computed(() =>
    chosen.value
      ? `${layoutName(chosen.value.layout, form.value.cylinders)}, ${chosen.value.firing_order.join('-')}`
      : '',
  )
  /** The sheet, as far as it goes; null until its head can be drawn. */
  const sheet = computed(() => {
    const f = form.value
    const rows = chosen.value?.patterns[f.rows]
    if (!chosen.value || !rows) return null
    return {
      format: 'metronix.engine/1',
      name: f.name.trim() || called.value,
      cylinders: f.cylinders,
      firing_order: chosen.value.firing_order,
      rotation: f.rotation,
      may_turn_back: false,
      layout: chosen.value.layout,
      banks: rows.banks,
      ...(f.adjuster ? { adjuster: { kind: f.adjuster } } : {}),
      ...(intake.value.says && exhaust.value.says && f.state
        ? {
            clearances: [
              {
                source: f.source || 'source not said',
                state: f.state,
                intake: intake.value.stated,
                exhaust: exhaust.value.stated,
              },
            ],
          }
        : {}),
      kinds_to_confirm: true,
    }
  })
  watchDebounced(
    sheet,
    async (now) => {
      if (!now) {
        look.value = null
        return
      }
      try {
        const got = await answered(api.POST('/api/v1/look-at-sheet', { body: now as never }))
        if (now === sheet.value) look.value = got
      } catch (e) {
        trouble.value = (e as Error).message
      }
    },
    { debounce: 120 },
  )

  /** What is still missing; empty when nothing is. */
  const missing = computed(() => {
    const f = form.value
    if (!f.cylinders) return 'Say how many cylinders it has.'
    if (!chosen.value) return 'Choose its firing order.'
    if (f.rows < 0) return 'Choose how its valves stand.'
    if (intake.value.trouble) return `Intake: ${intake.value.trouble}`
    if (exhaust.value.trouble) return `Exhaust: ${exhaust.value.trouble}`
    if (!intake.value.says) return 'Give the clearance of the intake valves.'
    if (!exhaust.value.says) return 'Give the clearance of the exhaust valves.'
    if (!f.state) return 'Say whether the figures hold cold or hot.'
    if (!f.source) return 'Say where the figures come from.'
    return look.value?.problems[0]?.message ?? ''
  })

  // One engine, however often it is stored: the same id until another one is begun.
  let id = newID()
  let version = ''
  /** Stores the engine and gives its id; what is refused is thrown. */
  async function store(): Promise<string> {
    const got = await putSheet(id, JSON.stringify(sheet.value), version || undefined)
    version = got.version // what is changed after this, because something else was refused, replaces it
    return id
  }
  function clear() {
    form.value = { ...nothing }
    id = newID()
    version = ''
  }

  return { form, usual, chosen, intake, exhaust, called, look, missing, trouble, store, clear }
}
