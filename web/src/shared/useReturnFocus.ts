import { nextTick, watch, type Ref } from 'vue'

/** Gives the focus back, when a dialog closes, to what had it before. */
export function useReturnFocus(open: Ref<boolean>) {
  let before: Element | null = null
  watch(open, async (on) => {
    if (on) before = document.activeElement
    else {
      await nextTick()
      if (before instanceof HTMLElement && before.isConnected) before.focus()
    }
  })
}
