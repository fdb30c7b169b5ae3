export { askForSong } from './requests/askForSong.ts';
export { assignPiece, changePiece } from './pieces/assignPiece.ts';
export { listRequests } from './requests/listRequests.ts';
export { gatherMissingFacts, searchLicks } from './licks/licks.ts';
export {
  changeOwnSchools,
  changeSchools,
  changeStudent,
  listStudents,
  showOwnSchools,
  showSchools,
} from './people/students.ts';
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
export { search } from './desk/search.ts';
export { reportSeries } from './series/seriesReport.ts';
export { reportStudio } from './desk/studioReport.ts';
export { earliestFor, showHours, timeWork } from './requests/requestWork.ts';
export { promiseRequest } from './requests/moveRequest.ts';
export { showPiece } from './pieces/showPieces.ts';
export { ownerLink } from './people/links.ts';
export { beginStudio, showBeginning } from './people/beginStudio.ts';
export { describeMe, hashPassword, signIn, contextOf } from './people/signIn.ts';
export { bringIn, strikeSections } from './songs/bringIn.ts';
export { beginSong, changeSetUp, listTranscriptions, showSheet, showTranscription } from './songs/transcriptions.ts';
export { Invalid, Forbidden, Conflict, Trouble, NotFound, WrongSignIn } from './context/errors.ts';
export { mapInSlices } from './context/slices.ts';
export { dayOf } from './context/context.ts';
export type { RequestContext } from './context/context.ts';
export { requireOwner, requireRole } from './context/permission.ts';
