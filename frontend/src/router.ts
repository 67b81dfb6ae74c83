import { createRouter, createWebHistory } from 'vue-router'

export const STATIONS = ['survey', 'speed', 'tension', 'log'] as const
export type Station = (typeof STATIONS)[number]

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/floor' },
    { path: '/sign-in', component: () => import('./places/SignIn.vue') },
    { path: '/floor', component: () => import('./places/FloorPlace.vue') },
    { path: '/drives/:id', redirect: (to) => `/drives/${String(to.params.id)}/survey` },
    { path: `/drives/:id/:station(${STATIONS.join('|')})`, component: () => import('./sheet/SheetPlace.vue') },
    { path: '/:rest(.*)*', component: () => import('./places/NotFound.vue') },
  ],
})
