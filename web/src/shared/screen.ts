import { newID } from './api/client'

const key = 'metronix.screen'

/** This tab among all screens of the workshop, as long as it is open: what it enters bears it. */
export const screen = (() => {
  const kept = sessionStorage.getItem(key) ?? newID()
  sessionStorage.setItem(key, kept)
  return kept
})()
