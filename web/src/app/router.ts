import { createRouter, createWebHistory, type Router } from 'vue-router'
import { useSession } from '../line/session.ts'

/** The pages; every stage is loaded when it is first opened. */
export function createAppRouter(): Router {
  const router = createRouter({
    history: createWebHistory(),
    // A stage is loaded when it is first opened: its place may come later than its address.
    scrollBehavior: async (to, from, saved) => {
      if (saved) return saved
      // Behind the # of a link that works once stands its token, no place on the page.
      if (to.meta.hashIsToken) return { top: 0 }
      if (to.hash !== '') return (await isThere(to.hash)) ? { el: to.hash, top: 64 } : false
      // A record that is shown is scrolled to by its stage.
      return to.path === from.path || to.query.show !== undefined ? false : { top: 0 }
    },
    routes: [
      { path: '/', redirect: '/jobs' },
      {
        path: '/sign-in',
        component: () => import('../account/SignIn.vue'),
        meta: { open: true, title: 'Sign in' },
      },
      {
        path: '/link',
        component: () => import('../account/OneLink.vue'),
        meta: { open: true, hashIsToken: true, title: 'Welcome' },
      },
      { path: '/jobs', component: () => import('../jobs/JobList.vue'), meta: { title: 'Jobs' } },
      { path: '/jobs/new', component: () => import('../jobs/NewJob.vue'), meta: { title: 'New job' } },
      {
        path: '/catalogue',
        component: () => import('../catalogue/CatalogueView.vue'),
        meta: { title: 'Catalogue' },
      },
      {
        path: '/catalogue/drafts/:draft',
        component: () => import('../catalogue/draft/DraftView.vue'),
        meta: { title: 'Draft' },
      },
      {
        path: '/house-rules',
        component: () => import('../house-rules/HouseRulesView.vue'),
        meta: { title: 'House rules' },
      },
      { path: '/people', component: () => import('../account/People.vue'), meta: { title: 'People' } },
      { path: '/account', component: () => import('../account/MyAccount.vue'), meta: { title: 'Account' } },
      { path: '/service', component: () => import('../account/Service.vue'), meta: { title: 'Service' } },
      {
        path: '/jobs/:job',
        component: () => import('../job/JobShell.vue'),
        children: [
          { path: '', redirect: { name: 'survey' } },
          {
            path: 'survey',
            name: 'survey',
            component: () => import('../stages/survey/Survey.vue'),
            meta: { title: 'Survey' },
          },
          {
            path: 'kit',
            name: 'kit',
            component: () => import('../stages/kit/Kit.vue'),
            meta: { title: 'Kit' },
          },
          {
            path: 'zones',
            name: 'zones',
            component: () => import('../stages/zones/Zones.vue'),
            meta: { title: 'Zones' },
          },
          {
            path: 'program',
            name: 'program',
            component: () => import('../stages/program/Program.vue'),
            meta: { title: 'Program' },
          },
          {
            path: 'enrol',
            name: 'enrol',
            component: () => import('../stages/enrol/Enrol.vue'),
            meta: { title: 'Enrol' },
          },
          {
            path: 'prove',
            name: 'prove',
            component: () => import('../stages/prove/Prove.vue'),
            meta: { title: 'Prove' },
          },
          {
            path: 'handover',
            name: 'handover',
            component: () => import('../stages/handover/HandOver.vue'),
            meta: { title: 'Hand over' },
          },
        ],
      },
      {
        path: '/:rest(.*)*',
        component: () => import('./NotFound.vue'),
        meta: { open: true, title: 'Not found' },
      },
    ],
  })
  router.beforeEach(async (to) => {
    if (to.meta.open) return true
    const person = await useSession().load()
    return person ? true : { path: '/sign-in', query: { then: to.fullPath } }
  })
  router.afterEach((to) => {
    document.title = typeof to.meta.title === 'string' ? `${to.meta.title} · Kapelle` : 'Kapelle'
  })
  return router
}

/** Waits up to two seconds for an element to be on the page. */
async function isThere(selector: string): Promise<boolean> {
  for (let turn = 0; turn < 40; turn++) {
    if (document.querySelector(selector)) return true
    await new Promise((done) => setTimeout(done, 50))
  }
  return false
}
