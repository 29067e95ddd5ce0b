import type { Schemas } from '@/shared/api/client'

export type Role = Schemas['PersonName']['role']

/** What a person is, in words, from the one who may least. */
export const roleWords: Record<Role, string> = {
  reader: 'Reader',
  learner: 'Learner',
  mechanic: 'Mechanic',
  tutor: 'Tutor',
  foreman: 'Foreman',
}

/** What each may do. */
export const roleMay: Record<Role, string> = {
  reader: 'looks at everything and changes nothing',
  learner: 'works at an engine; somebody else signs',
  mechanic: 'works, signs, and keeps engines, feelers and vehicles',
  tutor: 'a mechanic who also countersigns',
  foreman: 'everything, people and copies of the data included',
}
