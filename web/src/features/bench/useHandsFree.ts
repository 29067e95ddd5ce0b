import { useEventListener, useWakeLock } from '@vueuse/core'
import { watch, type Ref } from 'vue'
import type { JobState } from '@/shared/api/client'
import { handsFree } from '@/shared/handsFree'

/** Whether a learned key may do what is next: at a valve and at the crank, and never what hands alone answer for. */
export function mayByFoot({ now }: JobState): boolean {
  return (
    !now.make_safe &&
    !now.confirm_kinds &&
    ['turn', 'bar_over', 'free', 'read', 'keep', 'adjust', 'lock'].includes(now.action)
  )
}

/** An instruction as it is spoken: "Turn a further 180 degrees until cylinder 2 rocks. Read E 3". */
export function spoken({ before, strong, after, sub }: JobState['now']['headline']): string {
  return `${before}${strong}${after}${sub ? ` ${sub}` : ''}`
    .replace(/°/g, ' degrees')
    .replace(/\b([EI])(\d)/g, '$1 $2')
    .replace(/−/g, 'minus ')
}

/** Frequencies of the two tones, Hz, and how long they last, s: one high, or one low twice. */
const tones = {
  in: [[880, 0]],
  out: [
    [330, 0],
    [330, 0.22],
  ],
} as const
const lasts = 0.16
let sound: AudioContext | undefined

function tone(of: keyof typeof tones) {
  if (typeof AudioContext === 'undefined') return
  sound ??= new AudioContext()
  for (const [hertz, after] of tones[of]) {
    const [note, loud] = [sound.createOscillator(), sound.createGain()]
    note.frequency.value = hertz
    loud.gain.value = 0.25
    note.connect(loud).connect(sound.destination)
    note.start(sound.currentTime + after)
    note.stop(sound.currentTime + after + lasts)
  }
}

/** The tone that a state calls for after what was done last; none where nothing was felt, or nothing is sure of it. */
export function toneOf(s: JobState): keyof typeof tones | null {
  if (!['reading', 'dial', 'set_told'].includes(s.undo_kind)) return null
  const v = s.valves.find((x) => x.name === s.undo_valve)
  const judged = v?.round.length ? v.judgement : v?.last?.judgement
  if (!judged || judged.conflict || judged.verdict === 'undecided') return null
  return judged.verdict === 'in' ? 'in' : 'out'
}

/** Speaks, sounds and keeps the screen on at the bench, as it was chosen at this screen. */
export function useHandsFree(state: Ref<JobState | null>) {
  watch(
    () => state.value && spoken(state.value.now.headline),
    (text) => {
      if (!handsFree.voice || !text || typeof speechSynthesis === 'undefined') return
      speechSynthesis.cancel() // what is no more so is not said to its end
      speechSynthesis.speak(new SpeechSynthesisUtterance(text))
    },
  )
  watch(
    () => state.value?.newest,
    (now, before) => {
      const of = before && now && handsFree.tones ? toneOf(state.value!) : null
      if (of) tone(of)
    },
  )
  const lock = useWakeLock()
  // a browser gives it to a page that is touched, and takes it back from one that is left
  const hold = () =>
    void (handsFree.awake && lock.isSupported.value && !lock.isActive.value && lock.request('screen').catch(() => {}))
  useEventListener(window, 'pointerdown', hold)
  hold()
}
