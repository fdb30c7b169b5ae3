/** A thing that can be asked of the server. Ids and tokens stand in the path as `:id`. */
export interface Route {
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  /** Below `/api`. */
  readonly path: string;
}

const get = (path: string): Route => ({ method: 'GET', path });
const post = (path: string): Route => ({ method: 'POST', path });
const put = (path: string): Route => ({ method: 'PUT', path });

/** Every route of the server, by what it is for. */
export const ROUTES = {
  health: get('/health'),
  me: get('/session'),
  signIn: post('/session'),
  signOut: { method: 'DELETE', path: '/session' },
  changePassword: put('/password'),
  welcome: get('/invitations/:token'),
  accept: post('/invitations/:token'),
  people: get('/people'),
  enterPerson: post('/people'),
  changePerson: put('/people/:id'),
  invite: post('/people/:id/invitation'),
  outbox: get('/outbox'),
  requests: get('/requests'),
  askForSong: post('/requests'),
  hours: get('/requests/hours'),
  earliest: get('/requests/earliest'),
  timeWork: post('/requests/:id/work'),
  promise: post('/requests/:id/promise'),
  moveRequest: post('/requests/:id/state'),
  songs: get('/transcriptions'),
  song: get('/transcriptions/:id'),
  changeSetUp: put('/transcriptions/:id'),
  plan: get('/transcriptions/:id/plan'),
  keepPlan: put('/transcriptions/:id/plan'),
  addSection: post('/transcriptions/:id/sections'),
  changeSection: put('/sections/:id'),
  addPhrase: post('/sections/:id/phrases'),
  changePhrase: put('/phrases/:id'),
  revisions: get('/phrases/:id/revisions'),
  markPhrase: post('/phrases/:id/mark'),
  addAlternate: post('/phrases/:id/alternates'),
  choosePhrase: post('/phrases/:id/chosen'),
  referPhrase: post('/phrases/:id/reference'),
  assignPiece: post('/pieces'),
  piece: get('/pieces/:id'),
  changePiece: put('/pieces/:id'),
  postEntry: post('/pieces/:id/entries'),
  hear: post('/pieces/:id/hearings'),
  pinNote: post('/pieces/:id/pins'),
  strikeEntry: put('/entries/:id'),
  strikePin: put('/pins/:id'),
  strikeHearing: put('/hearings/:id'),
  seriesList: get('/series'),
  series: get('/series/:id'),
  beginSeries: post('/series'),
  changeSeries: put('/series/:id'),
  swapLessons: post('/series/swap'),
  seriesReport: get('/series/:id/report'),
  lessons: get('/lessons'),
  homeNotes: get('/lessons/home'),
  lessonDay: get('/lessons/of/:id'),
  keepLessonNote: put('/lessons/of/:id/:day'),
  desk: get('/desk'),
  search: get('/search'),
  ledger: get('/ledger'),
  students: get('/students'),
  changeStudent: put('/students/:id'),
  schools: get('/studio'),
  changeSchools: put('/studio'),
  studioReport: get('/studio/report'),
  ownSchools: get('/studio/mine'),
  changeOwnSchools: put('/studio/mine'),
  licks: get('/licks'),
} as const satisfies Readonly<Record<string, Route>>;

/** The name of a route. */
export type RouteName = keyof typeof ROUTES;
