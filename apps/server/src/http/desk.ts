import { searchQuerySchema } from '@jam-ledger/contract';
import { Router } from 'express';
import { search, showDesk } from '../studio/index.ts';
import { answer, queryOf } from './asking.ts';

/** What needs the teacher today. */
export function deskRouter(): Router {
  const router = Router();
  router.get('/', answer(showDesk));
  return router;
}

/** Everything of the studio, searched. */
export function searchRouter(): Router {
  const router = Router();
  router.get(
    '/',
    answer((context, request) => search(context, queryOf(request, searchQuerySchema))),
  );
  return router;
}
