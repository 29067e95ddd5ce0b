import type { Schemas } from '@/shared/api/client'
import { gaps } from '@/shared/units'

/** What is known of a gap, as the program says it: a figure, more or less than one, or between two; in the unit of its card. */
export function figureOf(judgement: Schemas['Judgement'] | null | undefined, inThou = false): string {
  const { bare } = gaps(inThou)
  const { kind = '', mm: at = 0, to_mm: to = 0 } = judgement?.figure ?? {}
  switch (kind) {
    case 'at':
      return bare(at)
    case 'above':
    case 'looser':
      return `>${bare(at)}`
    case 'below':
    case 'tighter':
      return `<${bare(at)}`
    case 'between':
      return `${bare(at)}–${bare(to)}`
  }
  return ''
}
