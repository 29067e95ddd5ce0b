import type { Happening } from '@/shared/api/client'
import { people } from '@/shared/session'
import { anothers, type Waiting } from '@/shared/useQueue'

/** What a mechanic may answer to a refusal so that it is taken all the same: in words, and what is sent with it. */
export interface Answer {
  says: string
  body: Happening
}

export function answerTo(w: Waiting): Answer | undefined {
  const { body, type, adrift } = w
  if (anothers(w))
    return people.may('take_over')
      ? {
          says: `Send it as ${people.me.value}, in place of ${body.author}`,
          body: { ...body, sent_by: people.me.value },
        }
      : undefined
  // a slow line may bring the verdict and what follows it to the program closer together than they were done
  if (type === 'urn:metronix:so_soon' && body.kind === 'set_told')
    return { says: 'Yes, all three', body: { ...body, asked: true } }
  if (type === 'urn:metronix:crank_moved' && !adrift && (body.kind === 'reading' || body.kind === 'dial'))
    return { says: 'Keep it for where it was made', body: { ...body, made_there: true } }
}
