import { randomUUID } from 'node:crypto';
import type { Input, Plan, Role, RouteName, Series, SoundFacts, TakeBody } from '@jam-ledger/contract';
import { UNMOVED } from '@jam-ledger/core/notation';
import { NOW, PHRASE, REQUEST, SECTION, seriesOf, SET_UP, type Browser } from './studio.ts';

/** A password that is hard to guess. */
export const PASSWORD = 'lantern copper tide 42';

/** The rows of one studio that a student has, and what it takes to make more of them. */
export interface World {
  /** The file of a backup of the whole. */
  readonly backup: string;
  readonly studioId: string;
  readonly teacher: Browser;
  readonly student: Browser;
  /** Asks the database itself, past all permission. */
  readonly versionOf: (table: string, id: string) => Promise<number>;
  readonly ids: Readonly<
    Record<
      | 'student'
      | 'nobodys'
      | 'request'
      | 'song'
      | 'section'
      | 'phrase'
      | 'piece'
      | 'entry'
      | 'pin'
      | 'hearing'
      | 'series'
      | 'otherSeries'
      | 'take',
      string
    >
  >;
}

/** Who asks. */
export interface Asker {
  readonly name: string;
  readonly role: Role | undefined;
  readonly browser: Browser;
}

const today = NOW.toISOString().slice(0, 10);
let count = 0;
const next = () => (count += 1);

/** A file of sound that there is none of. */
export function soundOf(seconds: number): SoundFacts {
  return { name: 'tide.wav', type: 'audio/wav', bytes: 44, seconds, print: 'ab'.repeat(32) };
}

/** A take as a device sends it. */
export function takeOf(id: string): TakeBody {
  return { ...soundOf(3), id, playedAt: NOW.toISOString(), bpm: 78, isClean: false, came: '10 of 12 notes right' };
}

/** What is sent with each route so that it is answered, about the rows of a world. */
export const INPUTS: {
  readonly [Name in RouteName]: (world: World, asker: Asker) => Promise<Input<Name>>;
} = {
  health: nothing,
  openApi: nothing,
  me: nothing,
  signIn: (_world, { name, role }) =>
    Promise.resolve({ body: { name: role ? name : 'student here', password: PASSWORD } }),
  signOut: nothing,
  beginning: nothing,
  begin: () =>
    Promise.resolve({
      body: {
        key: 'k'.repeat(24),
        studio: 'Other',
        zone: 'Europe/Oslo',
        name: 'O',
        signInName: 'o',
        password: PASSWORD,
      },
    }),
  changeNames: (_world, { name }) => Promise.resolve({ body: { name, signInName: name, password: PASSWORD } }),
  changePassword: () => Promise.resolve({ body: { old: PASSWORD, password: PASSWORD } }),
  calendarFeed: nothing,
  openCalendarFeed: nothing,
  closeCalendarFeed: nothing,
  async readCalendarFeed({ teacher }) {
    const made = (await teacher.post('/api/calendar').expect(201)).body;
    return { token: made.path.split('/')[3] };
  },
  welcome: async (world) => ({ token: await tokenIn(world) }),
  accept: async (world) => ({
    token: await tokenIn(world),
    body: { signInName: `guest ${next()}`, password: PASSWORD },
  }),
  previewCopy: ({ ids }) =>
    Promise.resolve({ body: { kind: 'song', id: ids.song, studentId: ids.nobodys, songId: null, follows: true } }),
  copy: ({ ids }) =>
    Promise.resolve({ body: { kind: 'phrase', id: ids.phrase, studentId: ids.nobodys, songId: null, follows: false } }),
  writeLick: () => Promise.resolve({ body: { name: 'Turnaround', text: '5G 7G', key: '' } }),
  struck: ({ ids }) => Promise.resolve({ query: { studentId: ids.student } }),
  async putBack({ ids, student, versionOf }) {
    const body = { version: await versionOf('entries', ids.entry), struck: true };
    await student
      .post(`/api/entries/${ids.entry}/struck`)
      .send(body)
      .ok(() => true);
    return { body: { kind: 'result', id: ids.entry, version: await versionOf('entries', ids.entry) } };
  },
  corrections: ({ ids }) => Promise.resolve({ id: ids.song }),
  counts: nothing,
  seeList: () => Promise.resolve({ body: { list: 'home' } }),
  book: nothing,
  makeBackup: nothing,
  bringBackup: nothing,
  takeBackup: ({ backup }) => Promise.resolve({ file: backup }),
  restore: ({ backup }) => Promise.resolve({ body: { file: backup, password: 'not the one' } }),
  stopJob: nothing,
  erasure: ({ ids }) => Promise.resolve({ id: ids.nobodys }),
  async askErasure({ teacher }) {
    const body = { role: 'student', name: 'Somebody', wards: [] };
    const { id } = (await teacher.post('/api/people').send(body).expect(201)).body;
    return { id, body: { version: 1, name: 'Somebody' } };
  },
  keepFromErasing: ({ ids }) => Promise.resolve({ id: ids.nobodys }),
  everything: ({ ids }) => Promise.resolve({ query: { studentId: ids.student } }),
  trail: nothing,
  signOutEverywhere: nothing,
  people: nothing,
  entries: ({ ids }) => Promise.resolve({ query: { studentId: ids.student } }),
  bringEntries: ({ ids }) =>
    Promise.resolve({
      body: {
        studentId: ids.student,
        entries: [{ pieceId: ids.piece, day: '2026-03-01', bpm: 60 + (next() % 20), outcome: 'clean', remark: '' }],
      },
    }),
  strikeEntries: () => Promise.resolve({ body: { ids: [randomUUID()], struck: true } }),
  enterStudents: () => Promise.resolve({ body: { names: ['One', 'Two'] } }),
  enterPerson: () => Promise.resolve({ body: { role: 'student', name: 'Somebody', wards: [] } }),
  changePerson: async ({ ids, versionOf }) => ({
    id: ids.nobodys,
    body: {
      version: await versionOf('people', ids.nobodys),
      name: 'Nobody’s student',
      wards: [],
      teacherId: null,
      archived: false,
    },
  }),
  invite: ({ ids }) => Promise.resolve({ id: ids.nobodys }),
  outbox: nothing,
  requests: nothing,
  askForSong: ({ ids }, { role }) =>
    Promise.resolve({ body: role === 'student' ? REQUEST : { ...REQUEST, studentId: ids.student } }),
  beginSong: ({ ids }) => Promise.resolve({ body: { studentId: ids.student, title: 'Of their own', whose: '' } }),
  hours: nothing,
  earliest: () => Promise.resolve({ query: { parts: 1, blended: false } }),
  timeWork: ({ ids }) => Promise.resolve({ id: ids.request, body: { action: 'start' } }),
  promise: async ({ ids, versionOf }) => ({
    id: ids.request,
    body: { version: await versionOf('requests', ids.request), promisedFor: null },
  }),
  async moveRequest({ student }, { role }) {
    const { body } = await student.post('/api/requests').send(REQUEST).expect(201);
    const isStudent = role === 'student';
    return {
      id: body.id,
      body: { version: 1, state: isStudent ? 'withdrawn' : 'declined', reason: isStudent ? '' : 'no', scope: null },
    };
  },
  songRecording: ({ ids }) => Promise.resolve({ id: ids.song }),
  knowRecording: ({ ids }) => Promise.resolve({ id: ids.song, body: soundOf(next()) }),
  forgetRecording: ({ ids }) => Promise.resolve({ id: ids.song }),
  takes: ({ ids }) => Promise.resolve({ id: ids.piece }),
  sendTake: ({ ids }) => Promise.resolve({ id: ids.piece, body: takeOf(randomUUID()) }),
  answerTake: async ({ ids, versionOf }) => ({
    id: ids.take,
    body: { version: await versionOf('sounds', ids.take), answer: `Good, ${next()}.` },
  }),
  async deleteTake({ ids, student }) {
    const { id } = (await student.post(`/api/pieces/${ids.piece}/takes`).send(takeOf(randomUUID())).expect(201)).body;
    return { id };
  },
  sendPart: ({ ids }) => Promise.resolve({ id: ids.take, query: { part: 0 } }),
  sound: ({ ids }) => Promise.resolve({ id: ids.take }),
  songs: nothing,
  sheet: ({ ids }) => Promise.resolve({ id: ids.song }),
  bringIn: ({ ids }) =>
    Promise.resolve({
      id: ids.song,
      body: {
        ...{ from: 'from tune.musicxml', layer: 'lead' },
        sections: [
          { ...{ label: `${next()}I`, role: 'riff', bars: 2, times: 1 }, phrases: [{ name: 'One', text: '7G' }] },
        ],
      },
    }),
  async strikeSections({ ids, teacher }) {
    const body = { ...SECTION, label: `${next()}S`, startSeconds: 300 + next() };
    const made = (await teacher.post(`/api/transcriptions/${ids.song}/sections`).send(body).expect(201)).body;
    return { id: ids.song, body: { sections: [{ id: made.id, version: made.version }], struck: true } };
  },
  song: ({ ids }) => Promise.resolve({ id: ids.song }),
  changeSetUp: async ({ ids, versionOf }) => ({
    id: ids.song,
    body: { ...SET_UP, version: await versionOf('transcriptions', ids.song) },
  }),
  plan: ({ ids }) => Promise.resolve({ id: ids.song }),
  async keepPlan({ ids, teacher }) {
    const plan: Plan = (await teacher.get(`/api/transcriptions/${ids.song}/plan`).expect(200)).body;
    const pieces = plan.pieces.map(({ id, kind, parts, startBpm, targetBpm, floorBpm, difficulty, fixed, lesson }) => ({
      ...{ id, kind, parts, startBpm, targetBpm, floorBpm, difficulty, fixed, lesson },
    }));
    return { id: ids.song, body: { ...plan, pieces } };
  },
  addSection: ({ ids }) =>
    Promise.resolve({ id: ids.song, body: { ...SECTION, label: `${next()}B`, startSeconds: 100 + next() } }),
  sectionAgain: ({ ids }) =>
    Promise.resolve({ id: ids.section, body: { startSeconds: 200 + next(), startKnown: true } }),
  changeSection: async ({ ids, versionOf }) => ({
    id: ids.section,
    body: { ...SECTION, version: await versionOf('sections', ids.section), struck: false },
  }),
  addPhrase: ({ ids }) => Promise.resolve({ id: ids.section, body: PHRASE }),
  changePhrase: async ({ ids, versionOf }) => ({
    id: ids.phrase,
    body: { ...PHRASE, version: await versionOf('phrases', ids.phrase), struck: false },
  }),
  revisions: ({ ids }) => Promise.resolve({ id: ids.phrase }),
  markPhrase: async ({ ids, versionOf }) => ({
    id: ids.phrase,
    body: { version: await versionOf('phrases', ids.phrase), status: 'checked', against: 'the recording' },
  }),
  addAlternate: ({ ids }) => Promise.resolve({ id: ids.phrase, body: {} }),
  choosePhrase: async ({ ids, versionOf }) => ({
    id: ids.phrase,
    body: { version: await versionOf('phrases', ids.phrase) },
  }),
  referPhrase: async ({ ids, versionOf }) => ({
    id: ids.phrase,
    body: { version: await versionOf('phrases', ids.phrase), to: null, move: UNMOVED },
  }),
  async assignPiece({ ids, teacher }) {
    const { body } = await teacher.post(`/api/sections/${ids.section}/phrases`).send(PHRASE).expect(201);
    return { body: { phraseId: body.id, startBpm: 60, targetBpm: 90 } };
  },
  piece: ({ ids }) => Promise.resolve({ id: ids.piece }),
  earlierEntries: ({ ids }) => Promise.resolve({ id: ids.piece, query: { before: ids.entry } }),
  changePiece: async ({ ids, versionOf }) => ({
    id: ids.piece,
    body: {
      version: await versionOf('pieces', ids.piece),
      startBpm: 60 + (next() % 20),
      targetBpm: 120,
      given: true,
      struck: false,
    },
  }),
  postEntry: ({ ids }) =>
    Promise.resolve({ id: ids.piece, body: { id: randomUUID(), bpm: 80, outcome: 'clean', remark: '' } }),
  hear: ({ ids }) =>
    Promise.resolve({
      id: ids.piece,
      body: { id: randomUUID(), at: next(), kind: 'bend', isRight: true, remark: '' },
    }),
  pinNote: ({ ids }) =>
    Promise.resolve({ id: ids.piece, body: { id: randomUUID(), phraseId: ids.phrase, at: 0, text: 'mind this' } }),
  strikeEntry: strikeIn('entries', 'entry'),
  strikePin: strikeIn('pins', 'pin'),
  strikeHearing: strikeIn('hearings', 'hearing'),
  seriesList: ({ ids }) => Promise.resolve({ query: { studentId: ids.student } }),
  series: ({ ids }) => Promise.resolve({ id: ids.series }),
  beginSeries: ({ ids }) => Promise.resolve({ body: seriesIn(ids.student, next()) }),
  async changeSeries({ ids, teacher }) {
    const { version, title, rule, changes }: Series = (await teacher.get(`/api/series/${ids.series}`).expect(200)).body;
    const body = { ...seriesOf(ids.student, { title, changes }, rule), version, struck: false };
    return { id: ids.series, body: { ...body, goal: `goal ${next()}` } };
  },
  async swapLessons({ ids, teacher }) {
    const one: Series = (await teacher.get(`/api/series/${ids.series}`).expect(200)).body;
    const other: Series = (await teacher.get(`/api/series/${ids.otherSeries}`).expect(200)).body;
    const side = ({ id, version, lessons }: Series) => ({
      seriesId: id,
      version,
      startsAt: lessons.at(-1)?.startsAt ?? '',
    });
    return { body: { lessons: [side(one), side(other)] } };
  },
  seriesReport: ({ ids }) => Promise.resolve({ id: ids.series }),
  lessons: () => Promise.resolve({ query: { days: 7 } }),
  homeNotes: ({ ids }) => Promise.resolve({ query: { studentId: ids.student } }),
  lessonDay: ({ ids }) => Promise.resolve({ id: ids.student }),
  async keepLessonNote({ ids, teacher }) {
    const { body } = await teacher.get(`/api/lessons/of/${ids.student}`).expect(200);
    const version: number = body.note?.version ?? 0;
    return { id: ids.student, day: today, body: { version, words: 'words', home: '', assigned: [], send: false } };
  },
  desk: nothing,
  search: () => Promise.resolve({ query: { q: 'tide' } }),
  ledger: ({ ids }) => Promise.resolve({ query: { studentId: ids.student } }),
  students: nothing,
  async changeStudent({ ids, teacher, versionOf }) {
    const { body } = await teacher.get('/api/students').expect(200);
    const student = body.find(({ id }: { id: string }) => id === ids.student);
    return {
      id: ids.student,
      body: { version: await versionOf('people', ids.student), guitar: student.guitar, schools: student.schools },
    };
  },
  schools: nothing,
  changeSchools: async ({ teacher }) => ({ body: (await teacher.get('/api/studio').expect(200)).body }),
  studioReport: nothing,
  ownSchools: nothing,
  async changeOwnSchools({ teacher }, { browser, role }) {
    const isTeacher = role === 'owner' || role === 'teacher';
    return { body: (await (isTeacher ? browser : teacher).get('/api/studio/mine').expect(200)).body };
  },
  licks: nothing,
};

/** Routes whose rows are named in a body or a query, besides those with an id in the path. */
export const NAMED_ELSEWHERE: ReadonlySet<RouteName> = new Set<RouteName>([
  'assignPiece',
  'beginSeries',
  'bringEntries',
  'entries',
  'homeNotes',
  'everything',
  'ledger',
  'seriesList',
  'struck',
  'swapLessons',
]);

function nothing() {
  return Promise.resolve({});
}

async function tokenIn({ ids, teacher }: World): Promise<string> {
  const { body } = await teacher.post(`/api/people/${ids.nobodys}/invitation`).expect(201);
  return String(body.path).split('/').at(-1) ?? '';
}

function strikeIn(table: string, row: keyof World['ids']) {
  return async ({ ids, versionOf }: World) => {
    const version = await versionOf(table, ids[row]);
    return { id: ids[row], body: { version, struck: version % 2 === 1 } };
  };
}

/** A series of one lesson, each on a day of its own. */
export function seriesIn(studentId: string, number: number) {
  const firstDay = new Date(NOW.getTime() + (30 + number) * 86_400_000).toISOString().slice(0, 10);
  return seriesOf(studentId, {}, { firstDay, count: 1, time: '08:00' });
}
