import type { JobState, JobView, Schemas } from '@/shared/api/client'
import { screen } from '@/shared/screen'

/** Whether the crank is turned next, which a helper may do. */
export const helpable = (action: string) => ['turn', 'bar_over'].includes(action)

/** Which way the crank is turned, seen from the front. */
export const turnsTo = ({ engine, state }: Pick<JobView, 'engine' | 'state'>): JobView['engine']['rotation'] =>
  (engine.rotation === 'clockwise') === (state.plan?.direction !== 'back') ? 'clockwise' : 'anticlockwise'

/** Whether this screen leads at the crank: nobody else is at the valves, or it was moved here last. */
export function leads({ crank_by }: JobState, others: Schemas['Presence'][]): boolean {
  return crank_by === screen || !others.some((o) => o.doing !== 'helper')
}

/** The one instruction, in words: what is next, or why it waits. */
export function wordsNow(
  state: JobState,
  { choosing, noted, elsewhere, refused }: { choosing: boolean; noted: string; elsewhere: boolean; refused: boolean },
): Schemas['Headline'] {
  if (refused)
    return {
      before: 'Not everything was taken: ',
      strong: 'decide.',
      after: '',
      sub: 'Nothing is done or sent here before.',
    }
  if (choosing) return { before: 'Choose another ', strong: 'sequence.', after: '', sub: 'Readings stay as they are.' }
  if (noted)
    return {
      before: `${noted} noted: `,
      strong: 'waits for the connection.',
      after: '',
      sub: 'It is kept here until then.',
    }
  if (elsewhere && helpable(state.now.action))
    return {
      before: 'Wait: ',
      strong: 'the crank is with another screen.',
      after: '',
      sub: 'The program cannot be reached, and so neither can that one.',
    }
  return state.now.headline
}
