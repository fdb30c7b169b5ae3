import { createRouter, createWebHistory, type RouteLocationRaw } from 'vue-router';
import { useSession } from './stores/index.ts';

declare module 'vue-router' {
  interface RouteMeta {
    /** Who the page is for; everybody signed in when left out. `home`: students and their guardians. */
    for?: 'anyone' | 'teacher' | 'student' | 'home';
  }
}

/** The pages, each loaded when first opened. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/sign-in', name: 'sign-in', component: () => import('./pages/SignInPage.vue'), meta: { for: 'anyone' } },
    {
      path: '/welcome/:token',
      name: 'welcome',
      component: () => import('./pages/WelcomePage.vue'),
      meta: { for: 'anyone' },
    },
    { path: '/desk', name: 'desk', component: () => import('./pages/DeskPage.vue'), meta: { for: 'teacher' } },
    { path: '/requests', name: 'requests', component: () => import('./pages/RequestsPage.vue') },
    { path: '/songs', name: 'songs', component: () => import('./pages/SongsPage.vue'), meta: { for: 'teacher' } },
    { path: '/songs/:id', name: 'song', component: () => import('./pages/SongDeskPage.vue'), meta: { for: 'teacher' } },
    {
      path: '/songs/:id/sheet',
      name: 'sheet',
      component: () => import('./pages/SheetPage.vue'),
      meta: { for: 'teacher' },
    },
    { path: '/search', name: 'search', component: () => import('./pages/SearchPage.vue'), meta: { for: 'teacher' } },
    { path: '/studio', name: 'studio', component: () => import('./pages/StudioPage.vue'), meta: { for: 'teacher' } },
    {
      path: '/studio/report',
      name: 'studio-report',
      component: () => import('./pages/StudioReportPage.vue'),
      meta: { for: 'teacher' },
    },
    { path: '/account', name: 'account', component: () => import('./pages/AccountPage.vue') },
    { path: '/home', name: 'home', component: () => import('./pages/HomePage.vue'), meta: { for: 'home' } },
    { path: '/series/:id/report', name: 'series-report', component: () => import('./pages/SeriesReportPage.vue') },
    { path: '/series', name: 'series', component: () => import('./pages/SeriesPage.vue'), meta: { for: 'teacher' } },
    { path: '/licks', name: 'licks', component: () => import('./pages/LicksPage.vue'), meta: { for: 'teacher' } },
    {
      path: '/students',
      name: 'students',
      component: () => import('./pages/StudentsPage.vue'),
      meta: { for: 'teacher' },
    },
    { path: '/ledger/:studentId?', name: 'ledger', component: () => import('./pages/LedgerPage.vue') },
    {
      path: '/lesson/:studentId?',
      name: 'lesson',
      component: () => import('./pages/LessonPage.vue'),
      meta: { for: 'teacher' },
    },
    {
      path: '/practice',
      name: 'practice',
      component: () => import('./pages/PracticeListPage.vue'),
      meta: { for: 'student' },
    },
    { path: '/practice/:id', name: 'piece', component: () => import('./pages/PracticePage.vue') },
    { path: '/practice/:id/drills', name: 'drills', component: () => import('./pages/DrillsPage.vue') },
    {
      path: '/songs/:id/pieces',
      name: 'pieces',
      component: () => import('./pages/PiecesPage.vue'),
      meta: { for: 'teacher' },
    },
    { path: '/:path(.*)*', redirect: () => home() },
  ],
});

function home(): RouteLocationRaw {
  const session = useSession();
  if (!session.me) return { name: 'sign-in' };
  return { name: session.isTeacher ? 'desk' : session.isStudent ? 'practice' : 'home' };
}

router.beforeEach(async (to) => {
  const session = useSession();
  // Nothing can be shown before it is known to whom; the frame says why, and tries again.
  if (!(await session.load())) return false;
  if (to.meta.for === 'anyone') return session.me && to.name !== 'welcome' ? home() : true;
  if (!session.me) return { name: 'sign-in', query: { to: to.fullPath } };
  if (to.meta.for === 'teacher' && !session.isTeacher) return home();
  if (to.meta.for === 'student' && !session.isStudent) return home();
  if (to.meta.for === 'home' && session.isTeacher) return home();
  return true;
});
