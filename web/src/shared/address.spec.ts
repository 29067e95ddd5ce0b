import { describe, expect, it } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { rewrite, watchWay } from './address'

/** A router on /sums/torque with a menu on the page, which lets every change of page wait a while. */
async function onTorque() {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:rest(.*)*', component: { render: () => null } }],
  })
  watchWay(router)
  await router.push('/sums/torque')
  router.beforeEach(() => new Promise((go) => setTimeout(go, 20)))
  return router
}

describe('the address of a page', () => {
  it('is rewritten, again and again', async () => {
    const router = await onTorque()
    void rewrite(router, '/sums/torque?value=1')
    await rewrite(router, '/sums/torque?value=12')
    expect(router.currentRoute.value.fullPath).toBe('/sums/torque?value=12')
    await rewrite(router, '/sums/torque?value=13')
    expect(router.currentRoute.value.fullPath).toBe('/sums/torque?value=13')
  })
  it('gives way to a tap on another page that is under way', async () => {
    const router = await onTorque()
    const going = router.push('/sums/turn')
    await new Promise((later) => setTimeout(later)) // the tap is taken, the menu still waits
    await Promise.all([going, rewrite(router, '/sums/torque?value=1')])
    expect(router.currentRoute.value.fullPath).toBe('/sums/turn')
    await rewrite(router, '/sums/turn?gap=0.4')
    expect(router.currentRoute.value.fullPath).toBe('/sums/turn?gap=0.4')
  })
  it('gives way to a tap that comes after it', async () => {
    const router = await onTorque()
    void rewrite(router, '/sums/torque?value=1')
    const going = router.push('/sums/turn')
    setTimeout(() => void rewrite(router, '/sums/torque?value=12'), 10)
    await going
    expect(router.currentRoute.value.fullPath).toBe('/sums/turn')
  })
})
