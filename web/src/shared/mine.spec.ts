import { beforeEach, describe, expect, it } from 'vitest'
import { mine, speakTo, units } from './mine'

describe('the units of who is at the screen', () => {
  beforeEach(() => {
    localStorage.clear()
    Object.assign(units, { length: '', lbfft: false, fahrenheit: false, miles: false })
  })

  it('says the own unit first and the other beside it', () => {
    expect(mine('temperature').both(38)).toBe('38 °C (100.4 °F)')
    expect(mine('length').both(0.2286)).toBe('0.2286 mm (9 thou)')
    units.fahrenheit = units.miles = units.lbfft = true
    units.length = 'thou'
    expect(mine('temperature').both(38)).toBe('100.4 °F (38 °C)')
    expect(mine('distance').both(160.9344)).toBe('100 miles (161 km)')
    // 135.5818 N·m is 100 lbf·ft (NIST SP 811, appendix B.8: 1.355 818)
    expect(mine('torque').say(135.5818)).toBe('100 lbf·ft')
    expect(mine('length').both(0.2)).toBe('7.9 thou (0.20 mm)')
  })

  it('keeps what was typed, exact both ways', () => {
    units.miles = units.fahrenheit = true
    units.length = 'thou'
    for (let miles = 0; miles < 400_000; miles += 37)
      expect(mine('distance').own(mine('distance').kept(miles))).toBe(miles)
    for (let tenths = -400; tenths < 3900; tenths++)
      expect(mine('temperature').own(mine('temperature').kept(tenths / 10))).toBe(tenths / 10)
    expect(mine('temperature').kept(100.4)).toBe(38)
    expect(mine('length').kept(9)).toBe(0.2286)
    expect(mine('length').own(mine('length').kept(8.25))).toBe(8.25)
  })

  it('tells the program by a cookie, and follows the person', () => {
    speakTo('Tess Ardal')
    units.miles = true
    units.length = 'thou'
    expect(document.cookie).toContain('metronix_units=thou.mi')
    speakTo('Oskar Venn')
    Object.assign(units, { length: 'mm', miles: false })
    expect(document.cookie).toContain('metronix_units=mm')
    speakTo('Tess Ardal')
    expect(units).toMatchObject({ length: 'thou', miles: true })
    speakTo('June Halloway')
    expect(units, 'whoever chose none here is spoken to as before').toMatchObject({ length: 'thou' })
    units.length = 'mm'
    speakTo('Tess Ardal')
    expect(units.length, 'and what they choose then is theirs alone').toBe('thou')
    speakTo('June Halloway')
    expect(units.length).toBe('mm')
  })
})
