import { createRouter, createWebHistory, type RouteLocationRaw } from 'vue-router';
import { useSession } from '../session/session.ts';

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
    { path: '/sign-in', name: 'sign-in', component: () => import('./SignInPage.vue'), meta: { for: 'anyone' } },
    { path: '/begin', name: 'begin', component: () => import('../people/BeginPage.vue'), meta: { for: 'anyone' } },
    {
      path: '/welcome/:token',
      name: 'welcome',
      component: () => import('../people/WelcomePage.vue'),
      meta: { for: 'anyone' },
    },
    { path: '/desk', name: 'desk', component: () => import('../desk/DeskPage.vue'), meta: { for: 'teacher' } },
    { path: '/requests', name: 'requests', component: () => import('../requests/RequestsPage.vue') },
    { path: '/songs', name: 'songs', component: () => import('../songs/SongsPage.vue'), meta: { for: 'teacher' } },
    {
      path: '/songs/:id',
      name: 'song',
      component: () => import('../songs/SongDeskPage.vue'),
      meta: { for: 'teacher' },
    },
    {
      path: '/songs/:id/sheet',
      name: 'sheet',
      component: () => import('../handouts/HandoutPage.vue'),
    },
    { path: '/search', name: 'search', component: () => import('./SearchPage.vue'), meta: { for: 'teacher' } },
    { path: '/studio', name: 'studio', component: () => import('../people/StudioPage.vue'), meta: { for: 'teacher' } },
    {
      path: '/studio/report',
      name: 'studio-report',
      component: () => import('../people/StudioReportPage.vue'),
      meta: { for: 'teacher' },
    },
    { path: '/studio/book', name: 'book', component: () => import('../book/BookPage.vue'), meta: { for: 'teacher' } },
    { path: '/account', name: 'account', component: () => import('../people/AccountPage.vue') },
    { path: '/home', name: 'home', component: () => import('../people/HomePage.vue'), meta: { for: 'home' } },
    { path: '/series/:id/report', name: 'series-report', component: () => import('../series/SeriesReportPage.vue') },
    { path: '/series', name: 'series', component: () => import('../series/SeriesPage.vue'), meta: { for: 'teacher' } },
    { path: '/licks', name: 'licks', component: () => import('../licks/LicksPage.vue'), meta: { for: 'teacher' } },
    {
      path: '/students',
      name: 'students',
      component: () => import('../people/StudentsPage.vue'),
      meta: { for: 'teacher' },
    },
    { path: '/ledger/:studentId?', name: 'ledger', component: () => import('../ledger/LedgerPage.vue') },
    {
      path: '/lesson/:studentId?',
      name: 'lesson',
      component: () => import('../lessons/LessonPage.vue'),
      meta: { for: 'teacher' },
    },
    {
      path: '/practice',
      name: 'practice',
      component: () => import('../practice/PracticeListPage.vue'),
      meta: { for: 'student' },
    },
    { path: '/practice/:id', name: 'piece', component: () => import('../practice/PracticePage.vue') },
    { path: '/practice/:id/drills', name: 'drills', component: () => import('../practice/DrillsPage.vue') },
    {
      path: '/songs/:id/pieces',
      name: 'pieces',
      component: () => import('../pieces/PiecesPage.vue'),
      meta: { for: 'teacher' },
    },
    { path: '/', redirect: () => home() },
    { path: '/:path(.*)*', name: 'none', component: () => import('./NotFoundPage.vue') },
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
  if (to.meta.for === 'anyone') return session.me && to.name !== 'welcome' && to.name !== 'begin' ? home() : true;
  if (!session.me) return { name: 'sign-in', query: { to: to.fullPath } };
  if (to.meta.for === 'teacher' && !session.isTeacher) return home();
  if (to.meta.for === 'student' && !session.isStudent) return home();
  if (to.meta.for === 'home' && session.isTeacher) return home();
  return true;
});
