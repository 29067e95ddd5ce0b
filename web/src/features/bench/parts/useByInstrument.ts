import { computed, ref, shallowRef, watch } from 'vue'
import { useInstruments } from '@/shared/useInstruments'

/** What the dial indicator and the pull scale tell of the valve in hand: a figure that a button took opens the entry and fills it in. */
export function useByInstrument(at: { valve: string; round: unknown[] }) {
  const valve = () => at.valve
  const felt = () => at.round.length
  const instruments = useInstruments()
  const dialOpen = ref(false)
  const taken = shallowRef<{ mm: number } | null>(null)
  watch(
    () => instruments.of('dial')?.takes ?? 0,
    (takes, before) => {
      if (takes <= before) return
      taken.value = { mm: instruments.of('dial')!.taken }
      dialOpen.value = true
    },
  )
  watch([dialOpen, valve], ([open, now], [, before]) => {
    if (!open || now !== before) taken.value = null
  })
  // A pull is said of the leaf that was pulled: once a feel was said, or at another valve, it is over.
  const before = ref(instruments.of('pull')?.takes ?? 0)
  watch([valve, felt], () => (before.value = instruments.of('pull')?.takes ?? 0))
  const pull = computed(() => {
    const told = instruments.of('pull')
    return told && told.takes <= before.value ? { ...told, takes: 0 } : told
  })
  return { dialOpen, taken, pull }
}
