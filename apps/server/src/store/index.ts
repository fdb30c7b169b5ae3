export { newestMigration, openStore, PREPARED } from './database.ts';
export { EDITIONS, fillAtEdition, migrate, MigrationRefused } from './migrate.ts';
export { openSnapshot } from './snapshot.ts';
export type { Snapshot, StudioInBook, TableShape } from './snapshot.ts';
export { columnsOfBook, emptyBook, fillRows, findStudiosInBook, numberOn, withKeysAtTheEnd } from './loading.ts';
export { countParts, eraseParts, findErased, findErasing, findOnlyGuardians, readParts } from './erasing.ts';
export type { PartCount, PersonPart } from './erasing.ts';
export { endCutJobs, findNewestJob, findTrail, seeJob, setJobAside } from './book.ts';
export type { TrailRow } from './book.ts';
export { databaseTrouble, isAway } from './trouble.ts';
export type { Store } from './database.ts';
export type {
  BookJobModel,
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
  findPhraseTexts,
  findPieces,
  findPins,
  findShown,
  findSongPhrases,
  keepPlanned,
  lockPlan,
  makeRoomInPlan,
} from './pieces.ts';
export type { PhraseTextRow, PieceRow, PinRow, SongPhraseRow } from './pieces.ts';
export { addEntry, findAround, findEntries, findResults, lockLadder } from './results.ts';
export type { EntryRow, ResultRow } from './results.ts';
export { addOnce, addRow, changeRows, countRows, findOwn, findRow, findRows, saveVersioned } from './rows.ts';
export type { Saved } from './rows.ts';
export type { Sessions } from './sessions.ts';
export { findDevice, forgetDevices, sessionSecret, sessionStore, SignInCounts, sweepSessions } from './sessions.ts';
export {
  addPerson,
  addStudio,
  endInvitations,
  endSessions,
  findHousehold,
  findInvitation,
  findMail,
  findPeople,
  findPersonById,
  findPersonBySignIn,
  findStudents,
  findStudio,
  findStudioKinds,
  findWards,
  isEmpty,
  keepWards,
  saveStudio,
  useInvitation,
} from './people.ts';
export { findFactless, findLicks, findPlayed, keepFacts } from './licks.ts';
export type { FactlessRow, LickFilter, LickRow } from './licks.ts';
export type { ListedPerson, MailRow, PersonRow } from './people.ts';
export { countUngiven, countUnheld, findRequestEvents, findRequests } from './requests.ts';
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
  positionOfNextPhrase,
} from './songs.ts';
export type { PhraseRevisionRow, TranscriptionRow } from './songs.ts';
export {
  findInstalments,
  findLessonDates,
  findLessons,
  findSeries,
  findSeriesLines,
  findTaken,
  keepLessons,
} from './series.ts';
export {
  findCalls,
  findOpening,
  findNotComputed,
  findPhraseNames,
  findStudentNotes,
  forgetStandings,
  keepComputed,
  keepStandings,
  NOTES_MS,
} from './desk.ts';
export {
  findHearings,
  findInked,
  findLessonNoteRevisions,
  findLessonNotes,
  givePieces,
  keepHearing,
} from './lessons.ts';
export type { SoundModel } from './models.ts';
export type { HearingRow, LessonNoteRow } from './lessons.ts';
export { searchAll } from './search.ts';
export { findHeldBands, findSongsOf, findWeeks } from './reports.ts';
export { endRunning, findRunning, findWork, GRACE_MINUTES, seeRunning } from './work.ts';
export type { WorkRow } from './work.ts';
export type { CallRow, KeptPieceRow, StandingToKeep, StudentNoteRow } from './desk.ts';
export type { LessonRow, SeriesRow } from './series.ts';
export { findAuthor, findStudentOf } from './owners.ts';
export { findUnwritten, markWritten } from './mail.ts';
export { findCorrections, findCounts, findStruck, seeList } from './struck.ts';
export { closeFeeds, findFeedOf, findFeedPerson } from './calendarFeeds.ts';
export { findEntriesOf, strikeEntriesOf } from './entries.ts';
export { bytesKept, dropOldSounds, dropParts, dropSound, keepPart, partsHere, readPart } from './sounds.ts';
