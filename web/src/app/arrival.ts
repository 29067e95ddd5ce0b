import { nextTick, ref } from 'vue'
import { START_LOCATION, type Router } from 'vue-router'

/** Why the page that was asked for could not be opened; empty where none was. */
export const notOpened = ref('')

/**
 * After a change of page the focus is on its title, so that Tab goes on from there and a reader says where one is. A page that could
 * not be fetched says so instead of doing nothing.
 */
export function arrivals(router: Router) {
  router.afterEach(async (to, from) => {
    notOpened.value = ''
    document.title = `${String(to.meta.title)} · Metronix`
    if (from === START_LOCATION || to.path === from.path) return
    await nextTick()
    await nextTick()
    document.querySelector<HTMLElement>('h1')?.focus({ preventScroll: true })
  })
  router.onError((_, to) => {
    notOpened.value = `“${String(to.meta.title)}” cannot be opened: the program cannot be reached. This page works on, and what is entered is kept.`
  })
}
