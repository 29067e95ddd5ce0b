import { degrees } from './units'

/** How a gear is drawn and spoken of when it is set. */
export interface GearWords {
  /** The picture: a slotted screw in its nut, an eccentric, two nuts, a nut on a stud. */
  form: 'screw' | 'eccentric' | 'nuts' | 'stud'
  /** What is done until the leaf drags: "Slacken …, turn … until 0.30 drags." */
  turn: (leaf: string) => string
  tools: string
  lock: string
}
const screwWords: GearWords = {
  form: 'screw',
  turn: (leaf) => `Slacken the lock nut, turn the screw until ${leaf} drags.`,
  tools:
    'Check first that the screw turns freely: a ring spanner on the nut, a driver or key in the screw. Turn it until it touches the leaf without clamping it. Never a socket on the nut: it drags the screw round.',
  lock: 'Tightening drags the screw round and closes the gap. Hold the screw still with the driver while the nut goes tight.',
}
const tappetWords: GearWords = {
  form: 'nuts',
  turn: (leaf) => `Slacken the lock nut, turn the tappet’s head until ${leaf} drags.`,
  tools:
    'Two thin spanners, cranked where it is tight. Too tight: loosen the lock nut first. Too loose: start with the upper nut.',
  lock: 'Tightening draws the thread up and moves the gap. Hold the head with one spanner while the other brings the lock nut up.',
}
const pivotWords: GearWords = {
  form: 'nuts',
  turn: (leaf) => `Slacken the lock nut, turn the pivot until ${leaf} drags.`,
  tools:
    'An open spanner on the pivot, another on its lock nut. A finger can jump out of its socket under too much force.',
  lock: 'Tightening draws the thread up and moves the gap. Hold the pivot still while the nut goes tight.',
}
const gears: Record<string, GearWords> = {
  eccentric: {
    form: 'eccentric',
    turn: (leaf) => `Slacken the clamp nut, turn the eccentric until ${leaf} drags.`,
    tools:
      'A thin key or a hooked rod in the hole of the eccentric. It moves the gap by feel: little near its ends, most between.',
    lock: 'Hold the eccentric with its key or rod while the clamp nut goes tight.',
  },
  centre_nut: {
    form: 'stud',
    turn: (leaf) => `Turn the nut on the stud until ${leaf} drags.`,
    tools:
      'A deep socket or ring spanner on the self-locking nut. One that turns by hand has lost its grip: replace it.',
    lock: 'A self-locking nut holds as it stands; with a set screw in it, tighten that and hold the nut.',
  },
  threaded_tappet: tappetWords,
  threaded_tappet_at_valve: tappetWords,
  finger_pivot_at_cam: pivotWords,
  finger_pivot_at_valve: pivotWords,
}

/** The words, tools and picture of a kind of adjuster; a screw with its lock nut where none is stated. */
export const gearOf = (adjuster: string): GearWords => gears[adjuster] ?? screwWords

/** Which way an adjuster goes and how far, "Screw in 36°, clockwise": a stud nut goes down and up, every other screw in and out. */
export function turnOf(
  screw: { turn_deg?: number | null; travel: string; rotation: string },
  adjuster: string,
  valve = '',
): string {
  const nut = adjuster === 'centre_nut'
  const way = nut ? { in: 'down', out: 'up' }[screw.travel] : screw.travel
  const what = [nut ? 'Nut' : 'Screw', valve, way].filter(Boolean).join(' ')
  return `${what} ${degrees(screw.turn_deg ?? 0)}, ${screw.rotation}`
}
