import { defineAsyncComponent, type AsyncComponentLoader, type Component } from 'vue'

const wanted: (() => Promise<unknown>)[] = []
let seen = false

/** The first view is there: what is wanted later is fetched, so that it is there when the program cannot be reached any more. */
export function viewed() {
  seen = true
  for (const load of wanted.splice(0)) void load().catch(() => {})
}
const atLast = 3000
/** Whether it is. */
export const isViewed = () => seen

window.addEventListener('load', () => setTimeout(viewed, atLast)) // for a page that does not say so

/** Fetches something once the first view is there. */
export function whenViewed(load: () => Promise<unknown>) {
  if (seen) void load().catch(() => {})
  else wanted.push(load)
}

/**
 * A part of a page that its first view does without: fetched a little later, in one piece with the other such parts. Until it is there
 * something else may stand at its place.
 */
export function later<T extends Component>(load: AsyncComponentLoader<T>, meanwhile?: Component): T {
  whenViewed(load)
  return defineAsyncComponent({ loader: load, loadingComponent: meanwhile, delay: 0 }) as unknown as T
}

/** Does something once what stands now has been painted. */
export function afterPaint(what: () => void) {
  requestAnimationFrame(() => setTimeout(what))
}

/** The bar that tells what was done. */
export const ToldBar = later(() => import('./ToldBar.vue'))
