// @vitest-environment node
import { describe, expect, it } from 'vitest'
import type { Schemas } from './api/client'
import { figureOf } from './engine/figure'
import { capital, seenWords } from './words'
import gears from './engine/gears.fixture.json'
import { turnOf, type Gear } from './gearWords'

describe('what is seen', () => {
  it('is spoken of as it stands before the eye', () => {
    expect(seenWords({ what: 'rocking', cylinder: 4 })).toBe('cylinder 4 is rocking')
    expect(seenWords({ what: 'full_lift', valve: 'E1' })).toBe('E1 is fully down')
    expect(seenWords({ what: 'mark', mark_deg: 0 })).toContain('TDC mark')
    expect(seenWords({ what: 'degrees', mark_deg: 51.43 })).toBe('the degree wheel reads 51.4°')
    expect(capital('cylinder 4 rocks')).toBe('Cylinder 4 rocks')
  })
})

describe('the turn of an adjuster', () => {
  it('goes in and out, a stud nut down and up', () => {
    const screw = { turn_deg: 36, travel: 'in', rotation: 'clockwise' }
    const of = (kind: string) => gears.find((g) => g.kind === kind) as Gear
    expect(turnOf(screw, of('screw_valve_end'), 'E3')).toBe('Screw E3 in 36°, clockwise')
    expect(turnOf({ ...screw, travel: 'out', rotation: 'anticlockwise' }, of('centre_nut'))).toBe(
      'Nut up 36°, anticlockwise',
    )
  })
})

describe('the figure of a gap', () => {
  const judged = (figure: Schemas['Figure']) => ({ figure }) as Schemas['Judgement']
  it('is what the program knows of it: a figure, a bound with its uncertainty, or between two', () => {
    expect(figureOf(judged({ kind: 'at', mm: 0.22 }))).toBe('0.22')
    expect(figureOf(judged({ kind: 'between', mm: 0.195, to_mm: 0.245 }))).toBe('0.195–0.245')
    expect(figureOf(judged({ kind: 'above', mm: 0.195 }))).toBe('>0.195')
    expect(figureOf(judged({ kind: 'below', mm: 0.221 }))).toBe('<0.221')
    expect(figureOf(judged({ kind: '' }))).toBe('')
    expect(figureOf(null)).toBe('')
  })
})
