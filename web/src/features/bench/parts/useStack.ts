import { computed, ref, watch } from 'vue'
import type { Rung } from '@/shared/api/client'

export const mostLaid = 3

/** One leaf, and no stack. */
export const isSingle = (r: Rung) => r.leaves_mm.length === 1

/** A stack that is being laid by hand, of the leaves that are there, until another valve is in hand. */
export function useStack(rungs: () => Rung[], valve: () => string) {
  /** The names of its leaves; null: none is being laid. */
  const laid = ref<string[] | null>(null)
  watch(valve, () => (laid.value = null))
  const stack = computed(() => {
    const list = (laid.value ?? []).flatMap((name) => rungs().filter((r) => isSingle(r) && r.name === name))
    return {
      name: list.map((r) => r.name).join(' + '),
      thickness: list.reduce((t, r) => t + r.thickness_mm, 0),
      leaves: list.flatMap((r) => r.leaves_mm),
      angled: list.flatMap((r) => r.angled),
    }
  })
  function lay({ name }: Rung) {
    const list = laid.value!
    if (list.includes(name)) laid.value = list.filter((x) => x !== name)
    else if (list.length < mostLaid) laid.value = [...list, name]
  }
  const begin = () => (laid.value = laid.value ? null : [])
  return { laid, stack, lay, begin }
}
