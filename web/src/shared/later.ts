import { defineAsyncComponent } from 'vue'

const told = () => import('./ToldBar.vue')

/**
 * The bar that tells what was done, of no use to a page's first view: fetched a little later, so that it is there
 * when the program cannot be reached any more.
 */
export const ToldBar = defineAsyncComponent(told)

const afterFirstView = 3000
window.addEventListener('load', () => setTimeout(() => void told().catch(() => {}), afterFirstView))
