import { config, mount } from '@vue/test-utils'
import { computed, defineComponent, effectScope, h, ref, type Component, type EffectScope } from 'vue'
import { afterEach, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import type { JobView } from '@/shared/api/client'
import { queryClient } from '@/shared/api/reads'
import { provideBench, type Thermometer } from '@/features/bench/useBench'
import type { Doing } from '@/features/bench/useJob'
import { vuetify } from './app/theme'
import '@/shared/ToldBar.vue' // pages fetch it later: a test that ended meanwhile would leave its loading behind

// Every component of a test stands on the same base as in the program.
const router = createRouter({
  history: createMemoryHistory(),
  routes: [{ path: '/:rest(.*)*', component: { render: () => null } }],
})
config.global.plugins = [vuetify, router]
config.global.stubs = { ToldBar: true } // it stands on the whole program's layout

// A machine that does other things beside takes longer than the second that is usual.
const { waitFor } = vi
vi.waitFor = (what, options) => waitFor(what, options ?? { timeout: 15_000 })

/** One thing that was asked of the program. */
export interface Asked {
  method: string
  path: string
  query: string
  body: unknown
}

/** A program that answers as a test says; what it was asked is written down. A number is a refusal of that status. */
export function program(answer: (asked: Asked) => unknown) {
  const asked: Asked[] = []
  vi.stubGlobal('fetch', async (request: Request) => {
    const url = new URL(request.url)
    const text = request.method === 'GET' ? '' : await request.clone().text()
    const one = {
      method: request.method,
      path: url.pathname.replace('/api/v1', ''),
      query: url.search,
      body: text.startsWith('{') || text.startsWith('[') ? (JSON.parse(text) as unknown) : text,
    }
    asked.push(one)
    const said = answer(one)
    if (said instanceof Error) throw new TypeError(said.message)
    const status = typeof said === 'number' ? said : 200
    const body = status === 200 ? said : { status, detail: `Refused with ${status}.`, errors: [] }
    const type = status === 200 ? 'application/json' : 'application/problem+json'
    return new Response(JSON.stringify(body), { status, headers: { 'Content-Type': type } })
  })
  return asked
}

const scopes: EffectScope[] = []

/** Runs a composable outside a component, for as long as the test. */
export function using<T>(composable: () => T): T {
  const scope = effectScope()
  scopes.push(scope)
  return scope.run(composable)!
}
afterEach(() => {
  scopes.splice(0).forEach((s) => s.stop())
  queryClient.clear()
})

/** Mounts a panel on a bench with a job; what it does is written down. */
export function onBench(panel: Component, job: unknown, refused = false, practice: Thermometer | null = null) {
  const done: Doing[] = []
  const left: string[] = []
  const looked: unknown[] = []
  const shown: string[] = []
  const settling = ref(false)
  const view = ref(job as JobView)
  const stand = defineComponent({
    setup(_, { expose }) {
      provideBench(view, ref([]), {
        practice: computed(() => practice),
        settling: computed(() => settling.value),
        proving: computed(() => ''),
        instead: () => shown.push('instead'),
        refused: computed(() => refused),
        act: (doing) => done.push(doing),
        leave: (valve) => left.push(valve),
        setThough: (valve) => left.push(`though ${valve}`),
        look: (plan) => looked.push(plan),
        stay: () => left.push('stay'),
      })
      const inner = ref<{ key?(k: string): boolean }>()
      expose({ key: (k: string) => inner.value?.key?.(k) ?? false })
      return () => h(panel, { ref: inner })
    },
  })
  const page = mount(stand)
  const key = (k: string) => (page.vm as unknown as { key(k: string): boolean }).key(k)
  return { page, view, done, left, looked, shown, settling, key }
}
