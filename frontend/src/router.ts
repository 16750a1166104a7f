import { createRouter, createWebHistory } from 'vue-router';
import { useSession } from './state/session';

export const STAGES = ['intake', 'reference', 'baselines', 'network', 'terrain', 'clouds', 'checks', 'handover'] as const;

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/sign-in', component: () => import('./frame/SignIn.vue'), meta: { open: true } },
    { path: '/', component: () => import('./frame/ProjectList.vue') },
    { path: '/p/:id(\\d+)', redirect: (to) => `/p/${String(to.params.id)}/network` },
    { path: '/p/:id(\\d+)/:stage', component: () => import('./frame/ProjectFrame.vue') },
    { path: '/docs/:page(\\w+)', component: () => import('./help/DocsPage.vue'), meta: { open: true } },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});

router.beforeEach(async (to) => {
  const session = useSession();
  if (!session.known) await session.refresh();
  if (!to.meta.open && session.user === null) return { path: '/sign-in', query: { to: to.fullPath } };
  return true;
});
