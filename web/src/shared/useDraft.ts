import { StorageSerializers, useSessionStorage } from '@vueuse/core'
import { watch } from 'vue'

/**
 * Keeps what was typed and is not stored yet, over back, forward and another page of the program, for as long as the tab is open.
 * `now` gives it, or null where nothing differs from what is stored; `put` lays what was kept over what was read.
 */
export function useDraft<T>(name: string, now: () => T | null, put: (kept: T) => void) {
  const kept = useSessionStorage<T | null>(`metronix.draft.${name}`, null, { serializer: StorageSerializers.object })
  const before = kept.value
  let watching = false
  return {
    /** Lays the draft over what was read, once it was; says whether there was one. From then on changes are kept. */
    restore() {
      if (watching) return false
      watching = true
      if (before !== null) put(before)
      watch(now, (v) => (kept.value = v), { deep: true, immediate: true })
      return before !== null
    },
    /** Lets the draft go: it is stored, or not wanted. */
    drop: () => (kept.value = null),
  }
}
