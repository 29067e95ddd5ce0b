import { onScopeDispose, readonly, ref } from 'vue'
import type { Schemas } from './api/client'
import { afterPaint } from './later'

/** What changed: everything, or these jobs, each by its newest happening. */
export type Changed = { all: boolean; jobs: Pick<Schemas['BoardChange'], 'id' | 'newest' | 'here'>[] }

/** Whether the line to the program holds by which it is told. */
export const holds = ref(false)
const hearers = new Set<(c: Changed) => void>()

/** Passes on what changed. */
export function hear(c: Changed) {
  for (const f of hearers) f(c)
}

let begun = false
/** The stream itself comes after the first view. */
function begin() {
  if (begun || typeof EventSource === 'undefined') return
  begun = true
  void import('./liveStream').then(({ listenHere }) => listenHere()).catch(() => (begun = false)) // with the next page
}

/** What changes anywhere in the workshop, told as it happens. */
export const live = {
  /** Whether it is told: else pages ask by themselves. */
  holds: readonly(holds),
  /** Calls a function with each change, for as long as its page is there. */
  on(f: (c: Changed) => void) {
    hearers.add(f)
    onScopeDispose(() => hearers.delete(f), true)
    afterPaint(begin)
  },
}
