import { lessonQuerySchema, seriesChangeSchema, seriesSchema } from '@jam-ledger/contract';
import { Router } from 'express';
import { beginSeries, changeSeries, listLessons, listSeries } from '../studio/index.ts';
import { answer, bodyOf, idOf, queryOf } from './asking.ts';

/** Series of lessons: shown, begun, changed and ended. */
export function seriesRouter(): Router {
  const router = Router();
  router.get('/', answer(listSeries));
  router.post(
    '/',
    answer((visit, request) => beginSeries(visit, bodyOf(request, seriesSchema)), 201),
  );
  router.put(
    '/:id',
    answer((visit, request) => changeSeries(visit, idOf(request), bodyOf(request, seriesChangeSchema))),
  );
  return router;
}

/** The lessons of the coming days. */
export function lessonsRouter(): Router {
  const router = Router();
  router.get(
    '/',
    answer((visit, request) => listLessons(visit, queryOf(request, lessonQuerySchema))),
  );
  return router;
}
