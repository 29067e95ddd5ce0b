import { clientsClaim } from 'workbox-core'
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { withNonce } from './nonce'

/*
 * The shell: the pages of one version of the program, kept whole on the tablet, so that they open when the program cannot be reached. Pages
 * are asked of the program first, so that whoever reaches it has its own; what is entered is not the shell's matter. A newer version is
 * fetched whole beside the older one and takes its place at once: an open page has all that it needs, and the next is of the newer one.
 */
interface Shell {
  skipWaiting(): Promise<void>
  addEventListener(kind: 'install', f: () => void): void
}
const shell = globalThis as unknown as Shell

/** How long the program is waited for before a page is taken from here, ms: a line may be cut without either end being told. */
const patience = 3000

/** The files of this version, written in by the build. */
declare const SHELL_FILES: { url: string; revision: string | null }[]
const index = '/index.html'

precacheAndRoute(SHELL_FILES, { directoryIndex: undefined, cleanURLs: false })
cleanupOutdatedCaches()
clientsClaim()
shell.addEventListener('install', () => void shell.skipWaiting())

registerRoute(
  new NavigationRoute(
    async ({ request }) => {
      const late = new Promise<null>((done) => setTimeout(() => done(null), patience))
      const asked = fetch(request).catch(() => null)
      const answer = await Promise.race([asked, late])
      if (answer && answer.status < 500) return answer
      const kept = await matchPrecache(index)
      return kept ? withNonce(kept, crypto.randomUUID()) : ((await asked) ?? Response.error())
    },
    { denylist: [/^\/(api|healthz)\b/] },
  ),
)
