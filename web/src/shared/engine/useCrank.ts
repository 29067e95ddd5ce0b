import { onScopeDispose, ref, watch, type Ref } from 'vue'
import { afterPaint } from '@/shared/later'

/** Full turn of the drawn crank takes this long, milliseconds. */
const perCycle = 2600

/**
 * A crank position that travels to where it is said to stand: in the running direction, or back where the way round goes so;
 * where it is followed as it is turned, the nearer way.
 */
export function useCrank(target: Ref<number | null>, back?: Ref<boolean>, followed?: Ref<boolean>): Ref<number | null> {
  const shown = ref(target.value)
  let frame = 0
  const still = matchMedia('(prefers-reduced-motion: reduce)').matches
  watch(target, (to, from) => {
    cancelAnimationFrame(frame)
    if (to === null || from === null || still) {
      afterPaint(() => (shown.value = target.value))
      return
    }
    const start = shown.value ?? from
    const ahead = (((to - start) % 720) + 720) % 720
    const goesBack = followed?.value ? ahead > 360 : back?.value && ahead > 0
    const way = goesBack ? ahead - 720 : ahead
    let began = 0
    const lasts = Math.max(300, (Math.abs(way) / 720) * perCycle)
    const step = (now: number) => {
      began ||= now
      const t = Math.min(1, (now - began) / lasts)
      const eased = t < 0.5 ? 2 * t * t : 1 - (2 - 2 * t) ** 2 / 2
      shown.value = t === 1 ? to : (start + way * eased + 720) % 720
      if (t < 1) frame = requestAnimationFrame(step)
    }
    frame = requestAnimationFrame(() => (frame = requestAnimationFrame(step))) // words are painted first
  })
  onScopeDispose(() => cancelAnimationFrame(frame))
  return shown
}
