import { dequal } from 'dequal/lite'
import type { JobChanges, JobState, StateAnswer, ValveState } from '@/shared/api/client'

/** Whether an answer says only what changed. */
export const isChanges = (answer: StateAnswer): answer is JobChanges => answer.partial === true

/** A state with what changed since; fields that are there no more are gone. */
export function withChanges(before: JobState, { valves, ...changed }: JobChanges): JobState {
  const now = taken(before, changed)
  now.valves = before.valves.map((v) => {
    const differs = valves.find((x) => x.name === v.name)
    return differs ? taken<ValveState>(v, differs) : v
  })
  delete now.partial
  return now
}

function taken<T extends object>(before: T, { gone, ...changed }: Partial<T> & { gone?: string[] | null }): T {
  const now = { ...before, ...changed } as T
  for (const name of gone ?? []) delete now[name as keyof T]
  return now
}

/** A thing, or the very same one as before where it says the same. */
const asBefore = <T>(was: T | undefined, now: T): T => (dequal(was, now) ? was! : now)

/** A state in which everything that is as it was is the very same thing as before, so that only what changed is drawn anew. */
export function sharing(before: JobState, after: JobState): JobState {
  const fields = Object.entries(after).map(([name, now]) => {
    const was = before[name as keyof JobState]
    if (name !== 'valves') return [name, asBefore(was as unknown, now)]
    return [name, (now as ValveState[]).map((v, i) => asBefore((was as ValveState[])[i], v))]
  })
  return Object.fromEntries(fields) as JobState
}
