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
    answer((context, request) => listSeries(context, queryOf(request, seriesQuerySchema))),
  );
  router.post(
    '/',
    answer((context, request) => beginSeries(context, bodyOf(request, seriesSchema)), 201),
  );
  router.post(
    '/swap',
    answer((context, request) => swapLessons(context, bodyOf(request, lessonSwapSchema))),
  );
  router.get(
    '/:id/report',
    answer((context, request) => reportSeries(context, idOf(request))),
  );
  router.get(
    '/:id',
    answer((context, request) => showSeries(context, idOf(request))),
  );
  router.put(
    '/:id',
    answer((context, request) => changeSeries(context, idOf(request), bodyOf(request, seriesChangeSchema))),
  );
  return router;
}

/** Points that were inspected: taken back and put there again. */
export function hearingsRouter(): Router {
  const router = Router();
  router.put(
    '/:id',
    answer((context, request) => strikeHearing(context, idOf(request), bodyOf(request, hearingChangeSchema))),
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
    answer((context, request) => listLessons(context, queryOf(request, lessonQuerySchema))),
  );
  router.get(
    '/home',
    answer((context, request) => listHomeNotes(context, queryOf(request, homeQuerySchema).studentId)),
  );
  router.get(
    '/of/:id',
    answer((context, request) => showLessonDay(context, idOf(request))),
  );
  router.put(
    '/of/:id/:day',
    answer((context, request) => {
      const at = { studentId: idOf(request), day: dayOfPath(request) };
      return keepLessonNote(context, at, bodyOf(request, lessonNoteSchema));
    }),
  );
  return router;
}
