import type { Schemas } from '@/shared/api/client'
import made from './book.gen.json'

/** The handbook as it is built in: shown where the program cannot be reached too. Its sentences are those of the bench, the score and the drills. */
export const book = made as unknown as Schemas['Handbook']

export type HandbookPart = 'schools' | 'drag' | 'adjusters' | 'heat' | 'wrong'
