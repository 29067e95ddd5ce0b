import { computed, ref, watch } from 'vue'
import { askInstruments } from '@/shared/useInstruments'

/**
 * The crank of the practice engine turned by a handle with an encoder: what it is turned by moves the drawn crank, and once it stands the
 * engine is turned by that. It is taken up by a tap, so that nothing is turned by a handle that somebody else tries.
 */
export function useHandle(turns: { pushed: (byDeg: number) => void; done: () => void }) {
  const instruments = askInstruments()
  const encoder = computed(() => instruments.list.value.find((i) => i.kind === 'crank'))
  const wanted = ref(false)
  const jumped = ref(false)
  /** What it showed last; null: from what it shows next it is followed. */
  let last: { value: number; run: number } | null = null
  let turning = false
  watch([encoder, wanted], ([told, on]) => {
    if (!on || told?.state !== 'ok') {
      last = null
      return
    }
    const by = last === null ? 0 : told.value - last.value
    const anew = last !== null && told.run !== last.run
    last = told
    if (anew) jumped.value = true
    else if (by !== 0) {
      jumped.value = false
      turning = true
      turns.pushed(by)
    }
    if (told.still && turning) {
      turning = false
      turns.done()
    }
  })
  const says = computed(() => {
    if (!wanted.value || !encoder.value) return ''
    if (encoder.value.state !== 'ok') return `The crank encoder is lost: ${encoder.value.detail}. Turn by hand.`
    return jumped.value
      ? 'The crank encoder jumped, or was lost for a moment. It is followed again from where it is.'
      : ''
  })
  return { there: computed(() => encoder.value !== undefined), wanted, says }
}
