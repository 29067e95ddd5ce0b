import type { RouteLocation, RouteLocationRaw, Router } from 'vue-router'

/** Where each router is being led to: since when somebody tapped until the page is there. Empty where nobody tapped. */
const ledTo = new WeakMap<Router, string>()
/** The address that is being rewritten, which is no change of page. */
const rewritten = new WeakMap<Router, string>()

/**
 * Knows when a change of page is under way. It is to be called before anything else that guards the router: a menu on the page lets
 * each change of page wait until the next task, and in that while the page is still there and works on.
 */
export function watchWay(router: Router) {
  const there = (to: RouteLocation) => {
    if (ledTo.get(router) === to.fullPath) ledTo.delete(router)
    if (rewritten.get(router) === to.fullPath) rewritten.delete(router)
  }
  router.beforeEach((to) => {
    if (to.fullPath !== rewritten.get(router)) ledTo.set(router, to.fullPath)
  })
  router.afterEach(there)
  router.onError((_, to) => there(to))
}

/** Rewrites the address to say what the page shows. A tap on another page that is under way goes before it. */
export async function rewrite(router: Router, to: RouteLocationRaw) {
  if (ledTo.has(router)) return
  rewritten.set(router, router.resolve(to).fullPath)
  await router.replace(to)
}
