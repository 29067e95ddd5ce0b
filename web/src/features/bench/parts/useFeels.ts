import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { feelWord } from '@/shared/words'

export type Feel = Exclude<Schemas['Reading']['feel'], ''>

const plain: Feel[] = ['free', 'drag', 'wont_go']
const byPull: Feel[] = ['free', 'drag_light', 'drag', 'drag_firm', 'wont_go']
const keys: Feel[] = ['free', 'drag', 'wont_go', 'drag_light', 'drag_firm']
const pullWord: Record<string, string> = { ...feelWord, drag_light: 'light', drag: 'right', drag_firm: 'firm' }

/** What may be said of a leaf: three feels, or a drag by how hard it pulls. Keys keep their meaning either way. */
export function useFeels() {
  const graded = useLocalStorage('metronix.graded-drag', false)
  const columns = computed(() => (graded.value ? byPull : plain))
  const short = (f: Feel) => (graded.value ? pullWord : feelWord)[f]
  const keyOf = (f: Feel) => keys.indexOf(f) + 1
  /** The feel that a key says; undefined: none that is offered. */
  const byKey = (k: string) => columns.value.find((f) => f === keys[Number(k) - 1])
  return { graded, columns, short, keyOf, byKey }
}
