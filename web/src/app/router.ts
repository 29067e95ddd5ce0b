import { createRouter, createWebHistory } from 'vue-router'

export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: () => ({ top: 0 }),
  routes: [
    {
      path: '/',
      name: 'board',
      component: () => import('@/features/board/BoardPage.vue'),
      meta: { title: 'Bay board' },
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
      meta: { title: 'Bench' },
    },
    {
      path: '/jobs/:id/sheet',
      name: 'sheet',
      component: () => import('@/features/sheet/SheetPage.vue'),
      meta: { title: 'Sheet' },
    },
    { path: '/:rest(.*)*', name: 'lost', component: () => import('./LostPage.vue'), meta: { title: 'Not found' } },
  ],
})

router.afterEach((to) => {
  document.title = `${String(to.meta.title)} · Metronix`
})
