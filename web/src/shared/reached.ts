/**
 * Whether a control was reached with Tab. Such a one answers to Enter itself; one that was tapped does not, so that after a
 * tap Enter is the one next thing of the page again. (The browser's own :focus-visible cannot tell: it comes with the first
 * key after a tap.)
 */
let reached: EventTarget | null = null
let tabbed = false

if (typeof window !== 'undefined') {
  window.addEventListener('keydown', (e) => (tabbed = e.key === 'Tab'), true)
  window.addEventListener('pointerdown', () => ((tabbed = false), (reached = null)), true)
  window.addEventListener('focusin', (e) => (reached = tabbed ? e.target : null))
}

export function reachedByTab(at: EventTarget | null): boolean {
  return at !== null && at === reached
}
