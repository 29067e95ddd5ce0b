/** An order as it is tapped: a cylinder begins a stop where it rocks, a valve is set at the last stop, or taken out of it again. */
export const tapCylinder = (text: string, cylinder: number) => `${text ? `${text.trimEnd()}\n` : ''}${cylinder} rocks: `

export function tapValve(text: string, valve: string): string {
  const lines = text.split('\n')
  const last = lines.at(-1)!
  const [place, set] = last.split(':')
  if (set === undefined) return text // no stop is begun: a cylinder is tapped first
  const named = set.split(/[\s,]+/).filter(Boolean)
  const now = named.includes(valve) ? named.filter((v) => v !== valve) : [...named, valve]
  return [...lines.slice(0, -1), `${place}: ${now.join(' ')}`].join('\n')
}
