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
    answer((context, request) => askForSong(context, bodyOf(request, requestSchema)), 201),
  );
  router.get('/hours', answer(showHours));
  router.get(
    '/earliest',
    answer((context, request) => earliestFor(context, queryOf(request, earliestQuerySchema))),
  );
  router.post(
    '/:id/work',
    answer((context, request) => timeWork(context, idOf(request), bodyOf(request, workActionSchema))),
  );
  router.post(
    '/:id/promise',
    answer((context, request) => promiseRequest(context, idOf(request), bodyOf(request, requestPromiseSchema))),
  );
  router.post(
    '/:id/state',
    answer((context, request) => moveRequest(context, idOf(request), bodyOf(request, requestMoveSchema))),
  );
  return router;
}
