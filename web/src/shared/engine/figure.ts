import type { Schemas } from '@/shared/api/client'
import { mm } from '@/shared/units'

/** What is known of a gap, as the program says it: a figure, more or less than one, or between two. */
export function figureOf(judgement: Schemas['Judgement'] | null | undefined): string {
  const { kind = '', mm: at = 0, to_mm: to = 0 } = judgement?.figure ?? {}
  switch (kind) {
    case 'at':
      return mm(at)
    case 'above':
      return `>${mm(at)}`
    case 'below':
      return `<${mm(at)}`
    case 'between':
      return `${mm(at)}–${mm(to)}`
  }
  return ''
}
