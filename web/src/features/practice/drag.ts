import { quiet } from './sound'

/** How a leaf sounds that drags: a hiss, the louder the harder it pulls. Made here; nothing is played from a file. */
let sound: AudioContext | undefined
let hiss: AudioBuffer | undefined

export function sounds(pull: number, seconds: number) {
  if (quiet.value || typeof AudioContext === 'undefined' || pull <= 0) return
  sound ??= new AudioContext()
  if (!hiss) {
    hiss = sound.createBuffer(1, sound.sampleRate, sound.sampleRate)
    const data = hiss.getChannelData(0)
    for (let i = 0; i < data.length; i++) data[i] = Math.random() * 2 - 1
  }
  const [from, tone, loud] = [sound.createBufferSource(), sound.createBiquadFilter(), sound.createGain()]
  from.buffer = hiss
  from.loop = true
  tone.type = 'bandpass'
  tone.frequency.value = pull >= 1 ? 180 : 900 + 1400 * pull // one that does not enter knocks
  loud.gain.value = 0.02 + 0.18 * pull
  from.connect(tone).connect(loud).connect(sound.destination)
  from.start()
  from.stop(sound.currentTime + (pull >= 1 ? 0.09 : seconds))
}

/** How play sounds where something is rocked: two clicks, the louder the more of it; none where there is none. */
export function clicks(play: number) {
  if (quiet.value || typeof AudioContext === 'undefined' || play <= 0) return
  sound ??= new AudioContext()
  for (const at of [0, 0.16]) {
    const [tone, loud] = [sound.createOscillator(), sound.createGain()]
    const from = sound.currentTime + at
    tone.type = 'square'
    tone.frequency.value = 1400 - 700 * play
    loud.gain.setValueAtTime(0.02 + 0.2 * play, from)
    loud.gain.exponentialRampToValueAtTime(0.001, from + 0.04)
    tone.connect(loud).connect(sound.destination)
    tone.start(from)
    tone.stop(from + 0.05)
  }
}

/** How far a leaf has come in after a part of its time, both from 0 to 1: it falls through, it creeps with a catch, or it stops at the edge. */
export function comesIn(pull: number, t: number): number {
  if (pull >= 1) return Math.min(0.14, t * 0.6)
  if (pull <= 0) return Math.min(1, t * 2.2)
  const creeps = Math.min(1, t * (1.25 - 0.45 * pull))
  return Math.max(0, creeps - 0.035 * pull * Math.abs(Math.sin(t * 26)))
}

/** How long sliding a leaf in lasts, s. */
export const slides = (pull: number) => (pull <= 0 ? 0.5 : 1 + 0.9 * pull)
