import type { Schemas } from './api/client'
import { when } from './units'

type Backups = Schemas['Backups']

/** How backups stand, in a sentence or two. */
export function backupWords({ last, trouble, old }: Backups): string {
  const newest = last ? `The newest backup is of ${when(last)}.` : 'There is no backup yet.'
  if (trouble) return `${newest} ${trouble}`
  return old ? `${newest} None has been made since: look whether its folder can be reached.` : newest
}

const minute = 60
const hour = 60 * minute
const day = 24 * hour

/** How far apart they are made. */
export function often(s: number): string {
  const [n, unit] =
    s % day === 0 ? [s / day, 'day'] : s % hour === 0 ? [s / hour, 'hour'] : [Math.round(s / minute), 'minute']
  return n === 1 ? `One every ${unit}` : `One every ${n} ${unit}s`
}

const kilo = 1000
/** A size on a disk. */
export function bytesSaid(bytes: number): string {
  const units = ['B', 'kB', 'MB', 'GB', 'TB']
  let n = bytes
  let i = 0
  for (; n >= kilo && i < units.length - 1; i++) n /= kilo
  return `${n < 10 && i > 0 ? n.toFixed(1) : Math.round(n)} ${units[i]}`
}
