import type { Directive } from 'vue'

const radios = (group: HTMLElement) =>
  [...group.querySelectorAll<HTMLElement>('[role="radio"]')].filter((r) => !(r as HTMLButtonElement).disabled)

/** One stop for Tab: the choice that is made, or the first. */
function rove(group: HTMLElement) {
  const all = radios(group)
  const on = all.find((r) => r.getAttribute('aria-checked') === 'true') ?? all[0]
  for (const r of all) r.tabIndex = r === on ? 0 : -1
}

const steps: Record<string, number> = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }

/**
 * Makes a group of role=radio buttons answer to the keyboard as one control does: Tab comes to it once, the arrow keys go through its
 * choices, Home and End to the ends (ARIA Authoring Practices, radio group).
 */
export const vRadios: Directive<HTMLElement> = {
  mounted(group) {
    rove(group)
    group.addEventListener('keydown', (e) => {
      const all = radios(group)
      const at = all.indexOf(e.target as HTMLElement)
      const to = e.key === 'Home' ? 0 : e.key === 'End' ? all.length - 1 : at + (steps[e.key] ?? 0)
      if (at < 0 || to === at) return
      e.preventDefault()
      e.stopPropagation()
      const next = all[(to + all.length) % all.length]!
      next.focus()
      next.click()
    })
  },
  updated: rove,
}
