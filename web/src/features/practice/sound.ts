import { useLocalStorage } from '@vueuse/core'

/** Whether nothing is to be heard of leaves at this screen. */
export const quiet = useLocalStorage('metronix.practice-quiet', false, {
  serializer: { read: (v) => v === 'yes', write: (v) => (v ? 'yes' : 'no') },
})
