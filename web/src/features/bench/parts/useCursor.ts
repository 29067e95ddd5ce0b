import { useResizeObserver } from '@vueuse/core'
import { ref, watch, type Ref } from 'vue'
import type { Rung, Schemas } from '@/shared/api/client'
import { afterPaint } from '@/shared/later'

type Reading = Schemas['Reading']
interface Leaves {
  leaves_mm: number[]
  angled: boolean[]
}

/** Whether two are of the same leaves, in the same forms. */
export const same = (a: Leaves, b: Leaves) =>
  a.leaves_mm.length === b.leaves_mm.length &&
  a.leaves_mm.every((x, i) => x === b.leaves_mm[i] && Boolean(a.angled[i]) === Boolean(b.angled[i]))

/**
 * The leaf of the ladder that waits to be tried: the advised one, else the one that was felt last, else the one to begin with. It is
 * kept in sight, and moves by keys.
 */
export function useCursor(shown: Ref<Rung[]>, at: { valve: string; round: Reading[]; tryNext: string }) {
  const cursor = ref(0)
  const box = ref<HTMLElement>()
  function show() {
    const list = box.value
    const row = list?.children[cursor.value] as HTMLElement | undefined
    if (!list || !row) return
    // Nothing moves under a finger: the list scrolls only where the row is out of sight.
    const above = row.offsetTop < list.scrollTop
    const below = row.offsetTop + row.offsetHeight > list.scrollTop + list.clientHeight
    if (!above && !below) return
    // Whole rungs are shown, the one that waits among them with a neighbour on either side.
    const rows = Math.max(1, Math.floor(list.clientHeight / row.offsetHeight))
    const first = list.children[Math.max(0, cursor.value - Math.floor((rows - 1) / 2))] as HTMLElement
    list.scrollTop = first.offsetTop
  }
  watch(
    [() => at.valve, () => at.round.length, () => at.tryNext],
    () => {
      const last = at.round.at(-1)
      const places = [
        (r: Rung) => at.tryNext !== '' && last !== undefined && r.name === at.tryNext,
        (r: Rung) => last !== undefined && same(r, last),
        (r: Rung) => r.first,
      ].map((is) => shown.value.findIndex(is))
      cursor.value = places.find((i) => i >= 0) ?? 0
      afterPaint(show)
    },
    { immediate: true },
  )
  useResizeObserver(box, show) // what comes up around the list may take its room
  /** One leaf up, thicker, or down. */
  function climb(by: 1 | -1) {
    cursor.value = Math.min(shown.value.length - 1, Math.max(0, cursor.value - by))
    afterPaint(show)
  }
  return { cursor, box, climb }
}
