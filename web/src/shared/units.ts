/** Millimetres as the trade writes them: two places, a third or fourth only where it is there. */
export function mm(value: number): string {
  const [whole, places = ''] = value.toFixed(4).replace(/0+$/, '').split('.')
  return `${whole}.${places.padEnd(2, '0')}`
}

const tenths = (value: number) => (Math.round((value / 25.4) * 10000) / 10).toString()

/** Thousandths of an inch, to a tenth (1 in = 25.4 mm). */
export function thou(value: number): string {
  return `${tenths(value)} thou`
}

/** How gaps are written where a card gives millimetres, or inches alone: as bare figures, with the unit, and as a window. */
export function gaps(inThou: boolean) {
  const unit = inThou ? 'thou' : 'mm'
  const bare = inThou ? tenths : mm
  const window = (l: { lower_mm: number; upper_mm: number }) => `${bare(l.lower_mm)}–${bare(l.upper_mm)}`
  return { unit, bare, window, say: (value: number) => `${bare(value)} ${unit}` }
}

/** Degrees without needless places. */
export function degrees(value: number): string {
  return `${(Math.round(value * 10) / 10).toString()}°`
}

/** A stack of leaves: "0.20 + 0.04". */
export function leaves(list: number[]): string {
  return list.map(mm).join(' + ')
}

const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/** A day, of a time or of a date alone, as it is written everywhere: "29 Nov 2026". */
export function day(iso: string): string {
  const at = new Date(iso.length === 10 ? `${iso}T12:00` : iso)
  return `${at.getDate()} ${months[at.getMonth()]} ${at.getFullYear()}`
}

/** A time of day with its date where that is not today. */
export function when(iso: string, now = new Date()): string {
  const at = new Date(iso)
  if (at.toDateString() === now.toDateString()) return `today ${clock(iso)}`
  return `${day(iso)}, ${clock(iso)}`
}

/** A time of day: "14:20". */
export function clock(iso: string): string {
  const at = new Date(iso)
  return [at.getHours(), at.getMinutes()].map((n) => String(n).padStart(2, '0')).join(':')
}
