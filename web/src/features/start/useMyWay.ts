import { computed, ref, watch, type Ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { readOnce, reads } from '@/shared/api/reads'

export type MyWay = Schemas['MyWay']

/** What of a start is proposed by how its mechanic went about it last. */
export interface Proposed {
  vehicle: string
  mechanic: string
  reason: string
  set: string
  card: number
  variant: string
  rule: string
  aim: string
  feel: string
  leavesAre: string
}

/** What may be chosen by hand, and is not written over then; rule: with what is aimed at. */
export type ByHand = 'set' | 'variant' | 'card' | 'rule' | 'feel' | 'leaves'

/**
 * How the mechanic went about the vehicle last, asked anew where vehicle, name, set, card or reason change; what was not chosen by hand
 * is filled in from it. Nothing is proposed where a job is corrected.
 */
export function useMyWay(form: Ref<Proposed>, off: boolean) {
  const way = ref<MyWay | null>(null)
  /** What was chosen by hand for this vehicle. */
  const chosen = ref<Partial<Record<ByHand, boolean>>>({})
  const question = computed(() => {
    const { vehicle, mechanic, reason, set, card, variant } = form.value
    return {
      vehicle,
      of: {
        mechanic: mechanic.trim(),
        reason: reason || undefined,
        gauge_set_id: chosen.value.set ? set : undefined,
        card: chosen.value.card ? card : undefined,
        variant: (chosen.value.variant && variant) || undefined,
        as_sheet: (chosen.value.variant && !variant) || undefined,
      },
    }
  })
  const asked = computed(() => JSON.stringify(question.value))
  const answered = ref('')
  /** Whether the way is the answer to what is asked now: until it is, nobody starts by it. */
  const current = computed(() => way.value !== null && answered.value === asked.value)
  /** The start in one tap, where there is one. */
  const asLast = computed(() => (way.value?.way ? way.value : null))
  watch(
    () => form.value.vehicle,
    () => {
      chosen.value = {}
      way.value = null
    },
    { flush: 'sync' }, // what is chosen right after is for the new vehicle
  )
  async function ask() {
    const { vehicle, of } = question.value
    if (off || !vehicle) return
    const mine = asked.value
    const got = await readOnce(reads.myWay(vehicle, of)).catch(() => null) // a proposal: without it everything is asked
    if (mine !== asked.value) return
    way.value = got
    answered.value = mine
    if (!got) return
    const f = form.value
    const by = chosen.value
    if (!by.set && got.gauge_set_id) f.set = got.gauge_set_id
    if (!by.variant) f.variant = got.variant
    if (!by.card && got.card >= 0) f.card = got.card
    if (!by.rule) {
      f.rule = got.rule
      f.aim = got.aim
    }
    if (!by.feel && got.feel_mm !== undefined) f.feel = String(got.feel_mm)
    if (!by.leaves) f.leavesAre = got.leaves_are
  }
  watch(asked, () => void ask(), { immediate: true })
  /** Says that something was chosen by hand. */
  function byHand(what: ByHand) {
    chosen.value = { ...chosen.value, [what]: true }
  }
  return { way, asLast, current, chosen, byHand }
}
