import { readonly, ref } from 'vue'

/** How long a press is a bounce of the one before, or meant for what stood there before, in ms. */
export const settle = 400

const on = ref(false)
let timer = 0
let until = 0 // on the page's clock

function release() {
  clearTimeout(timer)
  on.value = false
  delete document.documentElement.dataset.guarded
}

function end() {
  until = 0
  release()
}

/** Nothing is taken for a short while: what is pressed now was meant for what stood there before. */
function begin() {
  clearTimeout(timer)
  on.value = true
  document.documentElement.dataset.guarded = ''
  until = performance.now() + settle
  timer = window.setTimeout(release, settle)
}

// Writing goes on: a letter typed is meant for the field that has the focus.
const writes = 'input:not([type="checkbox"], [type="radio"]), textarea, select'

/** Keeps a tap from everything on the page, dialogs too, that was made while nothing is taken: a busy page may come to it later. */
function hold(e: Event) {
  if (!(on.value || e.timeStamp < until) || (e.target as Element).closest?.(writes)) return
  e.preventDefault()
  e.stopImmediatePropagation()
}
for (const kind of ['click', 'dblclick'] as const) document.addEventListener(kind, hold, { capture: true })

/**
 * The one guard of the program's pages. It begins whenever what may be pressed has changed: the bench's action, stop, valve or panel,
 * or a dialog that came up; and with every act, and lasts [settle].
 */
export const guard = { on: readonly(on), begin, end }
