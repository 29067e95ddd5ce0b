import { computed, type Ref } from 'vue'
import type { JobView, Schemas } from '@/shared/api/client'

export type Task = Schemas['TaskView']
export type Part = Task['part'] | 'findings' | 'tools'

export const partNames: Record<Part, string> = {
  take_in: 'Take in',
  open_up: 'Open up',
  findings: 'Findings',
  tools: 'Tools',
  close_up: 'Close up',
  start_up: 'Start',
}
export const parts = Object.keys(partNames) as Part[]

/** Whether the work at the valves is over, so that closing is next. */
const closing = (view: JobView) => ['sign', 'await_hot', 'done'].includes(view.state.phase)

/** What is told of a part beside its name: how much of it is done, or how many there are. */
export function countOf({ state }: JobView, part: Part): string {
  if (part === 'findings') return state.findings.length ? String(state.findings.length) : ''
  if (part === 'tools') {
    const out = state.tools.filter((t) => t.out).length
    return out ? `${out} out` : ''
  }
  const mine = state.tasks.filter((t) => t.part === part)
  return `${mine.filter((t) => t.marked).length}/${mine.length}`
}

/** How a part stands where no step of it is next: ticked through, or as it was when the job was signed. */
export function standing(tasks: Task[], sealed: boolean): string {
  const waits = tasks.filter((t) => !t.marked).length
  if (tasks.length === 0) return 'no steps on this engine.'
  if (waits === 0) return 'all done.'
  if (!sealed) return `${waits} to do.`
  return waits === tasks.length
    ? 'not gone through by steps.'
    : `${tasks.length - waits} of ${tasks.length} ticked when it was signed.`
}

/** A step with those that wait and may be ticked off with it; it alone where it is ticked singly, or its group was opened. */
export const together = (tasks: Task[], now: Task, opened: string[]) =>
  now.with.length === 0 || opened.includes(now.group) ? [now] : tasks.filter((t) => now.with.includes(t.id))

/** The steps around the bench of one job: the one that is next, and where it belongs. */
export function useAround(view: Ref<JobView | null>) {
  const tasks = computed(() => view.value?.state.tasks ?? [])
  /** The first that waits: before the valves what opens, after them what closes. */
  const next = computed(() => {
    if (!view.value) return undefined
    const after = (t: Task) => t.part === 'close_up' || t.part === 'start_up'
    const late = closing(view.value)
    const waits = tasks.value.filter((t) => !t.marked)
    return late ? (waits.find(after) ?? waits[0]) : waits.find((t) => !after(t))
  })
  return { tasks, next, closing: computed(() => view.value !== null && closing(view.value)) }
}
