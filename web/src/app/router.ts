import { createRouter, createWebHistory, START_LOCATION } from 'vue-router'
import { watchWay } from '@/shared/address'
import { readAhead, reads } from '@/shared/api/reads'
import BoardPage from '@/features/board/BoardPage.vue'
import { arrivals } from './arrival'

export const router = createRouter({
  history: createWebHistory(),
  // A first page stands at its top: to be told so would lay it out before it is put together.
  scrollBehavior: (_, from) => from !== START_LOCATION && { top: 0 },
  routes: [
    {
      path: '/',
      name: 'board',
      component: BoardPage, // the first view
      meta: { title: 'On the go' },
    },
    {
      path: '/start',
      name: 'start',
      component: () => import('@/features/start/StartPage.vue'),
      meta: { title: 'Start a job' },
    },
    {
      path: '/jobs/:id',
      name: 'bench',
      component: () => import('@/features/bench/BenchPage.vue'),
      meta: { title: 'Bench', fits: true },
    },
    {
      path: '/jobs/:id/start',
      name: 'job-start',
      component: () => import('@/features/start/StartPage.vue'),
      meta: { title: 'Correct the job' },
    },
    {
      path: '/jobs/:id/sheet',
      name: 'sheet',
      component: () => import('@/features/sheet/SheetPage.vue'),
      meta: { title: 'Sheet' },
    },
    {
      path: '/jobs/:id/steps',
      name: 'steps',
      component: () => import('@/features/around/AroundPage.vue'),
      meta: { title: 'Steps' },
    },
    {
      path: '/jobs/:id/crank',
      name: 'crank',
      component: () => import('@/features/crank/CrankPage.vue'),
      meta: { title: 'At the crank' },
    },
    {
      path: '/jobs/:id/ways',
      name: 'job-ways',
      component: () => import('@/features/ways/WaysPage.vue'),
      meta: { title: 'Sequences' },
    },
    {
      path: '/jobs/:id/tag',
      name: 'job-tag',
      component: () => import('@/features/card/TagPage.vue'),
      meta: { title: 'Tag for the key' },
    },
    {
      path: '/jobs/:id/order',
      name: 'job-order',
      component: () => import('@/features/ways/OrderPage.vue'),
      meta: { title: 'Is this order right?' },
    },
    {
      path: '/engines/:id/order',
      name: 'engine-order',
      component: () => import('@/features/ways/OrderPage.vue'),
      meta: { title: 'Is this order right?' },
    },
    {
      path: '/jobs/:id/card',
      name: 'job-card',
      component: () => import('@/features/card/CardPage.vue'),
      meta: { title: 'Windscreen card' },
    },
    {
      path: '/engines',
      name: 'engines',
      component: () => import('@/features/engines/EnginesPage.vue'),
      meta: { title: 'Engines' },
    },
    {
      path: '/engines/new',
      name: 'engine-new',
      component: () => import('@/features/engines/EditorPage.vue'),
      meta: { title: 'New engine' },
    },
    {
      path: '/engines/:id',
      name: 'engine',
      component: () => import('@/features/engines/EditorPage.vue'),
      meta: { title: 'Engine' },
    },
    {
      path: '/engines/:id/ways',
      name: 'engine-ways',
      component: () => import('@/features/ways/WaysPage.vue'),
      meta: { title: 'Sequences' },
    },
    {
      path: '/engines/:id/card',
      name: 'engine-card',
      component: () => import('@/features/card/CardPage.vue'),
      meta: { title: 'Windscreen card' },
    },
    {
      path: '/vehicles',
      name: 'vehicles',
      component: () => import('@/features/vehicles/VehiclesPage.vue'),
      meta: { title: 'Vehicles' },
    },
    {
      path: '/vehicles/:id',
      name: 'vehicle',
      component: () => import('@/features/vehicles/VehiclePage.vue'),
      meta: { title: 'Vehicle' },
    },
    {
      path: '/gauges',
      name: 'gauges',
      component: () => import('@/features/gauges/GaugesPage.vue'),
      meta: { title: 'Feelers' },
    },
    {
      path: '/sums/:sum?',
      name: 'sums',
      component: () => import('@/features/sums/SumsPage.vue'),
      meta: { title: 'Calculators' },
    },
    {
      path: '/shop',
      name: 'shop',
      component: () => import('@/features/shop/ShopPage.vue'),
      meta: { title: 'Workshop' },
    },
    {
      path: '/people',
      name: 'people',
      component: () => import('@/features/people/PeoplePage.vue'),
      meta: { title: 'People' },
    },
    {
      path: '/handbook/:page?',
      name: 'handbook',
      component: () => import('@/features/handbook/HandbookPage.vue'),
      meta: { title: 'Handbook' },
    },
    {
      path: '/practice',
      name: 'practice',
      component: () => import('@/features/practice/PracticePage.vue'),
      meta: { title: 'Practice' },
    },
    {
      path: '/practice/drills',
      name: 'practice-drills',
      component: () => import('@/features/practice/DrillPage.vue'),
      meta: { title: 'Drills' },
    },
    {
      path: '/practice/feel',
      name: 'practice-feel',
      component: () => import('@/features/practice/FeelPage.vue'),
      meta: { title: 'Your feel' },
    },
    {
      path: '/practice/leaves',
      name: 'practice-leaves',
      component: () => import('@/features/practice/RealLeavesPage.vue'),
      meta: { title: 'Your feel, with real leaves' },
    },
    {
      path: '/practice/class',
      name: 'practice-class',
      component: () => import('@/features/practice/ClassPage.vue'),
      meta: { title: 'The class' },
    },
    {
      path: '/practice/:id/acts',
      name: 'practice-acts',
      component: () => import('@/features/practice/ActsPage.vue'),
      meta: { title: 'Act by act' },
    },
    {
      path: '/practice/:id',
      name: 'practice-run',
      component: () => import('@/features/practice/RunPage.vue'),
      meta: { title: 'Practice', fits: true },
    },
    {
      path: '/practice/:id/score',
      name: 'practice-score',
      component: () => import('@/features/practice/ScorePage.vue'),
      meta: { title: 'How it was' },
    },
    {
      path: '/handed',
      name: 'handed',
      component: () => import('@/features/board/HandedPage.vue'),
      meta: { title: 'From another address' },
    },
    { path: '/:rest(.*)*', name: 'lost', component: () => import('./LostPage.vue'), meta: { title: 'Not found' } },
  ],
})

watchWay(router)
arrivals(router)

// What the first page reads first comes while its pieces do.
let first: Promise<void> | undefined
const readFirst: Record<string, (id: string) => Promise<void>> = {
  board: () => readAhead(reads.jobs()),
  bench: (id) => readAhead(reads.job(id)),
}
router.beforeEach((to, from) => {
  if (from === START_LOCATION) first = readFirst[String(to.name)]?.(String(to.params.id))
})
router.beforeResolve(() => first?.finally(() => (first = undefined)))
