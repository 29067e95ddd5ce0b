import { onUnmounted } from 'vue'

/** With ten cylinders and more a 1 waits a moment for its second digit. */
const secondDigit = 700

/** Cylinders named by keys: a digit, or a 1 and another one soon after it. */
export function useNumberKeys(is: (n: number) => boolean, say: (n: number) => void) {
  let waits = 0
  const stop = () => {
    clearTimeout(waits)
    waits = 0
  }
  onUnmounted(stop)
  /** Whether the key was taken; a 1 that waited counts where another key follows it. */
  return function key(k: string): boolean {
    const digit = /^\d$/.test(k) ? Number(k) : -1
    if (waits && digit >= 0 && is(10 + digit)) {
      stop()
      say(10 + digit)
      return true
    }
    if (waits) {
      stop()
      say(1)
    }
    if (digit === 1 && is(10)) {
      waits = window.setTimeout(() => {
        stop()
        say(1)
      }, secondDigit)
      return true
    }
    if (!is(digit)) return false
    say(digit)
    return true
  }
}
