export { askForSong } from './askForSong.ts';
export { assignPiece, changePiece } from './assignPiece.ts';
export { listRequests } from './listRequests.ts';
export { gatherMissingFacts, searchLicks } from './licks.ts';
export {
  changeOwnSchools,
  changeSchools,
  changeStudent,
  listStudents,
  showOwnSchools,
  showSchools,
} from './students.ts';
export { moveRequest } from './moveRequest.ts';
export { addAlternate, addPhrase, changePhrase, choosePhrase, markPhrase } from './phrases.ts';
export { referPhrase } from './references.ts';
export { listRevisions } from './revisions.ts';
export { listMail } from './outbox.ts';
export {
  acceptInvitation,
  changePassword,
  changePerson,
  enterPerson,
  invite,
  listPeople,
  showWelcome,
} from './people.ts';
export { postEntry, strikeEntry } from './postEntry.ts';
export { beginSeries, changeSeries, listLessons, listSeries, showSeries, swapLessons } from './series.ts';
export { addSection, changeSection } from './sections.ts';
export { pinNote, strikePin } from './pins.ts';
export { keepPlan, showPlan } from './plans.ts';
export { showLedger } from './showLedger.ts';
export { computeAll } from './keptStandings.ts';
export { showDesk } from './showDesk.ts';
export { hear, keepLessonNote, listHomeNotes, showLessonDay, strikeHearing } from './lessonDay.ts';
export { search } from './search.ts';
export { reportSeries } from './seriesReport.ts';
export { reportStudio } from './studioReport.ts';
export { earliestFor, showHours, timeWork } from './requestWork.ts';
export { promiseRequest } from './moveRequest.ts';
export { showPiece } from './showPieces.ts';
export { describeMe, hashPassword, signIn, contextOf } from './signIn.ts';
export { changeSetUp, listTranscriptions, showTranscription } from './transcriptions.ts';
export { Invalid, Forbidden, Conflict, Trouble, NotFound, WrongSignIn } from './trouble.ts';
export { mapInSlices } from './slices.ts';
export { dayOf } from './visit.ts';
export type { RequestContext } from './visit.ts';
export { requireOwner, requireRole } from './permission.ts';
