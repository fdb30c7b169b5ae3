export { migrate, newestMigration, openStore, within } from './database.ts';
export type { Store } from './database.ts';
export type {
  EntryModel,
  PersonModel,
  PhraseModel,
  PieceModel,
  PlanModel,
  RequestModel,
  SectionModel,
  TranscriptionModel,
} from './models.ts';
export {
  findEntries,
  findPhraseTexts,
  findPieces,
  findPins,
  findResults,
  findShown,
  findSongPhrases,
  findStudioPace,
  keepPlanned,
} from './pieces.ts';
export type { EntryRow, PieceRow, PinRow, ResultRow, SongPhraseRow } from './pieces.ts';
export { findOwn, saveVersioned } from './versioned.ts';
export type { Saved } from './versioned.ts';
export { sessionSecret, sessionStore, SignInCounts, sweepSessions } from './sessions.ts';
export {
  addPerson,
  addStudio,
  findPersonById,
  findPersonBySignIn,
  findStudents,
  findStudio,
  isEmpty,
  saveStudio,
} from './people.ts';
export { findFactless, findLicks, findPlayed, keepFacts } from './licks.ts';
export type { FactlessRow, LickFilter, LickRow } from './licks.ts';
export type { PersonRow } from './people.ts';
export { findRequestEvents, findRequests } from './requests.ts';
export type { RequestEventRow, RequestRow } from './requests.ts';
export {
  chooseAlternate,
  findAlternates,
  findPhrases,
  findReferences,
  findRevisions,
  findSections,
  findTranscriptions,
  newestRevision,
  placeOfNextPhrase,
} from './transcriptions.ts';
export type { PhraseRevisionRow, TranscriptionRow } from './transcriptions.ts';
export { findLessons, findSeries, keepLessons } from './series.ts';
export type { LessonRow, SeriesRow } from './series.ts';
