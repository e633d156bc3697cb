// Places of the app. Every one of them needs a login.
import { createRouter, createWebHistory } from 'vue-router'
import { useSessionStore } from '@/features/account/store'

export function makeRouter() {
  const router = createRouter({
    history: createWebHistory(),
    routes: [
      { path: '/', redirect: '/fish' },
      { path: '/login', component: () => import('@/features/account/pages/LoginPage.vue'), meta: { open: true } },
      { path: '/fish', component: () => import('@/features/fish/pages/FishPage.vue') },
      { path: '/rig', component: () => import('@/features/rig/pages/RigPage.vue') },
      { path: '/rig/card', component: () => import('@/features/rig/pages/CardPage.vue') },
      { path: '/rig/spread', component: () => import('@/features/rig/pages/SpreadPage.vue') },
      { path: '/locker', component: () => import('@/features/locker/pages/LockerPage.vue') },
      { path: '/plan', component: () => import('@/features/plan/pages/PlanPage.vue') },
      { path: '/waters/:id(\\d+)', component: () => import('@/features/waters/pages/WaterPage.vue') },
      { path: '/practice/sonar', component: () => import('@/features/practice/pages/SonarPage.vue') },
      { path: '/first-day', component: () => import('@/features/plan/pages/FirstDayPage.vue') },
      { path: '/review', component: () => import('@/features/review/pages/ReviewPage.vue') },
      { path: '/review/season', component: () => import('@/features/review/pages/SeasonPage.vue') },
      { path: '/account', component: () => import('@/features/account/pages/AccountPage.vue') },
      { path: '/instruments', component: () => import('@/features/instruments/pages/InstrumentsPage.vue') },
      { path: '/practice/:id([0-9a-f-]{36})', component: () => import('@/features/practice/pages/TruthPage.vue') },
      { path: '/practice/lessons/:lesson', props: true, component: () => import('@/features/practice/pages/LessonPage.vue') },
      { path: '/practice', component: () => import('@/features/practice/pages/PracticePage.vue') },
      { path: '/:rest(.*)*', redirect: '/fish' },
    ],
  })
  router.beforeEach(async (to) => {
    const session = useSessionStore()
    await session.ensure()
    if (!to.meta.open && !session.username) return { path: '/login', query: { next: to.fullPath } }
    return true
  })
  return router
}
