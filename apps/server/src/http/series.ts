import {
  dayParams,
  hearingChangeSchema,
  homeQuerySchema,
  lessonNoteSchema,
  lessonQuerySchema,
  lessonSwapSchema,
  seriesChangeSchema,
  seriesQuerySchema,
  seriesSchema,
} from '@jam-ledger/contract';
import { Router, type Request } from 'express';
import {
  keepLessonNote,
  listHomeNotes,
  showLessonDay,
  strikeHearing,
  beginSeries,
  changeSeries,
  listLessons,
  listSeries,
  reportSeries,
  showSeries,
  swapLessons,
} from '../studio/index.ts';
import { answer, bodyOf, idOf, queryOf, sound } from './asking.ts';

/** Series of lessons: shown, begun, changed and ended. */
export function seriesRouter(): Router {
  const router = Router();
  router.get(
    '/',
    answer((visit, request) => listSeries(visit, queryOf(request, seriesQuerySchema))),
  );
  router.post(
    '/',
    answer((visit, request) => beginSeries(visit, bodyOf(request, seriesSchema)), 201),
  );
  router.post(
    '/swap',
    answer((visit, request) => swapLessons(visit, bodyOf(request, lessonSwapSchema))),
  );
  router.get(
    '/:id/report',
    answer((visit, request) => reportSeries(visit, idOf(request))),
  );
  router.get(
    '/:id',
    answer((visit, request) => showSeries(visit, idOf(request))),
  );
  router.put(
    '/:id',
    answer((visit, request) => changeSeries(visit, idOf(request), bodyOf(request, seriesChangeSchema))),
  );
  return router;
}

/** Points that were inspected: taken back and put there again. */
export function hearingsRouter(): Router {
  const router = Router();
  router.put(
    '/:id',
    answer((visit, request) => strikeHearing(visit, idOf(request), bodyOf(request, hearingChangeSchema))),
  );
  return router;
}

function dayOfPath(request: Request): string {
  return sound(dayParams, { day: request.params['day'] }).day;
}

/** The lessons of the coming days, what each came to, and what goes home. */
export function lessonsRouter(): Router {
  const router = Router();
  router.get(
    '/',
    answer((visit, request) => listLessons(visit, queryOf(request, lessonQuerySchema))),
  );
  router.get(
    '/home',
    answer((visit, request) => listHomeNotes(visit, queryOf(request, homeQuerySchema).studentId)),
  );
  router.get(
    '/of/:id',
    answer((visit, request) => showLessonDay(visit, idOf(request))),
  );
  router.put(
    '/of/:id/:day',
    answer((visit, request) => {
      const at = { studentId: idOf(request), day: dayOfPath(request) };
      return keepLessonNote(visit, at, bodyOf(request, lessonNoteSchema));
    }),
  );
  return router;
}
