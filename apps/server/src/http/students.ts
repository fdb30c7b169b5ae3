import { lickQuerySchema, ownSchoolsSchema, studentChangeSchema, studioSchoolsSchema } from '@jam-ledger/contract';
import { Router } from 'express';
import {
  changeOwnSchools,
  changeSchools,
  changeStudent,
  listStudents,
  reportStudio,
  searchLicks,
  showOwnSchools,
  showSchools,
} from '../studio/index.ts';
import { answer, bodyOf, idOf, queryOf } from './asking.ts';

/** The students of the studio, their guitars and hands. */
export function studentsRouter(): Router {
  const router = Router();
  router.get('/', answer(listStudents));
  router.put(
    '/:id',
    answer((context, request) => changeStudent(context, idOf(request), bodyOf(request, studentChangeSchema))),
  );
  return router;
}

/** How the studio teaches. */
export function studioRouter(): Router {
  const router = Router();
  router.get('/', answer(showSchools));
  router.put(
    '/',
    answer((context, request) => changeSchools(context, bodyOf(request, studioSchoolsSchema))),
  );
  router.get('/report', answer(reportStudio));
  router.get('/mine', answer(showOwnSchools));
  router.put(
    '/mine',
    answer((context, request) => changeOwnSchools(context, bodyOf(request, ownSchoolsSchema))),
  );
  return router;
}

/** Phrases found again. */
export function licksRouter(): Router {
  const router = Router();
  router.get(
    '/',
    answer((context, request) => searchLicks(context, queryOf(request, lickQuerySchema))),
  );
  return router;
}
