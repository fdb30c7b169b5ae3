import type { Answer, Given, RouteName, ROUTES } from '@jam-ledger/contract';
import * as studio from '../studio/index.ts';
import type { RequestContext } from '../studio/index.ts';
import { openApi } from './openApi.ts';

/** Routes that are open to whoever is not signed in; they have handlers of their own. */
export type OpenRoute = {
  [Name in RouteName]: (typeof ROUTES)[Name]['who'] extends 'anybody' ? Name : never;
}[RouteName];

/** Answers a route for somebody who may ask it, with what was given and is sound. */
export type Handler<Name extends RouteName> = (context: RequestContext, given: Given<Name>) => Promise<Answer<Name>>;

/** What answers each route, but those that are open; a route without one, or one without a route, does not compile. */
export const HANDLERS: { readonly [Name in Exclude<RouteName, OpenRoute>]: Handler<Name> } = {
  openApi: () => Promise.resolve(openApi()),
  me: studio.describeMe,
  changePassword: (context, { body }) => studio.changePassword(context, body),
  people: studio.listPeople,
  enterPerson: (context, { body }) => studio.enterPerson(context, body),
  enterStudents: (context, { body }) => studio.enterStudents(context, body),
  changePerson: (context, { id, body }) => studio.changePerson(context, id, body),
  invite: (context, { id }) => studio.invite(context, id),
  outbox: studio.listMail,
  requests: studio.listRequests,
  askForSong: (context, { body }) => studio.askForSong(context, body),
  hours: studio.showHours,
  earliest: (context, { query }) => studio.earliestFor(context, query),
  timeWork: (context, { id, body }) => studio.timeWork(context, id, body),
  promise: (context, { id, body }) => studio.promiseRequest(context, id, body),
  moveRequest: (context, { id, body }) => studio.moveRequest(context, id, body),
  songs: studio.listTranscriptions,
  song: (context, { id }) => studio.showTranscription(context, id),
  sheet: (context, { id }) => studio.showSheet(context, id),
  bringIn: (context, { id, body }) => studio.bringIn(context, id, body),
  strikeSections: (context, { id, body }) => studio.strikeSections(context, id, body),
  changeSetUp: (context, { id, body }) => studio.changeSetUp(context, id, body),
  plan: (context, { id }) => studio.showPlan(context, id),
  keepPlan: (context, { id, body }) => studio.keepPlan(context, id, body),
  addSection: (context, { id, body }) => studio.addSection(context, id, body),
  sectionAgain: (context, { id, body }) => studio.repeatSection(context, id, body),
  changeSection: (context, { id, body }) => studio.changeSection(context, id, body),
  addPhrase: (context, { id, body }) => studio.addPhrase(context, id, body),
  changePhrase: (context, { id, body }) => studio.changePhrase(context, id, body),
  revisions: (context, { id }) => studio.listRevisions(context, id),
  markPhrase: (context, { id, body }) => studio.markPhrase(context, id, body),
  addAlternate: (context, { id, body }) => studio.addAlternate(context, id, body),
  choosePhrase: (context, { id, body }) => studio.choosePhrase(context, id, body),
  referPhrase: (context, { id, body }) => studio.referPhrase(context, id, body),
  assignPiece: (context, { body }) => studio.assignPiece(context, body),
  piece: (context, { id }) => studio.showPiece(context, id),
  changePiece: (context, { id, body }) => studio.changePiece(context, id, body),
  postEntry: (context, { id, body }) => studio.postEntry(context, id, body),
  hear: (context, { id, body }) => studio.hear(context, id, body),
  pinNote: (context, { id, body }) => studio.pinNote(context, id, body),
  strikeEntry: (context, { id, body }) => studio.strikeEntry(context, id, body),
  strikePin: (context, { id, body }) => studio.strikePin(context, id, body),
  strikeHearing: (context, { id, body }) => studio.strikeHearing(context, id, body),
  seriesList: (context, { query }) => studio.listSeries(context, query),
  series: (context, { id }) => studio.showSeries(context, id),
  beginSeries: (context, { body }) => studio.beginSeries(context, body),
  changeSeries: (context, { id, body }) => studio.changeSeries(context, id, body),
  swapLessons: (context, { body }) => studio.swapLessons(context, body),
  seriesReport: (context, { id }) => studio.reportSeries(context, id),
  lessons: (context, { query }) => studio.listLessons(context, query),
  homeNotes: (context, { query }) => studio.listHomeNotes(context, query.studentId),
  lessonDay: (context, { id }) => studio.showLessonDay(context, id),
  keepLessonNote: (context, { id, day, body }) => studio.keepLessonNote(context, { studentId: id, day }, body),
  calendarFeed: studio.showCalendarFeed,
  openCalendarFeed: studio.openCalendarFeed,
  closeCalendarFeed: studio.closeCalendarFeed,
  desk: studio.showDesk,
  search: (context, { query }) => studio.search(context, query),
  ledger: (context, { query }) => studio.showLedger(context, query),
  students: studio.listStudents,
  changeStudent: (context, { id, body }) => studio.changeStudent(context, id, body),
  schools: studio.showSchools,
  changeSchools: (context, { body }) => studio.changeSchools(context, body),
  studioReport: studio.reportStudio,
  ownSchools: studio.showOwnSchools,
  changeOwnSchools: (context, { body }) => studio.changeOwnSchools(context, body),
  licks: (context, { query }) => studio.searchLicks(context, query),
};
