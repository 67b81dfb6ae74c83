import { createRouter, createWebHistory } from 'vue-router'

import { STATIONS } from './stations/registry'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/floor' },
    { path: '/sign-in', component: () => import('./places/SignIn.vue') },
    { path: '/floor', component: () => import('./places/FloorPlace.vue') },
    { path: '/drives/:id', redirect: (to) => `/drives/${String(to.params.id)}/survey` },
    { path: '/drives/:id/jobs', component: () => import('./jobs/JobsPlace.vue') },
    { path: '/jobs/:id', component: () => import('./jobs/JobPlace.vue') },
    ...STATIONS.filter((s) => s.asks.length > 1).map((s) => ({
      path: `/drives/:id/:station(${s.key})/:ask(${s.asks.slice(1).join('|')})`,
      component: () => import('./sheet/SheetPlace.vue'),
    })),
    {
      path: `/drives/:id/:station(${STATIONS.map((s) => s.key).join('|')})`,
      component: () => import('./sheet/SheetPlace.vue'),
    },
    { path: '/bench', redirect: '/bench/tables' },
    { path: '/bench/belt', component: () => import('./places/BenchBelt.vue') },
    {
      path: '/bench/toothed',
      component: () => import('./places/BenchToothed.vue'),
      props: { family: 'synchronous', here: 'toothed' },
    },
    {
      path: '/bench/chain',
      component: () => import('./places/BenchToothed.vue'),
      props: { family: 'roller chain', here: 'chain' },
    },
    { path: '/bench/size/:ask(compare|why)?', component: () => import('./places/BenchSize.vue') },
    { path: '/bench/speeds', component: () => import('./places/BenchSpeeds.vue') },
    { path: '/bench/align', component: () => import('./places/BenchAlign.vue') },
    { path: '/bench/lists/:ask(ratings)?', component: () => import('./places/BenchLists.vue') },
    { path: '/bench/tables/:name?', component: () => import('./places/TableBook.vue') },
    { path: '/:rest(.*)*', component: () => import('./places/NotFound.vue') },
  ],
})
