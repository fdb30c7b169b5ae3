import type { AssignedTempo, Instalment, KeptStanding, SectionBody, SetUp } from '@jam-ledger/contract';
import type { Excerpt } from '@jam-ledger/core/pieces';
import type { Holiday, LessonChanges, LessonRule } from '@jam-ledger/core/series';
import {
  day,
  flag,
  json,
  moment,
  orNull,
  ownId,
  real,
  row,
  small,
  text,
  uuid,
  version,
  whole,
  withDefault,
  words,
} from './columns.ts';

/** The columns of `studios`. */
export const STUDIOS = {
  id: ownId(),
  version: version(),
  name: text(),
  zone: text(),
  /** Whether it is the made-up studio that an empty book is given. */
  demo: withDefault(flag(), false),
  picking: withDefault(text(), 'the player’s choice'),
  position: withDefault(text(), 'as recorded'),
  first: withDefault(text(), 'where first'),
  hearing: withDefault(text(), 'full speed first'),
  learning: withDefault(text(), 'front to back'),
  raising: withDefault(text(), 'small even steps'),
  naming: withDefault(text(), 'letters'),
  fidelity: withDefault(text(), 'note for note'),
  clean: withDefault(text(), 'nine in ten'),
  /** For transcribing, in a week. */
  workMinutes: withDefault(whole(), 300),
  holidays: withDefault(json<readonly Holiday[]>(), []),
} as const;

/** The columns of `people`. */
export const PEOPLE = {
  ...row(),
  role: text(),
  name: text(),
  /** Null until they accept an invitation. */
  signInName: orNull(text()),
  passwordHash: orNull(text()),
  /** When they left; null while they are here. */
  archivedAt: orNull(moment()),
  /** Where mail to them goes; null where nobody said. */
  email: orNull(text()),
  /** The day on which they are erased; null where nobody asked for it. */
  eraseOn: orNull(day()),
  teacherId: orNull(uuid()),
  frets: withDefault(whole(), 22),
  strings: withDefault(whole(), 6),
  scaleLengthMm: withDefault(real(), 648),
  tremoloArm: withDefault(flag(), false),
  leftHanded: withDefault(flag(), false),
  spanFrets: orNull(whole()),
  picking: orNull(text()),
  position: orNull(text()),
  first: orNull(text()),
  hearing: orNull(text()),
  learning: orNull(text()),
  raising: orNull(text()),
  naming: orNull(text()),
  fidelity: orNull(text()),
  clean: orNull(text()),
} as const;

/** A student whose pages a guardian reads. */
export const GUARDIANS = {
  ...row(),
  guardianId: uuid(),
  studentId: uuid(),
} as const;

/** A link that lets somebody choose a name and a password, once. */
export const INVITATIONS = {
  ...row(),
  personId: uuid(),
  madeBy: uuid(),
  tokenHash: text(),
  expiresAt: moment(),
  usedAt: orNull(moment()),
} as const;

/** A secret address by which a calendar asks for somebody’s lessons. */
export const CALENDAR_FEEDS = {
  ...row(),
  personId: uuid(),
  tokenHash: text(),
  madeAt: moment(),
  closedAt: orNull(moment()),
} as const;

/** A message that would be sent. */
export const OUTBOX = {
  ...row(),
  personId: uuid(),
  subject: text(),
  body: text(),
  madeAt: moment(),
  /** Whom it is about, besides whom it is to. */
  aboutId: orNull(uuid()),
  /** When it was written as a file for a mail system; null where it was not. */
  writtenAt: orNull(moment()),
} as const;

/** Something that was done: by whom and to whom, by their ids alone. */
export const TRAIL = {
  ...row(),
  at: moment(),
  personId: orNull(uuid()),
  act: text(),
  aboutId: orNull(uuid()),
  detail: withDefault(text(), ''),
} as const;

/** A device that somebody has signed in on, by a digest of what its browser keeps. */
export const DEVICES = {
  ...row(),
  personId: uuid(),
  tokenHash: text(),
  firstAt: moment(),
} as const;

/** What a row was before it was corrected. */
export const CORRECTIONS = {
  ...row(),
  at: moment(),
  personId: uuid(),
  kind: text(),
  rowId: uuid(),
  field: text(),
  was: text(),
  became: text(),
} as const;

/** Work on the whole book. */
export const BOOK_JOBS = {
  ...row(),
  kind: text(),
  state: withDefault(text(), 'running'),
  done: withDefault(whole(), 0),
  total: withDefault(whole(), 0),
  says: withDefault(text(), ''),
  startedAt: moment(),
  /** The last sign of life. */
  seenAt: moment(),
} as const;

/** The columns of `requests`. */
export const REQUESTS = {
  ...row(),
  studentId: uuid(),
  title: text(),
  whose: text(),
  wanted: json<readonly string[]>(),
  notWanted: json<readonly string[]>(),
  rendition: text(),
  guitarMeant: text(),
  guitar: text(),
  scope: withDefault(text(), ''),
  followsId: orNull(uuid()),
  wantedBy: orNull(day()),
  remarks: text(),
  state: withDefault(text(), 'asked'),
  askedAt: moment(),
  /** The day it was promised for; null where none was. */
  promisedFor: orNull(day()),
} as const;

/** The columns of `request_events`. */
export const REQUEST_EVENTS = {
  ...row(),
  requestId: uuid(),
  at: moment(),
  personId: uuid(),
  state: text(),
  note: text(),
} as const;

/** The columns of `transcriptions`. */
export const TRANSCRIPTIONS = {
  ...row(),
  studentId: uuid(),
  /** Null for a song that nobody asked for. */
  requestId: orNull(uuid()),
  title: text(),
  whose: text(),
  tuning: text(),
  capo: whole(),
  key: text(),
  tempo: real(),
  tempoKnown: withDefault(flag(), true),
  rhythm: withDefault(text(), 'counted'),
  meter: text(),
  frets: whole(),
  offsetCents: real(),
  secondKey: withDefault(text(), ''),
  feel: withDefault(text(), 'straight'),
  changes: withDefault(json<SetUp['changes']>(), []),
  rig: withDefault(json<SetUp['rig']>(), []),
  scaleLengthMm: withDefault(real(), 648),
  songSeconds: orNull(real()),
  pitchWay: withDefault(text(), 'tune the guitar'),
  studentLayer: withDefault(text(), 'lead'),
} as const;

/** The columns of `sections`. */
export const SECTIONS = {
  ...row(),
  transcriptionId: uuid(),
  label: text(),
  role: text(),
  startSeconds: real(),
  startKnown: withDefault(flag(), true),
  bars: whole(),
  barsKnown: withDefault(flag(), true),
  tuning: orNull(text()),
  capo: orNull(whole()),
  times: whole(),
  open: flag(),
  passes: json<SectionBody['passes']>(),
  jump: orNull(json<SectionBody['jump']>()),
  struck: withDefault(flag(), false),
} as const;

/** The columns of `phrases`. */
export const PHRASES = {
  ...row(),
  sectionId: uuid(),
  position: whole(),
  name: text(),
  text: text(),
  layer: text(),
  certainty: text(),
  reason: text(),
  status: withDefault(text(), 'draft'),
  checkedBy: withDefault(text(), ''),
  checkedAgainst: withDefault(text(), ''),
  checkedAt: orNull(moment()),
  alternateOf: orNull(uuid()),
  chosen: withDefault(flag(), true),
  refersTo: orNull(uuid()),
  movedSemitones: withDefault(whole(), 0),
  movedStrings: withDefault(whole(), 0),
  openStays: withDefault(flag(), false),
  struck: withDefault(flag(), false),
} as const;

/** The columns of `phrase_revisions`. */
export const PHRASE_REVISIONS = {
  ...row(),
  phraseId: uuid(),
  personId: uuid(),
  at: moment(),
  text: text(),
} as const;

/** What a phrase can be found by; its id is the phrase’s. */
export const PHRASE_FACTS = {
  ...row(),
  techniques: words(),
  chords: words(),
  degrees: text(),
  shape: text(),
  steps: text(),
  grams: words(),
  lowestFret: whole(),
  highestFret: whole(),
  bpm: real(),
  bars: real(),
} as const;

/** The columns of `pieces`. */
export const PIECES = {
  ...row(),
  studentId: uuid(),
  phraseId: uuid(),
  startBpm: whole(),
  targetBpm: whole(),
  /** The day it was given; null while it is planned. */
  assignedOn: orNull(day()),
  songId: uuid(),
  kind: withDefault(text(), 'phrase'),
  parts: json<readonly Excerpt[]>(),
  cut: text(),
  position: withDefault(whole(), 0),
  fixed: withDefault(flag(), false),
  floorBpm: orNull(whole()),
  difficulty: orNull(real()),
  learningRate: orNull(real()),
  /** Where it stands, as far as the desk and a lesson ask; null until it is computed anew. */
  kept: orNull(json<KeptStanding>()),
  /** How urgently it calls for the teacher, 0 first; null where it does not. */
  call: orNull(small()),
  /** The lesson it is to be begun in, and whether a teacher chose that by hand. */
  lessonDay: orNull(day()),
  lessonFixed: withDefault(flag(), false),
  struck: withDefault(flag(), false),
} as const;

/** The columns of `entries`. */
export const ENTRIES = {
  ...row(),
  pieceId: uuid(),
  postedBy: uuid(),
  bpm: whole(),
  outcome: text(),
  medium: text(),
  percent: withDefault(whole(), 100),
  /** The stretch of the piece it was played on, ticks as played; null for all of it. */
  loopFrom: orNull(whole()),
  loopTo: orNull(whole()),
  /** The piece whose ladder it moves; null for none. */
  countsFor: orNull(uuid()),
  remark: text(),
  postedAt: moment(),
  struck: withDefault(flag(), false),
} as const;

/** How the pieces of a song are learned; its id is the song’s. */
export const PLANS = {
  ...row(),
  learning: orNull(text()),
  raising: orNull(text()),
  targetPercent: withDefault(whole(), 100),
  cleanNeeded: withDefault(whole(), 2),
  fallsAfter: withDefault(whole(), 2),
  restMinutes: withDefault(whole(), 10),
} as const;

/** A note at an event of a phrase, ticks as played. */
export const PINS = {
  ...row(),
  phraseId: uuid(),
  personId: uuid(),
  at: whole(),
  text: text(),
  pinnedAt: moment(),
  struck: withDefault(flag(), false),
} as const;

/** Lessons of a student by a rule. */
export const SERIES = {
  ...row(),
  studentId: uuid(),
  teacherId: uuid(),
  title: text(),
  rule: json<LessonRule>(),
  changes: json<LessonChanges>(),
  goal: text(),
  goalDay: orNull(day()),
  instalments: withDefault(json<readonly Instalment[]>(), []),
  struck: withDefault(flag(), false),
} as const;

/** What a lesson came to: words for the studio, what goes home, what is assigned. */
export const LESSON_NOTES = {
  ...row(),
  studentId: uuid(),
  day: day(),
  words: text(),
  home: text(),
  assigned: json<readonly AssignedTempo[]>(),
  writtenBy: uuid(),
  writtenAt: moment(),
} as const;

/** What such a note was before. */
export const LESSON_NOTE_REVISIONS = {
  ...row(),
  noteId: uuid(),
  words: text(),
  home: text(),
  assigned: json<readonly AssignedTempo[]>(),
  writtenBy: uuid(),
  writtenAt: moment(),
} as const;

/** A point of a phrase that was inspected in a lesson, ticks as played. */
export const HEARINGS = {
  ...row(),
  pieceId: uuid(),
  day: day(),
  at: whole(),
  kind: text(),
  isRight: flag(),
  remark: text(),
  personId: uuid(),
  struck: withDefault(flag(), false),
} as const;

/** A stretch of work on a request. */
export const WORK_SPANS = {
  ...row(),
  requestId: uuid(),
  personId: uuid(),
  startedAt: moment(),
  /** The last sign of life. */
  seenAt: moment(),
  endedAt: orNull(moment()),
} as const;

/** The columns of `sounds`: recordings of songs and takes of pieces. */
export const SOUNDS = {
  ...row(),
  kind: text(),
  /** The student whose song or piece it is, and who brought it. */
  studentId: uuid(),
  personId: uuid(),
  songId: orNull(uuid()),
  pieceId: orNull(uuid()),
  name: text(),
  type: text(),
  bytes: whole(),
  seconds: real(),
  print: text(),
  madeAt: moment(),
  playedAt: orNull(moment()),
  bpm: orNull(real()),
  isClean: withDefault(flag(), false),
  came: withDefault(text(), ''),
  answer: withDefault(text(), ''),
  /** The day on which it goes; null for never. */
  goesOn: orNull(day()),
} as const;
