import type { Schemas } from '@/shared/api/client'
import { choices } from '@/shared/words'

export const aidWord = { guided: 'guided', watched: 'watched', examination: 'examination' } as const

/** How much a run tells, as it is chosen. */
export const aids = choices({
  guided: 'Guided: the bench leads',
  watched: 'Watched: only warned',
  examination: 'Examination: nothing told',
})

/** How an exercise is done: how much is told, whether hot, and how long it may take. */
export function lasts(x: Schemas['ExerciseShort'], aid: keyof typeof aidWord | ''): string {
  return [
    aidWord[aid || x.aid],
    ...(x.state === 'hot' ? ['hot'] : []),
    ...(x.minutes ? [`${x.minutes} min`] : []),
  ].join(', ')
}

/** Seconds as a watch shows them: 2:05. */
export const watchTime = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`
