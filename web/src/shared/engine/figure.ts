import type { Schemas } from '@/shared/api/client'
import { mm } from '@/shared/units'

type Reading = Schemas['Reading']

const sum = (r: Reading) => r.leaves_mm.reduce((a, b) => a + b, 0)

/** The shortest honest figure for kept readings: the leaf that dragged, else what the gap lies between. */
export function figureOf(result: Schemas['Result'] | null | undefined): string {
  if (!result) return ''
  if (result.judgement.estimate_mm !== null) return mm(result.judgement.estimate_mm)
  const free = Math.max(0, ...result.readings.filter((r) => r.feel === 'free').map(sum))
  const shut = Math.min(Infinity, ...result.readings.filter((r) => r.feel === 'wont_go').map(sum))
  if (free > 0 && shut < Infinity) return `${mm(free)}–${mm(shut)}`
  if (free > 0) return `>${mm(free)}`
  return shut < Infinity ? `<${mm(shut)}` : ''
}
