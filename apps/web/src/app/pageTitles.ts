/** What pages are called, by the names of their routes. */
const TITLES: Readonly<Record<string, string>> = {
  'sign-in': 'Sign in',
  begin: 'Begin your own studio',
  welcome: 'Welcome',
  desk: 'Desk',
  requests: 'Requests',
  songs: 'Songs',
  song: 'Song',
  sheet: 'Handout',
  search: 'Search',
  studio: 'Studio',
  'studio-report': 'The studio’s report',
  book: 'Backups and trail',
  account: 'Your account',
  home: 'Lessons',
  'series-report': 'How a series goes',
  series: 'Series',
  licks: 'Licks',
  students: 'Students',
  ledger: 'Ledger',
  lesson: 'Lesson',
  practice: 'Practice',
  piece: 'Practice',
  drills: 'Drills',
  pieces: 'Pieces',
  shorthand: 'Shorthand',
  none: 'No such page',
};

/** The title of the page with a route, what it is about, and how much is new: `(3) Practice · Answer · Jam Ledger`. */
export function titleOf(name: unknown, fresh: number, about = ''): string {
  const page = typeof name === 'string' ? TITLES[name] : undefined;
  const title = page === undefined ? 'Jam Ledger' : [page, about, 'Jam Ledger'].filter(Boolean).join(' · ');
  return fresh > 0 ? `(${fresh}) ${title}` : title;
}
