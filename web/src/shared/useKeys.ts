import { onMounted, onUnmounted } from 'vue'
import { learned } from './handsFree'
import { guard } from './guard'
import { reachedByTab } from './reached'

/**
 * Listens for the bench's keys. A key typed into a field, or Enter on a control reached with Tab, is left to it.
 * The handler says whether it took the key. A key that was learned stands for one of the bench's own, where that is allowed.
 */
export function useKeys(handle: (key: string) => boolean, byFoot = () => false) {
  function listen(e: KeyboardEvent) {
    if (e.ctrlKey || e.metaKey || e.altKey || e.defaultPrevented) return
    if (e.repeat && !e.key.startsWith('Arrow')) return // a key held down is one press
    const at = e.target as HTMLElement
    if (at.closest('input:not([type="checkbox"]), textarea, select, [role="dialog"]')) return
    if (guard.on.value) return e.preventDefault()
    const native = e.key === 'Enter' || e.key === ' '
    if (native && at.closest('button, a, input, [role="button"]') && reachedByTab(at)) return
    const stands = learned(e.key)
    if (stands && !byFoot()) return
    if (handle(stands || e.key)) e.preventDefault()
  }
  onMounted(() => window.addEventListener('keydown', listen))
  onUnmounted(() => window.removeEventListener('keydown', listen))
}
