import { reactive, watch } from 'vue'

/** What a learned key does on the bench. */
export type HandsFree = 'go' | 'free' | 'drag' | 'wont_go' | 'undo'

/** The bench's own key for each. */
const benchKey: Record<HandsFree, string> = { go: 'Enter', free: '1', drag: '2', wont_go: '3', undo: 'z' }

/** How the bench is worked with full hands, at this screen. */
interface Settings {
  /** The keys of a foot switch or a presenter, by what they do. */ keys: Partial<Record<HandsFree, string>>
  /** Instructions are spoken. */ voice: boolean
  /** A tone for in, another for out. */ tones: boolean
  /** The screen is kept on at the bench. */ awake: boolean
}

const store = 'metronix.hands-free'
const usual: Settings = { keys: {}, voice: false, tones: false, awake: true }

function kept(): Settings {
  try {
    return { ...usual, ...(JSON.parse(localStorage.getItem(store) ?? '{}') as Partial<Settings>) }
  } catch {
    return usual
  }
}

export const handsFree = reactive(kept())
watch(handsFree, (s) => localStorage.setItem(store, JSON.stringify(s)))

/** Keys that are not learned: they write, move the focus, or mean something of their own on the bench. */
const own = /^([0-9a-z+?]|Enter|Tab|Escape|Shift|Control|Alt|Meta|Arrow\w+|Backspace| )$/i

/** Why a key cannot be learned; empty: it can. */
export function whyNot(key: string, does: HandsFree): string {
  if (own.test(key))
    return `${key === ' ' ? 'The space bar' : key} has a meaning of its own here. Set the switch to another key.`
  const taken = (Object.keys(handsFree.keys) as HandsFree[]).find((k) => k !== does && handsFree.keys[k] === key)
  return taken ? 'This key is learned for something else already.' : ''
}

/** The bench's own key that a learned one stands for; empty: it was not learned. */
export function learned(key: string): string {
  const does = (Object.keys(handsFree.keys) as HandsFree[]).find((k) => handsFree.keys[k] === key)
  return does ? benchKey[does] : ''
}
