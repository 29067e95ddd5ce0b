import { ref, watch, type Ref } from 'vue'
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
  rule: string
  aim: string
  feel: string
  leavesAre: string
}

/**
 * How the mechanic went about the vehicle last, asked anew where vehicle, name, set, card or reason change; what was not chosen by hand
 * is filled in from it. Nothing is proposed where a job is corrected.
 */
export function useMyWay(form: Ref<Proposed>, off: boolean) {
  const way = ref<MyWay | null>(null)
  /** What was chosen by hand for this vehicle, and is not written over. */
  const chosen = ref<{ set?: boolean; card?: boolean; rule?: boolean }>({})
  let asked = 0
  watch(
    () => form.value.vehicle,
    () => {
      chosen.value = {}
      way.value = null
    },
  )
  async function ask() {
    const { vehicle, mechanic, reason, set, card } = form.value
    if (off || !vehicle) return
    const mine = ++asked
    const got = await readOnce(
      reads.myWay(vehicle, {
        mechanic: mechanic.trim(),
        reason: reason || undefined,
        gauge_set_id: chosen.value.set ? set : undefined,
        card: chosen.value.card ? card : undefined,
      }),
    ).catch(() => null) // it is a proposal: without it everything is asked
    if (mine !== asked) return
    way.value = got
    if (!got) return
    const f = form.value
    if (!chosen.value.set && got.gauge_set_id) f.set = got.gauge_set_id
    if (!chosen.value.card && got.card >= 0) f.card = got.card
    if (!chosen.value.rule) {
      f.rule = got.rule
      f.aim = got.aim
    }
    if (got.feel_mm !== undefined) f.feel = String(got.feel_mm)
    f.leavesAre ||= got.leaves_are
  }
  watch(
    () => [form.value.vehicle, form.value.mechanic.trim(), form.value.reason, chosen.value.set, chosen.value.card],
    () => void ask(),
    { immediate: true },
  )
  /** Says that something was chosen by hand; where it decides what is proposed, that is asked anew. */
  function byHand(what: 'set' | 'card' | 'rule') {
    const again = chosen.value[what] && what !== 'rule'
    chosen.value = { ...chosen.value, [what]: true }
    if (again) void ask()
  }
  return { way, chosen, byHand }
}
