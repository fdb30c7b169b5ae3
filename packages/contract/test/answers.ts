import type {
  Answer,
  GuitarAndHand,
  Lesson,
  Phrase,
  Piece,
  RouteName,
  Schools,
  Series,
  SongBasics,
} from '../src/index.ts';
import { ID } from './samples.ts';

/** What an answer holds: one thing, or one line of its list. */
type Line<Name extends RouteName> = Answer<Name> extends readonly (infer One)[] ? One : Answer<Name>;

const OTHER = '0d9b6c5a-1f2e-4a3b-9c8d-7e6f5a4b3c2d';
const pia = { id: ID, name: 'Pia' };
const mara = { id: OTHER, name: 'Mara' };
const AT = '2026-03-14T10:00:00Z';
const DAY = '2026-03-14';

const schools: Schools = {
  ...{ learning: 'front to back', raising: 'small even steps', hearing: 'slow first', picking: 'economy' },
  ...{ position: 'one box', first: 'why first', naming: 'numbers', fidelity: 'as played live' },
  clean: 'nearly all',
};
const guitar: GuitarAndHand = {
  ...{ frets: 22, strings: 6, scaleLengthMm: 648, tremoloArm: true, leftHanded: false, spanFrets: 4 },
};
const basics: SongBasics = {
  ...{ title: 'Slow Tide', whose: '', tuning: 'drop D', capo: 2, key: 'Dm', tempo: 96, meter: '6/8', frets: 22 },
  ...{ offsetCents: -12.5, pitchWay: 'shift the playback', feel: 'swing', rhythm: 'by feel' },
};
const phrase: Phrase = {
  ...{ id: ID, version: 1, sectionId: OTHER, struck: false, status: 'checked', checkedBy: 'Mara' },
  ...{ checkedAgainst: 'the recording', checkedAt: AT, alternateOf: ID, chosen: true, refersTo: ID },
  ...{ move: { semitones: -2, strings: 0, openStays: false } },
  ...{ name: 'Opening', text: '/8 5G', layer: 'lead', certainty: 'heard', reason: '' },
};
const section: Answer<'addSection'> = {
  ...{ id: ID, version: 1, struck: false, label: '1A', role: 'solo', startSeconds: 17.5, bars: 4, times: 2 },
  ...{
    startKnown: false,
    barsKnown: true,
    tuning: 'drop D',
    capo: 2,
    open: false,
    passes: [{ pass: 'last', change: 'softer', bars: 3 }],
    jump: { to: ID, times: 1 },
  },
  phrases: [phrase],
};
const song: Answer<'song'> = {
  ...{
    ...basics,
    id: ID,
    version: 1,
    secondKey: 'F',
    scaleLengthMm: 648,
    songSeconds: 200,
    studentLayer: 'lead',
    tempoKnown: true,
  },
  changes: [{ atSeconds: 60, tempo: 100, meter: '4/4', key: 'E minor' }],
  rig: [{ fromSeconds: 0, toSeconds: 30, note: 'neck pickup' }],
  student: { ...pia, isStudent: true, guitar, schools, played: ['pull-off'], shown: [{ difficulty: 40, share: 0.8 }] },
  sections: [section],
};

const standing: Piece['standing'] = { inkBpm: 80, pencilBpm: 84, share: 0.7, by: 'ink' };
const next: Piece['next'] = { move: 'up', reason: 'Two clean takes.', bpm: 88, percent: 100 };
const mastery: Piece['mastery'] = { state: 'building', reason: 'On its way.', heldSince: DAY };
const due: Piece['due'] = { recall: 0.9, day: DAY, lastDay: DAY, intervalDays: 3, stabilityDays: 4 };
const expected: Piece['expected'] = {
  ...{ early: DAY, middle: DAY, late: DAY, wanted: { day: DAY, chance: 0.5 } },
};
const entry: Piece['entries'][number] = {
  ...{ id: ID, version: 1, bpm: 84, outcome: 'clean', medium: 'pencil', percent: 50, loop: { from: 0, to: 960 } },
  ...{ counts: false, remark: '', postedAt: AT, day: DAY, postedBy: pia, struck: false },
};
const earlier: Piece['before'][number] = { day: DAY, bpm: 80, outcome: 'clean', medium: 'ink', percent: 100 };
const piece: Piece = {
  ...{ id: ID, version: 1, struck: false, kind: 'half', student: pia, song: { ...basics, id: OTHER } },
  section: { id: ID, label: '1A', role: 'solo' },
  phrase: { id: ID, name: 'Opening', text: '/8 5G' },
  parts: [{ name: 'Opening', at: 0, length: 960, phraseId: ID, from: 0, to: 960 }],
  hand: { leftHanded: false, spanFrets: 4, scaleLengthMm: 648 },
  ...{ startBpm: 60, targetBpm: 120, floorBpm: 40, assignedOn: DAY, raising: 'small even steps' },
  ...{ hearing: 'slow first', naming: 'letters', fidelity: 'note for note', clean: 'nine in ten' },
  rules: { cleanNeeded: 2, fallsAfter: 3, restMinutes: 5 },
  rungs: [{ bpm: 60, percent: 100 }],
  entries: [entry],
  ...{ hasEarlier: true, before: [earlier] },
  pins: [
    { id: ID, version: 1, phraseId: ID, at: 960, text: 'mind this', by: { ...mara, teaches: true }, pinnedAt: AT },
  ],
  ...{ standing, next, around: { canSplit: true, join: OTHER }, mastery, due, expected },
};
const ledgerPiece: Answer<'lessonDay'>['pieces'][number] = {
  ...{ id: ID, version: 1, kind: 'phrase', startBpm: 60, targetBpm: 120, assignedOn: DAY, standing, next, mastery },
  ...{ due, expected, section: { id: ID, label: '1A', role: 'solo' }, song: { id: ID, title: 'Slow Tide' } },
  ...{ phrase: { id: ID, name: 'Opening' }, lastDay: DAY },
  last: { bpm: 84, outcome: 'not-yet', medium: 'ink' },
  since: { before: 80, since: 84, results: 3, misses: 1 },
};
const ledgerRow: Answer<'ledger'>['pieces'][number] = {
  ...ledgerPiece,
  cells: [{ day: DAY, bpm: 84, outcome: 'not-yet', medium: 'ink', percent: 100, results: 2 }],
};
const ledgerSong: Answer<'ledger'>['songs'][number] = {
  ...{ id: ID, title: 'Slow Tide', bars: 24, held: 0.2, full: 0.4, at80: 0.6, at60: 0.8 },
};
const ledger: Answer<'ledger'> = {
  ...{ student: pia, today: DAY, days: [DAY], lessons: [DAY], earlier: DAY, lastLesson: DAY },
  ...{ songs: [ledgerSong], pieces: [ledgerRow] },
};

const backup: Answer<'bringBackup'> = {
  ...{ file: 'one.zip', bytes: 9000, madeAt: AT, why: 'by hand', studios: ['Gull Loft'], rows: 200 },
  trouble: 'It was cut.',
};

const series: Series = {
  ...{ id: ID, version: 1, struck: false, student: pia, teacher: mara, studentId: ID, title: 'Fridays' },
  lessons: [{ day: DAY, time: '17:00', startsAt: AT, endsAt: AT, why: 'moved' }],
  closed: [{ day: DAY, name: 'summer' }],
  rule: {
    ...{ firstDay: DAY, time: '17:00', minutes: 45, everyWeeks: 1, weekdays: [5], count: 10, until: DAY },
  },
  changes: { skips: [DAY], moves: [{ from: DAY, day: DAY, time: '10:00' }], extras: [{ day: DAY, time: '11:00' }] },
  ...{ goal: 'the recital', goalDay: DAY },
  instalments: [{ requestId: ID, part: 'riff', day: DAY, delivered: false }],
};
const lesson: Lesson = {
  ...{ id: ID, series: { id: ID, title: 'Fridays' }, student: pia, day: DAY, time: '17:00', minutes: 45 },
  ...{ why: 'rule', number: 3, of: 10 },
};
const assigned = [{ pieceId: ID, name: 'Opening', bpm: 60 }];
const noteText = { words: 'Bends.', home: 'Ten minutes.', assigned, writtenBy: 'Mara', writtenAt: AT };
const note = { ...noteText, version: 1, day: DAY, isOpen: true, before: [noteText] };
const homeNote = { day: DAY, student: pia, home: 'Ten minutes.', assigned, writtenBy: 'Mara' };
const hearing: Answer<'hear'> = {
  ...{ id: ID, version: 1, pieceId: ID, at: 960, kind: 'bend', isRight: false, remark: 'flat' },
};

const estimate = { minutes: 60, low: 40, high: 90, from: 4 };
const request: Answer<'askForSong'> = {
  ...{ id: ID, version: 1, state: 'agreed', scope: 'All of it.', promisedFor: DAY, student: pia, askedAt: AT },
  ...{ transcriptionId: ID, part: 1, title: 'Slow Tide', whose: '', wanted: ['solo'], notWanted: ['riff'] },
  ...{ rendition: 'live', guitarMeant: 'the first of two', guitar: '', wantedBy: DAY, remarks: '', followsId: ID },
  history: [{ at: AT, by: 'Mara', state: 'agreed', note: '' }],
};
const hours: Answer<'hours'> = {
  works: [
    {
      ...{ id: ID, title: 'Slow Tide', minutesLeft: 30, due: DAY, instalments: [DAY], state: 'in work', student: pia },
      ...{ fidelity: 'note for note', estimate, spentMinutes: 20 },
    },
  ],
  ...{ workMinutes: 300, running: { requestId: ID, since: AT } },
};
const person: Answer<'enterPerson'> = {
  ...{ id: ID, version: 1, name: 'Signe', role: 'guardian', signsIn: true, invitedUntil: AT, archived: false },
  ...{ wards: [pia], teacher: mara, lessonsToCome: 2, email: 'pia@home.example', eraseOn: DAY },
};
const plan: Answer<'plan'> = {
  ...{ version: 1, learning: 'hardest first', raising: 'small even steps', targetPercent: 90 },
  rules: { cleanNeeded: 2, fallsAfter: 3, restMinutes: 5 },
  pieces: [
    {
      ...{ id: ID, version: 1, kind: 'half', parts: [{ phraseId: ID, from: 0, to: 960 }], startBpm: 60 },
      ...{ targetBpm: 120, floorBpm: 40, difficulty: 33.5, fixed: true, lesson: { day: DAY, fixed: false } },
      ...{ name: 'Opening', assignedOn: DAY, state: 'held', share: 1, stuck: false, reason: '' },
    },
  ],
};
const desk: Answer<'desk'> = {
  ...{ today: DAY, lessons: [{ ...lesson, opensWith: { kind: 'hear again', name: 'Opening', why: 'due' } }] },
  requests: [
    { id: ID, title: 'Slow Tide', student: pia, state: 'agreed', due: DAY, isAtRisk: true, why: 'no hours left' },
  ],
  calls: [{ piece: pia, section: '1A', song: 'Slow Tide', student: pia, kind: 'stuck', why: 'since a week' }],
  ...{ calling: 1, notes: [{ id: ID, student: pia, piece: pia, song: 'Slow Tide', text: 'mind this', at: AT }] },
};
const seriesReport: Answer<'seriesReport'> = {
  ...{ series, today: DAY, songs: [ledgerSong], days: [{ day: DAY, ink: 0.4, all: 0.5 }], notes: [homeNote] },
  pieces: [
    {
      ...{ id: ID, name: 'Opening', song: 'Slow Tide', kind: 'join', targetBpm: 120, inkBpm: 80, pencilBpm: 84 },
      ...{ share: 0.7, state: 'building', next: 'On.', assignedOn: DAY },
      expected: { early: DAY, middle: DAY, late: DAY },
    },
  ],
  readiness: { by: DAY, chance: 0.6, pieces: 3, ready: 1, holdingBack: [{ name: 'Opening', chance: 0.4 }] },
  instalments: [{ title: 'Slow Tide', part: 'riff', day: DAY, delivered: false }],
};
const studioReport: Answer<'studioReport'> = {
  ...{ today: DAY, onePart: estimate, workMinutes: 300 },
  work: [{ requestId: ID, title: 'Slow Tide', student: 'Pia', minutes: 50, estimate }],
  held: [{ from: 0, to: 20, pieces: 4, held: 2, medianDays: 12 }],
  weeks: [{ from: DAY, lessons: 4, lessonMinutes: 180, workMinutes: 200 }],
};
const lick: Answer<'licks'>['licks'][number] = {
  ...{ phraseId: ID, name: 'Opening', text: '/8 5G', section: '1A', student: 'Pia', bpm: 96, techniques: ['pull-off'] },
  song: { id: ID, title: 'Slow Tide', tuning: 'drop D', capo: 2, key: 'Dm', meter: '6/8' },
  ...{ chords: ['Dm'], lowestFret: 5, highestFret: 9, likeness: 'the same steps' },
};
const me: Answer<'signIn'> = {
  ...{
    id: ID,
    name: 'Pia',
    signInName: 'pia',
    role: 'student',
    taught: { naming: 'letters', fidelity: 'note for note' },
    wards: [pia],
  },
  studio: {
    name: 'The studio',
    demo: true,
    zone: 'Europe/Oslo',
    today: DAY,
    holidays: [{ from: DAY, to: DAY, name: 'summer' }],
  },
};
const studio: Answer<'schools'> = {
  ...{
    ...schools,
    version: 1,
    name: 'Loft',
    workMinutes: 300,
    zone: 'Europe/Oslo',
    holidays: [{ from: DAY, to: DAY, name: 'x' }],
  },
};
const ownSchools: Answer<'ownSchools'> = { version: 1, schools: { ...schools, learning: null } };

const sound: Answer<'sendPart'> = {
  ...{
    id: ID,
    version: 1,
    name: 'tide.flac',
    type: 'audio/flac',
    bytes: 900_000,
    seconds: 61.5,
    print: 'a'.repeat(64),
  },
  ...{ parts: 2, isKept: true },
};

/** An answer of each kind there is, with everything in it that there can be. */
export const ANSWERS = {
  book: {
    ...{ hasFolder: true, everyHours: 24, keep: 14, backups: [backup] },
    job: { id: ID, kind: 'backup', state: 'running', done: 10, total: 200, says: '' },
    erasing: [{ id: ID, name: 'Pia', on: DAY }],
  },
  previewCopy: {
    ...{ title: 'Slow Tide', tuning: 'standard' },
    phrases: [{ name: 'Opening', section: '1A solo', before: '5G', after: '7D', changes: ['Moved.'], left: ['Wide.'] }],
  },
  writeLick: { songId: ID, phraseId: OTHER },
  struck: { kind: 'note', id: ID, version: 2, name: 'mind this', place: 'Opening', at: AT, mayPutBack: true },
  corrections: {
    ...{ id: ID, at: AT, by: 'Mara', kind: 'section', field: 'start', name: '1A', was: '0:17', became: '0:18' },
  },
  songRecording: { recording: sound },
  sendPart: sound,
  takes: {
    ...{ ...sound, pieceId: OTHER, by: 'Pia', playedAt: AT, bpm: 78.5, isClean: true, came: 'clean', answer: 'Good.' },
    goesOn: DAY,
  },
  counts: { desk: 1, requests: 2, practice: 3, home: 4 },
  bringBackup: backup,
  erasure: {
    ...{ id: ID, version: 1, name: 'Pia', on: DAY, waitDays: 7, guardians: ['Signe'] },
    counts: [{ table: 'entries', rows: 40 }],
  },
  trail: { lines: [{ line: 3, at: AT, by: 'Odile', act: 'invited', about: 'Pia', detail: '' }], more: false },
  health: { database: 'up', migration: '013' },
  me,
  beginning: { open: true, demo: false },
  begin: me,
  changeNames: me,
  welcome: { name: 'Pia', studio: 'The studio', role: 'student', signInName: 'pia' },
  people: person,
  changePerson: { person, ended: ['Fridays'] },
  invite: { path: '/welcome/x', expiresAt: AT },
  outbox: { id: ID, to: 'Pia', subject: 'Moved', body: 'It is on Friday.', at: AT },
  students: { ...pia, version: 1, guitar, schools: { ...schools, learning: null } },
  schools: studio,
  ownSchools,
  studioReport,
  requests: request,
  hours,
  earliest: { day: DAY },
  songs: { id: ID, title: 'Slow Tide', whose: '', student: pia, phrases: 12 },
  beginSong: song,
  song,
  entries: {
    ...{ id: ID, day: DAY, song: 'Slow Tide', section: '1A', piece: 'Answer', bpm: 60, outcome: 'clean' },
    ...{ medium: 'ink', percent: 100, remark: '', postedBy: 'Mara' },
  },
  bringEntries: { ids: [ID] },
  calendarFeed: { madeAt: AT },
  openCalendarFeed: { path: '/api/calendar/x/lessons.ics' },
  plan,
  addSection: section,
  addPhrase: phrase,
  revisions: { id: ID, at: AT, by: 'Mara', text: '/8 5G' },
  licks: { total: 1, licks: [lick] },
  piece,
  earlierEntries: { entries: [entry], hasEarlier: true },
  postEntry: {
    ...{ id: ID, version: 1, standing, next, around: { canSplit: true, join: OTHER }, mastery, due, expected, entry },
  },
  hear: hearing,
  ledger,
  seriesList: {
    total: 1,
    series: [{ id: ID, title: 'Fridays', student: pia, teacher: mara, lessons: 9, next: { day: DAY, time: '17:00' } }],
  },
  series,
  seriesReport,
  lessons: lesson,
  homeNotes: homeNote,
  lessonDay: {
    ...{ day: DAY, lesson, next: lesson, student: pia, hearings: [hearing], note, last: note },
    ...{ pieces: [ledgerPiece], planned: [ledgerPiece] },
    inked: [{ entryId: ID, pieceId: ID, bpm: 84, outcome: 'clean', percent: 100 }],
  },
  keepLessonNote: note,
  desk,
  search: { kind: 'song', id: ID, text: 'Slow Tide', where: 'for Pia', studentId: ID, songId: ID },
} as const satisfies { readonly [Name in RouteName]?: Line<Name> };
