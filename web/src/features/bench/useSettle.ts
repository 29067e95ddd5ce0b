import { onScopeDispose, readonly, ref } from 'vue'

/** How long a second press is a bounce of the first, or meant for what stood there before, in ms. */
export const settle = 400

/** A short while in which nothing is taken. */
export function useSettle() {
  const on = ref(false)
  let timer = 0
  function end() {
    clearTimeout(timer)
    on.value = false
  }
  function begin() {
    end()
    on.value = true
    timer = window.setTimeout(end, settle)
  }
  onScopeDispose(end)
  return { on: readonly(on), begin, end }
}
