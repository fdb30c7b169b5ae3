import type Joi from 'joi';
import { searchQuerySchema } from './desk.ts';
import { hearingChangeSchema, hearingSchema, homeQuerySchema, lessonNoteSchema } from './lessons.ts';
import { lickQuerySchema } from './licks.ts';
import { acceptanceSchema, passwordChangeSchema, personChangeSchema, personSchema } from './people.ts';
import {
  alternateSchema,
  phraseChangeSchema,
  phraseMarkSchema,
  phraseReferenceSchema,
  phraseSchema,
  seenSchema,
} from './phrases.ts';
import {
  entryChangeSchema,
  entrySchema,
  ledgerQuerySchema,
  pieceChangeSchema,
  pieceSchema,
  pinSchema,
} from './pieces.ts';
import { planSchema } from './plans.ts';
import {
  earliestQuerySchema,
  requestMoveSchema,
  requestPromiseSchema,
  requestSchema,
  workActionSchema,
} from './requests.ts';
import type { RouteName } from './routes.ts';
import { lessonQuerySchema, lessonSwapSchema, seriesChangeSchema, seriesQuerySchema, seriesSchema } from './series.ts';
import { signInSchema } from './session.ts';
import { ownSchoolsSchema, studentChangeSchema, studioSchoolsSchema } from './students.ts';
import { sectionChangeSchema, sectionSchema, setUpSchema } from './transcriptions.ts';

/** What is sent with each route, where anything is. */
export const ROUTE_SCHEMAS: Partial<Record<RouteName, { readonly body?: Joi.Schema; readonly query?: Joi.Schema }>> = {
  signIn: { body: signInSchema },
  changePassword: { body: passwordChangeSchema },
  accept: { body: acceptanceSchema },
  enterPerson: { body: personSchema },
  changePerson: { body: personChangeSchema },
  askForSong: { body: requestSchema },
  earliest: { query: earliestQuerySchema },
  timeWork: { body: workActionSchema },
  promise: { body: requestPromiseSchema },
  moveRequest: { body: requestMoveSchema },
  changeSetUp: { body: setUpSchema },
  keepPlan: { body: planSchema },
  addSection: { body: sectionSchema },
  changeSection: { body: sectionChangeSchema },
  addPhrase: { body: phraseSchema },
  changePhrase: { body: phraseChangeSchema },
  markPhrase: { body: phraseMarkSchema },
  addAlternate: { body: alternateSchema },
  choosePhrase: { body: seenSchema },
  referPhrase: { body: phraseReferenceSchema },
  assignPiece: { body: pieceSchema },
  changePiece: { body: pieceChangeSchema },
  postEntry: { body: entrySchema },
  hear: { body: hearingSchema },
  pinNote: { body: pinSchema },
  strikeEntry: { body: entryChangeSchema },
  strikePin: { body: entryChangeSchema },
  strikeHearing: { body: hearingChangeSchema },
  seriesList: { query: seriesQuerySchema },
  beginSeries: { body: seriesSchema },
  changeSeries: { body: seriesChangeSchema },
  swapLessons: { body: lessonSwapSchema },
  lessons: { query: lessonQuerySchema },
  homeNotes: { query: homeQuerySchema },
  keepLessonNote: { body: lessonNoteSchema },
  search: { query: searchQuerySchema },
  ledger: { query: ledgerQuerySchema },
  changeStudent: { body: studentChangeSchema },
  changeSchools: { body: studioSchoolsSchema },
  changeOwnSchools: { body: ownSchoolsSchema },
  licks: { query: lickQuerySchema },
};
