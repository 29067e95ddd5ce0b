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
