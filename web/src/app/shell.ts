import { ref } from 'vue'
import { router } from './router'

/** How often a page that stays open asks whether there is a newer version; and how soon again while none is kept, ms. */
const asks = 30 * 60_000
const soon = 15_000

/** What a browser offers that can put a page among the tablet's own programs. */
interface InstallOffer extends Event {
  prompt(): Promise<unknown>
}
const offer = ref<InstallOffer | null>(null)
addEventListener('beforeinstallprompt', (e) => {
  e.preventDefault() // it is offered in the workshop's page, not over the work
  offer.value = e as InstallOffer
})
addEventListener('appinstalled', () => (offer.value = null))

/** Whether this tablet may be asked to keep the program among its own, and asking it. */
export const install = {
  offer,
  async ask() {
    await offer.value?.prompt()
    offer.value = null
  },
}

/** On the workshop's machine itself the program is always there, and its pages are not kept. */
const here = () => ['localhost', '127.0.0.1', '[::1]'].includes(location.hostname)

let newer = false
router.beforeEach((to, from) => {
  if (!newer || to.path === from.path) return
  location.assign(to.fullPath)
  return false
})
// A page that the program has no more, because it is of a newer version, is fetched anew as a whole: what waits to be sent stays.
router.onError(async (_, to) => {
  const there = await fetch('/healthz').catch(() => null)
  if (there?.ok) location.assign(to.fullPath)
})

/** Keeps the pages on this tablet, where the browser does that (in a secure context), and goes on to a newer version with the next page. */
async function keep(workers: ServiceWorkerContainer) {
  const before = workers.controller
  workers.addEventListener('controllerchange', () => (newer ||= Boolean(before)))
  const look = async () => {
    const shell = await workers.getRegistration()
    await (shell?.active ? shell.update() : workers.register('/shell.js', { updateViaCache: 'none' }))
  }
  /** One that could not be fetched whole is tried again soon; what there is of it is not fetched twice. */
  const again = async () => {
    const kept = Boolean((await workers.getRegistration())?.active)
    setTimeout(
      () =>
        void look()
          .catch(() => {})
          .then(again),
      kept ? asks : soon,
    )
  }
  addEventListener('online', () => void look().catch(() => {}))
  await look().catch(() => {})
  await again()
}

const workers = (navigator as Partial<Navigator>).serviceWorker
if (workers && !here()) void keep(workers)
