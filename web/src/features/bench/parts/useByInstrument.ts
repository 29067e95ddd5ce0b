import { computed, ref, shallowRef, watch } from 'vue'
import { useInstruments } from '@/shared/useInstruments'

/** What the dial indicator and the pull scale tell of the valve in hand: a figure that a button took opens the entry and fills it in. */
export function useByInstrument(valve: () => string) {
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
  return { dialOpen, taken, pull: computed(() => instruments.of('pull')) }
}
