import type { JobView } from './api/client'

/** Who is at a job now: whoever it was handed over to last, else who began it. */
export const handOf = (view: JobView) => view.state.hands.at(-1)?.name ?? view.mechanic
