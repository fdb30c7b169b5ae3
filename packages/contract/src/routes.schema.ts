import Joi from 'joi';
import { beginningAnswer } from './beginning.answers.ts';
import { beginningSchema } from './beginning.schema.ts';
import { backupAnswer, bookStateAnswer, erasureAnswer, trailPageAnswer } from './book.answers.ts';
import { erasureSchema, everythingQuerySchema, restoringSchema, trailQuerySchema } from './book.schema.ts';
import { copyPreviewAnswer, lickWrittenAnswer } from './copies.answers.ts';
import { copySchema, lickSchema } from './copies.schema.ts';
import { correctionAnswer, countsAnswer, struckLineAnswer } from './struck.answers.ts';
import { listSeenSchema, putBackSchema, struckQuerySchema } from './struck.schema.ts';
import { recordingOfSongAnswer, sentTakeAnswer, studioSoundAnswer } from './sounds.answers.ts';
import { partQuerySchema, recordingSchema, takeAnswerSchema, takeSchema } from './sounds.schema.ts';
import { deskAnswer, foundAnswer } from './desk.answers.ts';
import { searchQuerySchema } from './desk.schema.ts';
import { hearingAnswer, homeNoteAnswer, lessonDayAnswer, lessonNoteAnswer } from './lessons.answers.ts';
import { hearingSchema, homeQuerySchema, lessonNoteSchema } from './lessons.schema.ts';
import { licksFoundAnswer } from './licks.answers.ts';
import { lickQuerySchema } from './licks.schema.ts';
import { invitationAnswer, mailAnswer, personAnswer, personChangedAnswer, welcomeAnswer } from './people.answers.ts';
import {
  acceptanceSchema,
  ownNamesSchema,
  passwordChangeSchema,
  personChangeSchema,
  personSchema,
  studentsSchema,
} from './people.schema.ts';
import { phraseAnswer, phraseRevisionAnswer } from './phrases.answers.ts';
import {
  alternateSchema,
  phraseChangeSchema,
  phraseMarkSchema,
  phraseReferenceSchema,
  phraseSchema,
  seenSchema,
} from './phrases.schema.ts';
import { earlierEntriesAnswer, ledgerAnswer, pieceAnswer, postedAnswer } from './pieces.answers.ts';
import {
  entrySchema,
  earlierQuerySchema,
  ledgerQuerySchema,
  pieceChangeSchema,
  pieceSchema,
  pinSchema,
  strikeSchema,
} from './pieces.schema.ts';
import { planAnswer } from './plans.answers.ts';
import { planSchema } from './plans.schema.ts';
import { seriesReportAnswer, studioReportAnswer } from './reports.answers.ts';
import { earliestAnswer, requestHoursAnswer, songRequestAnswer } from './requests.answers.ts';
import {
  earliestQuerySchema,
  requestMoveSchema,
  requestPromiseSchema,
  requestSchema,
  workActionSchema,
} from './requests.schema.ts';
import { lessonAnswer, seriesAnswer, seriesListAnswer } from './series.answers.ts';
import {
  lessonQuerySchema,
  lessonSwapSchema,
  seriesChangeSchema,
  seriesQuerySchema,
  seriesSchema,
} from './series.schema.ts';
import { healthAnswer, meAnswer } from './session.answers.ts';
import { signInSchema } from './session.schema.ts';
import { ownSchoolsAnswer, studentAnswer, studioSchoolsAnswer } from './schools.answers.ts';
import { ownSchoolsSchema, studentChangeSchema, studioSchoolsSchema } from './schools.schema.ts';
import { sectionAnswer, transcriptionAnswer, transcriptionLineAnswer } from './songs.answers.ts';
import { calendarFeedAnswer, calendarFeedMadeAnswer } from './calendar.answers.ts';
import { entriesBroughtAnswer, entryRowAnswer } from './entries.answers.ts';
import { entriesQuerySchema, entriesSchema, entriesStruckSchema } from './entries.schema.ts';
import { broughtSchema, sectionsStruckSchema } from './brought.schema.ts';
import {
  sectionAgainSchema,
  sectionChangeSchema,
  sectionSchema,
  setUpSchema,
  songBeginningSchema,
} from './songs.schema.ts';
import type { FileGiven, Route } from './route.ts';
import type { RouteName, ROUTES } from './routes.ts';
import { anyText, list, orNull, typed, type SchemaOf } from './typed.ts';

/** The schemas of a route: of its body and query where it has them, and of its answer. */
export type SchemasOf<One> =
  One extends Route<string, infer Query, infer Body, infer Answer>
    ? { readonly answer: SchemaOf<Answer> } & ([Query] extends [never]
        ? unknown
        : { readonly query: SchemaOf<Query> }) &
        ([Body] extends [never] ? unknown : { readonly body: SchemaOf<Body> })
    : never;

const fileAnswer = typed<FileGiven>(Joi.object().unknown());
const nothingAnswer = typed<null>(Joi.valid(null));
const openApiAnswer = typed<object>(Joi.object().unknown());

/** What is sent with each route, and what comes back. */
export const ROUTE_SCHEMAS: { readonly [Name in RouteName]: SchemasOf<(typeof ROUTES)[Name]> } = {
  health: { answer: healthAnswer },
  openApi: { answer: openApiAnswer },
  me: { answer: orNull(meAnswer) },
  signIn: { body: signInSchema, answer: meAnswer },
  signOut: { answer: nothingAnswer },
  signOutEverywhere: { answer: nothingAnswer },
  changeNames: { body: ownNamesSchema, answer: meAnswer },
  changePassword: { body: passwordChangeSchema, answer: nothingAnswer },
  welcome: { answer: welcomeAnswer },
  accept: { body: acceptanceSchema, answer: nothingAnswer },
  beginning: { answer: beginningAnswer },
  begin: { body: beginningSchema, answer: meAnswer },
  people: { answer: list(personAnswer) },
  enterStudents: { body: studentsSchema, answer: list(personAnswer) },
  enterPerson: { body: personSchema, answer: personAnswer },
  changePerson: { body: personChangeSchema, answer: personChangedAnswer },
  invite: { answer: invitationAnswer },
  outbox: { answer: list(mailAnswer) },
  requests: { answer: list(songRequestAnswer) },
  askForSong: { body: requestSchema, answer: songRequestAnswer },
  hours: { answer: requestHoursAnswer },
  earliest: { query: earliestQuerySchema, answer: earliestAnswer },
  timeWork: { body: workActionSchema, answer: requestHoursAnswer },
  promise: { body: requestPromiseSchema, answer: songRequestAnswer },
  moveRequest: { body: requestMoveSchema, answer: songRequestAnswer },
  songRecording: { answer: recordingOfSongAnswer },
  knowRecording: { body: recordingSchema, answer: recordingOfSongAnswer },
  forgetRecording: { answer: recordingOfSongAnswer },
  takes: { answer: list(sentTakeAnswer) },
  sendTake: { body: takeSchema, answer: sentTakeAnswer },
  answerTake: { body: takeAnswerSchema, answer: sentTakeAnswer },
  deleteTake: { answer: nothingAnswer },
  sendPart: { query: partQuerySchema, answer: studioSoundAnswer },
  sound: { answer: fileAnswer },
  songs: { answer: list(transcriptionLineAnswer) },
  beginSong: { body: songBeginningSchema, answer: transcriptionAnswer },
  song: { answer: transcriptionAnswer },
  sheet: { answer: transcriptionAnswer },
  bringIn: { body: broughtSchema, answer: list(sectionAnswer) },
  strikeSections: { body: sectionsStruckSchema, answer: transcriptionAnswer },
  changeSetUp: { body: setUpSchema, answer: transcriptionAnswer },
  plan: { answer: planAnswer },
  keepPlan: { body: planSchema, answer: planAnswer },
  addSection: { body: sectionSchema, answer: sectionAnswer },
  sectionAgain: { body: sectionAgainSchema, answer: sectionAnswer },
  changeSection: { body: sectionChangeSchema, answer: sectionAnswer },
  addPhrase: { body: phraseSchema, answer: phraseAnswer },
  changePhrase: { body: phraseChangeSchema, answer: phraseAnswer },
  revisions: { answer: list(phraseRevisionAnswer) },
  markPhrase: { body: phraseMarkSchema, answer: phraseAnswer },
  addAlternate: { body: alternateSchema, answer: phraseAnswer },
  choosePhrase: { body: seenSchema, answer: phraseAnswer },
  referPhrase: { body: phraseReferenceSchema, answer: phraseAnswer },
  assignPiece: { body: pieceSchema, answer: pieceAnswer },
  piece: { answer: pieceAnswer },
  changePiece: { body: pieceChangeSchema, answer: pieceAnswer },
  earlierEntries: { query: earlierQuerySchema, answer: earlierEntriesAnswer },
  postEntry: { body: entrySchema, answer: postedAnswer },
  entries: { query: entriesQuerySchema, answer: list(entryRowAnswer) },
  bringEntries: { body: entriesSchema, answer: entriesBroughtAnswer },
  strikeEntries: { body: entriesStruckSchema, answer: nothingAnswer },
  hear: { body: hearingSchema, answer: hearingAnswer },
  pinNote: { body: pinSchema, answer: pieceAnswer },
  strikeEntry: { body: strikeSchema, answer: pieceAnswer },
  strikePin: { body: strikeSchema, answer: nothingAnswer },
  strikeHearing: { body: strikeSchema, answer: nothingAnswer },
  seriesList: { query: seriesQuerySchema, answer: seriesListAnswer },
  series: { answer: seriesAnswer },
  beginSeries: { body: seriesSchema, answer: seriesAnswer },
  changeSeries: { body: seriesChangeSchema, answer: seriesAnswer },
  swapLessons: { body: lessonSwapSchema, answer: list(seriesAnswer) },
  seriesReport: { answer: seriesReportAnswer },
  lessons: { query: lessonQuerySchema, answer: list(lessonAnswer) },
  homeNotes: { query: homeQuerySchema, answer: list(homeNoteAnswer) },
  lessonDay: { answer: lessonDayAnswer },
  keepLessonNote: { body: lessonNoteSchema, answer: lessonNoteAnswer },
  calendarFeed: { answer: calendarFeedAnswer },
  openCalendarFeed: { answer: calendarFeedMadeAnswer },
  closeCalendarFeed: { answer: nothingAnswer },
  readCalendarFeed: { answer: anyText() },
  desk: { answer: deskAnswer },
  search: { query: searchQuerySchema, answer: list(foundAnswer) },
  ledger: { query: ledgerQuerySchema, answer: ledgerAnswer },
  students: { answer: list(studentAnswer) },
  changeStudent: { body: studentChangeSchema, answer: studentAnswer },
  schools: { answer: studioSchoolsAnswer },
  changeSchools: { body: studioSchoolsSchema, answer: studioSchoolsAnswer },
  studioReport: { answer: studioReportAnswer },
  ownSchools: { answer: ownSchoolsAnswer },
  changeOwnSchools: { body: ownSchoolsSchema, answer: ownSchoolsAnswer },
  book: { answer: bookStateAnswer },
  makeBackup: { answer: bookStateAnswer },
  bringBackup: { answer: backupAnswer },
  takeBackup: { answer: fileAnswer },
  restore: { body: restoringSchema, answer: bookStateAnswer },
  stopJob: { answer: bookStateAnswer },
  erasure: { answer: erasureAnswer },
  askErasure: { body: erasureSchema, answer: erasureAnswer },
  keepFromErasing: { answer: erasureAnswer },
  everything: { query: everythingQuerySchema, answer: fileAnswer },
  trail: { query: trailQuerySchema, answer: trailPageAnswer },
  previewCopy: { body: copySchema, answer: copyPreviewAnswer },
  copy: { body: copySchema, answer: transcriptionAnswer },
  writeLick: { body: lickSchema, answer: lickWrittenAnswer },
  struck: { query: struckQuerySchema, answer: list(struckLineAnswer) },
  putBack: { body: putBackSchema, answer: nothingAnswer },
  corrections: { answer: list(correctionAnswer) },
  counts: { answer: countsAnswer },
  seeList: { body: listSeenSchema, answer: countsAnswer },
  licks: { query: lickQuerySchema, answer: licksFoundAnswer },
};
