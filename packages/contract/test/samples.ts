import type { Input, RouteName } from '../src/index.ts';

const soundFacts = { name: 'tide.flac', type: 'audio/flac', bytes: 900_000, seconds: 61.5, print: 'a'.repeat(64) };

/** An id for each thing there is. */
export const ID = '7f0c2d1e-3b4a-4c5d-8e6f-0a1b2c3d4e5f';
const OTHER = '0d9b6c5a-1f2e-4a3b-9c8d-7e6f5a4b3c2d';

type BodyOf<Name extends RouteName> = Input<Name> extends { readonly body: infer Body } ? Body : never;

/** Routes with a body, and those with a query. */
export type WithBody = { [Name in RouteName]: [BodyOf<Name>] extends [never] ? never : Name }[RouteName];
export type WithQuery = { [Name in RouteName]: 'query' extends keyof Input<Name> ? Name : never }[RouteName];

const tempos = { startBpm: 60, targetBpm: 120 };
const schools = {
  learning: 'front to back',
  raising: 'small even steps',
  hearing: 'slow first',
  picking: 'strict alternate',
  position: 'one box',
  first: 'why first',
  naming: 'numbers',
  fidelity: 'as played live',
  clean: 'eight in ten',
} as const;
const ownSchools = { ...schools, learning: null, fidelity: null };
const phrase = { name: 'Opening', text: '/8 5G', layer: 'lead', certainty: 'heard', reason: '' } as const;
const section = {
  label: '1A',
  role: 'solo',
  startSeconds: 17.5,
  startKnown: true,
  bars: 4,
  barsKnown: false,
  tuning: 'drop D',
  capo: null,
  times: 2,
  open: false,
  passes: [
    { pass: 2, change: 'louder', bars: 3 },
    { pass: 'last', change: 'softer' },
  ],
  jump: { to: ID, times: 1 },
} as const;
const series = {
  studentId: ID,
  title: 'Fridays',
  rule: {
    firstDay: '2026-03-20',
    time: '17:00',
    minutes: 45,
    everyWeeks: 1,
    weekdays: [5],
    count: 10,
    until: null,
  },
  changes: {
    skips: ['2026-03-27'],
    moves: [{ from: '2026-04-03', day: '2026-04-04', time: '10:00' }],
    extras: [{ day: '2026-04-05', time: '11:00' }],
  },
  goal: 'the recital',
  goalDay: '2026-06-01',
  instalments: [{ requestId: ID, part: 'riff', day: null, delivered: false }],
} as const;

/** A sound body of each route that has one. */
export const BODIES: { readonly [Name in WithBody]: BodyOf<Name> } = {
  signIn: { name: 'mara', password: 'ink-and-paper' },
  changePassword: { old: 'ink-and-paper', password: 'lantern copper tide' },
  changeNames: { name: 'Pia', signInName: 'pia', password: 'whatever holds' },
  begin: {
    key: 'a key that was told',
    studio: 'Loft',
    zone: 'Europe/Oslo',
    name: 'Odile',
    signInName: 'odile',
    password: 'lantern copper tide',
  },
  previewCopy: { kind: 'section', id: ID, studentId: OTHER, songId: ID, follows: true },
  copy: { kind: 'song', id: ID, studentId: OTHER, songId: null, follows: false },
  writeLick: { name: 'Turnaround', text: '5G 7G', key: 'A minor' },
  putBack: { kind: 'phrase', id: ID, version: 2 },
  seeList: { list: 'home' },
  restore: { file: 'jam-ledger-2026-03-14-100000-by-hand.zip', password: 'ink-and-paper' },
  askErasure: { version: 1, name: 'Pia' },
  accept: { signInName: 'pia', password: 'lantern copper tide' },
  bringEntries: { studentId: ID, entries: [{ pieceId: ID, day: '2026-03-01', bpm: 60, outcome: 'clean', remark: '' }] },
  strikeEntries: { ids: [ID], struck: true },
  enterStudents: { names: ['Pia', 'Ferris'] },
  enterPerson: { role: 'guardian', name: 'Signe', wards: [ID] },
  changePerson: {
    version: 1,
    name: 'Pia',
    wards: [],
    teacherId: ID,
    archived: false,
    email: 'pia@home.example',
    role: 'teacher',
  },
  changeStudent: {
    version: 1,
    guitar: { frets: 22, strings: 6, scaleLengthMm: 648, tremoloArm: true, leftHanded: false, spanFrets: 4 },
    schools: ownSchools,
  },
  changeSchools: {
    version: 1,
    name: 'Gull Loft',
    workMinutes: 300,
    zone: 'Europe/Oslo',
    holidays: [{ from: '2026-07-01', to: '2026-07-31', name: 'summer' }],
    ...schools,
  },
  changeOwnSchools: { version: 1, schools: ownSchools },
  beginSong: { studentId: ID, title: 'Slow Tide', whose: '' },
  askForSong: {
    ...{ title: 'Slow Tide', whose: '', wanted: ['solo'], notWanted: ['riff'], rendition: 'live', remarks: '' },
    ...{ guitarMeant: 'the first of two', guitar: '', wantedBy: '2026-05-01', followsId: ID },
  },
  timeWork: { action: 'seen' },
  promise: { version: 1, promisedFor: '2026-05-01' },
  moveRequest: { version: 1, state: 'agreed', reason: '', scope: 'All of it.' },
  changeSetUp: {
    ...{ title: 'Slow Tide', whose: '', tuning: 'drop D', capo: 2, key: 'Dm', secondKey: '', tempo: 96, meter: '6/8' },
    ...{
      feel: 'swing',
      changes: [{ atSeconds: 60, tempo: 100, meter: '4/4', key: 'E minor' }],
      frets: 22,
      scaleLengthMm: 648,
    },
    ...{ rig: [{ fromSeconds: 0, toSeconds: 30, note: 'neck pickup' }], songSeconds: 200, offsetCents: -12.5 },
    ...{ pitchWay: 'shift the playback', studentLayer: 'lead', tempoKnown: false, rhythm: 'by feel', version: 1 },
  },
  keepPlan: {
    ...{ version: 1, learning: 'hardest first', raising: null, targetPercent: 90 },
    rules: { cleanNeeded: 2, fallsAfter: 3, restMinutes: 5 },
    pieces: [
      {
        ...{ id: ID, kind: 'half', parts: [{ phraseId: ID, from: 0, to: 960 }], ...tempos, floorBpm: 40 },
        ...{ difficulty: 33.5, fixed: true, lesson: { day: '2026-03-20', fixed: false } },
      },
    ],
  },
  addSection: section,
  bringIn: {
    ...{ from: 'from tune.mid', layer: 'lead' },
    sections: [{ ...{ label: 'A', role: 'riff', bars: 4, times: 1 }, phrases: [{ name: 'One', text: '7G' }] }],
  },
  strikeSections: { sections: [{ id: ID, version: 1 }], struck: true },
  sectionAgain: { startSeconds: 20, startKnown: true },
  changeSection: { ...section, version: 1, struck: false },
  addPhrase: phrase,
  changePhrase: { ...phrase, version: 1, struck: true },
  markPhrase: { version: 1, status: 'checked', against: 'the recording' },
  addAlternate: { name: 'Easier', text: '5G', reason: 'one note fewer' },
  choosePhrase: { version: 1 },
  referPhrase: { version: 1, to: ID, move: { semitones: -2, strings: 0, openStays: false } },
  assignPiece: { phraseId: ID, ...tempos, floorBpm: null, difficulty: 40 },
  changePiece: { ...tempos, version: 1, given: true, struck: false },
  postEntry: {
    ...{ id: ID, bpm: 84, outcome: 'clean', remark: '', percent: 50, loop: { from: 0, to: 960 } },
    ...{ playedAt: '2026-03-14T10:00:00Z', sentAt: '2026-03-14T10:05:00Z' },
  },
  hear: { id: ID, at: 960, kind: 'bend', isRight: false, remark: 'flat' },
  pinNote: { id: ID, phraseId: OTHER, at: 0, text: 'mind this' },
  strikeEntry: { version: 1, struck: true },
  strikePin: { version: 1, struck: true },
  strikeHearing: { version: 1, struck: false },
  knowRecording: soundFacts,
  sendTake: {
    ...{ ...soundFacts, id: ID, playedAt: '2026-03-14T10:00:00.000Z', bpm: 78, isClean: true },
    came: '12 of 14 notes right',
  },
  answerTake: { version: 2, answer: 'The second bend is flat.' },
  beginSeries: series,
  changeSeries: { ...series, version: 1, struck: false },
  swapLessons: {
    lessons: [
      { seriesId: ID, version: 1, startsAt: '2026-03-20T16:00:00Z' },
      { seriesId: OTHER, version: 2, startsAt: '2026-03-21T16:00:00Z' },
    ],
  },
  keepLessonNote: {
    ...{ version: 0, words: 'Bends.', home: 'Ten minutes.', send: false },
    assigned: [{ pieceId: ID, name: 'Opening', bpm: 60 }],
  },
};

/** A sound query of each route that has one, as text. */
export const QUERIES: { readonly [Name in WithQuery]: Readonly<Record<string, string>> } = {
  sendPart: { part: '3' },
  everything: { studentId: ID },
  trail: { before: '120' },
  struck: { studentId: ID, songId: OTHER },
  entries: { studentId: ID },
  earlierEntries: { before: ID },
  earliest: { parts: '2', blended: 'false' },
  seriesList: { studentId: ID, from: '100' },
  lessons: { days: '7' },
  homeNotes: { studentId: ID },
  search: { q: 'tide' },
  ledger: { studentId: ID, until: '2026-03-14' },
  licks: {
    ...{ technique: 'pull-off', chord: 'Em', degrees: '1 b3 4', shape: '0,0 0,2 1,0', steps: '3 2 -5', words: 'blues' },
    ...{ lowestFret: '0', highestFret: '12', slowest: '60', fastest: '140', like: ID },
  },
};
