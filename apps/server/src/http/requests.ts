import {
  earliestQuerySchema,
  requestMoveSchema,
  requestPromiseSchema,
  requestSchema,
  workActionSchema,
} from '@jam-ledger/contract';
import { Router } from 'express';
import {
  askForSong,
  earliestFor,
  listRequests,
  moveRequest,
  promiseRequest,
  showHours,
  timeWork,
} from '../studio/index.ts';
import { answer, bodyOf, idOf, queryOf } from './asking.ts';

/** Requests: ask, list, accept, decline, withdraw. */
export function requestsRouter(): Router {
  const router = Router();
  router.get('/', answer(listRequests));
  router.post(
    '/',
    answer((visit, request) => askForSong(visit, bodyOf(request, requestSchema)), 201),
  );
  router.get('/hours', answer(showHours));
  router.get(
    '/earliest',
    answer((visit, request) => earliestFor(visit, queryOf(request, earliestQuerySchema))),
  );
  router.post(
    '/:id/work',
    answer((visit, request) => timeWork(visit, idOf(request), bodyOf(request, workActionSchema))),
  );
  router.post(
    '/:id/promise',
    answer((visit, request) => promiseRequest(visit, idOf(request), bodyOf(request, requestPromiseSchema))),
  );
  router.post(
    '/:id/state',
    answer((visit, request) => moveRequest(visit, idOf(request), bodyOf(request, requestMoveSchema))),
  );
  return router;
}
