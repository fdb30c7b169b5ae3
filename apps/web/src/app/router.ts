import {
  createRouter,
  createWebHistory,
  START_LOCATION,
  type RouteLocationNormalized,
  type RouteLocationRaw,
  type RouterScrollBehavior,
} from 'vue-router';
import { usePage, useSession } from '../session/index.ts';

declare module 'vue-router' {
  interface RouteMeta {
    /** Who the page is for; everybody signed in when left out. `home`: students and their guardians. */
    for?: 'anyone' | 'teacher' | 'student' | 'home';
  }
}

/** What was scrolled to is waited for so long, milliseconds: a page grows while it is fetched and drawn. Our choice. */
const GROW_MS = 3000;
/** Where the page was scrolled to when it was loaded anew; the history of the browser forgets that. */
const LEFT_AT = 'jam-left-at';
window.addEventListener('pagehide', () => {
  sessionStorage.setItem(LEFT_AT, JSON.stringify({ href: window.location.href, top: window.scrollY }));
});

/** How far down the page was when it was loaded anew; nothing where it was not. */
function leftAt(): { readonly top: number } | undefined {
  const [arrival] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
  if (arrival?.type !== 'reload') return undefined;
  const left = JSON.parse(sessionStorage.getItem(LEFT_AT) ?? '{}') as { readonly href?: string; readonly top?: number };
  return left.href === window.location.href && left.top !== undefined ? { top: left.top } : undefined;
}

/** A page opens at its top; one that is gone back to, or loaded anew, where it was left. */
const scrollBehavior: RouterScrollBehavior = async (to, from, saved) => {
  const at = saved ?? (from === START_LOCATION ? leftAt() : undefined);
  if (!at) return to.path === from.path ? false : { top: 0 };
  const until = performance.now() + GROW_MS;
  const isTall = () => document.documentElement.scrollHeight >= at.top + window.innerHeight;
  const page = usePage();
  while ((page.isOpening || !isTall()) && performance.now() < until)
    await new Promise((done) => requestAnimationFrame(done));
  return at;
};

/** The pages, each loaded when first opened. */
export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior,
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
    {
      path: '/shorthand',
      name: 'shorthand',
      component: () => import('../help/ShorthandPage.vue'),
      meta: { for: 'teacher' },
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

/** What loads the code of a page. */
const codeOf = ({ matched }: RouteLocationNormalized) =>
  matched.at(-1)?.components?.['default'] as () => Promise<unknown>;

router.beforeEach(async (to, from) => {
  const session = useSession();
  const known = session.load();
  // Most who open a page are signed in: its code comes while that is asked. Where it does not come, the opening says so.
  if (from === START_LOCATION) codeOf(to)().catch(() => undefined);
  // Nothing can be shown before it is known to whom; the frame says why, and tries again.
  if (!(await known)) return false;
  if (to.meta.for === 'anyone') return session.me && to.name !== 'welcome' && to.name !== 'begin' ? home() : true;
  if (!session.me) return { name: 'sign-in', query: { to: to.fullPath } };
  if (to.meta.for === 'teacher' && !session.isTeacher) return home();
  if (to.meta.for === 'student' && !session.isStudent) return home();
  if (to.meta.for === 'home' && session.isTeacher) return home();
  return true;
});
