import type { Act, Happening } from '@/shared/api/client'
import { leaves, mm } from '@/shared/units'
import { feelWord } from '@/shared/words'

/** What was done, in words: "E3: 0.25 drag", "turned to the 2nd stop". */
export function actWords(h: Act | Happening): string {
  const valve = 'valve' in h && h.valve ? `${h.valve}: ` : ''
  switch (h.kind) {
    case 'reading':
      return `${valve}${leaves(h.leaves_mm ?? [])} ${feelWord[h.feel]}`
    case 'dial':
      return `${valve}dial ${mm(h.gap_mm ?? 0)}`
    case 'kept':
      return `${valve}kept`
    case 'set_told':
      return `${valve}set, locked, ${leaves(h.leaves_mm ?? [])} drags`
    case 'adjusted':
      return h.shim_mm ? `${valve}shim ${mm(h.shim_mm)} put in` : `${valve}set`
    case 'turned':
    case 'barred_over':
      return `crank turned to stop ${(h.stop ?? 0) + 1}`
    case 'located':
      return 'crank found'
    case 'doubted':
      return 'crank said to have moved'
    case 'picked':
      return `${valve}taken in hand`
    case 'undone':
      return 'last step taken back'
    case 'left_as_is':
      return `${valve}left as it is`
    case 'task':
      return `step “${h.task.replaceAll('_', ' ')}”${h.back ? ' taken back' : h.skip ? ' left out' : ''}`
    case 'signed':
      return `signed by ${h.by}`
  }
  return `${valve}${h.kind.replaceAll('_', ' ')}`
}
