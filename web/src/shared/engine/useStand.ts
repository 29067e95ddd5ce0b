import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import type { EngineView } from '@/shared/api/client'
import { person } from '@/shared/mine'
import { isWide, type Stand } from './headLayout'

/**
 * Where this screen’s mechanic stands over an engine, chosen once. Until it is, an engine that is wider than it is long, with short
 * banks, is drawn with its front near, for there it is largest.
 */
export function useStand(engine: () => EngineView) {
  const chosen = useLocalStorage<Stand | ''>(`metronix.stand.${person()}`, '')
  return computed<Stand>({
    get: () => chosen.value || (isWide(engine()) ? 'near' : 'left'),
    set: (stand) => (chosen.value = stand),
  })
}
