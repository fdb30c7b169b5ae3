export { askForSong } from './requests/askForSong.ts';
export { assignPiece, changePiece } from './pieces/assignPiece.ts';
export { listRequests } from './requests/listRequests.ts';
export { gatherMissingFacts, searchLicks } from './licks/licks.ts';
export { changeOwnSchools, changeStudent, listStudents, showOwnSchools } from './people/students.ts';
export { changeSchools, showSchools } from './people/studioSchools.ts';
export { moveRequest } from './requests/moveRequest.ts';
export { addAlternate, addPhrase, changePhrase, choosePhrase, markPhrase } from './songs/phrases.ts';
export { referPhrase } from './songs/references.ts';
export { listRevisions } from './songs/revisions.ts';
export { listMail } from './people/outbox.ts';
export {
  acceptInvitation,
  changeNames,
  changePassword,
  changePerson,
  enterPerson,
  enterStudents,
  invite,
  listPeople,
  showWelcome,
  signOutEverywhere,
} from './people/people.ts';
export { postEntry, strikeEntry } from './pieces/postEntry.ts';
export { bringEntries, listEntries, strikeEntries } from './pieces/entries.ts';
export { beginSeries, changeSeries, listLessons, listSeries, showSeries, swapLessons } from './series/series.ts';
export { addSection, changeSection, repeatSection } from './songs/sections.ts';
export { closeCalendarFeed, openCalendarFeed, readCalendarFeed, showCalendarFeed } from './series/calendar.ts';
export { pinNote, strikePin } from './pieces/pins.ts';
export { keepPlan, showPlan } from './pieces/plans.ts';
export { showLedger } from './ledger/showLedger.ts';
export { computeAll } from './pieces/keptStandings.ts';
export { showDesk } from './desk/showDesk.ts';
export { hear, keepLessonNote, listHomeNotes, showLessonDay, strikeHearing } from './lessons/lessonDay.ts';
export { listCorrections } from './desk/corrections.ts';
export { markSeen, showCounts } from './desk/counts.ts';
export { listStruck, putBack } from './desk/struck.ts';
export { copy, previewCopy, writeLick } from './songs/copies.ts';
export { search } from './desk/search.ts';
export { reportSeries } from './series/seriesReport.ts';
export { reportStudio } from './desk/studioReport.ts';
export { earliestFor, showHours, timeWork } from './requests/requestWork.ts';
export { promiseRequest } from './requests/moveRequest.ts';
export { showEarlier, showPiece } from './pieces/showPieces.ts';
export { ownerLink } from './people/links.ts';
export { beginStudio, showBeginning } from './people/beginStudio.ts';
export { describeMe, hashPassword, signIn, contextOf, contextOfPerson } from './people/signIn.ts';
export { bringIn, strikeSections } from './songs/bringIn.ts';
export { beginSong, changeSetUp, listTranscriptions, showSheet, showTranscription } from './songs/transcriptions.ts';
export { Invalid, Forbidden, Conflict, Trouble, NotFound, WrongSignIn } from './context/errors.ts';
export { mapInSlices } from './context/slices.ts';
export { dayOf } from './context/context.ts';
export type { RequestContext } from './context/context.ts';
export { requireOwner, requireRole } from './context/permission.ts';
export type { BookKeeping } from './context/context.ts';
export { digestOf } from './context/tokens.ts';
export { isKnownDevice, knowDevice } from './people/devices.ts';
export { showBook, startBackup, startRestore, stopJob, takeBackup, takeInBackup } from './book/book.ts';
export { listBackups, makeBackup } from './book/backups.ts';
export { BookTrouble } from './book/bookTrouble.ts';
export { machineContext } from './book/machine.ts';
export {
  askErasure,
  eraseDue,
  erasedBeside,
  keepFromErasing,
  markForErasing,
  readErasedFile,
  showErasure,
  unmarkForErasing,
} from './book/erasePerson.ts';
export { backupBeforeMigrating, keepBook } from './book/keeping.ts';
export { writeMail } from './people/mailFiles.ts';
export { everythingOf, takeEverything } from './book/everything.ts';
export { openArchive } from './book/readArchive.ts';
export { restoreArchive } from './book/restoreArchive.ts';
export { showTrail, writeTrail } from './book/trail.ts';
export { writeArchive } from './book/writeArchive.ts';
export {
  answerTake,
  deleteTake,
  forgetRecording,
  giveSound,
  knowRecording,
  listTakes,
  sendTake,
  showRecording,
  takeInPart,
} from './sounds/sounds.ts';
