import {
  alternateSchema,
  phraseChangeSchema,
  phraseMarkSchema,
  phraseReferenceSchema,
  phraseSchema,
  planSchema,
  sectionChangeSchema,
  sectionSchema,
  seenSchema,
  setUpSchema,
} from '@jam-ledger/contract';
import { Router } from 'express';
import {
  addAlternate,
  addPhrase,
  addSection,
  changePhrase,
  changeSection,
  changeSetUp,
  choosePhrase,
  keepPlan,
  listRevisions,
  listTranscriptions,
  markPhrase,
  referPhrase,
  showPlan,
  showTranscription,
} from '../studio/index.ts';
import { answer, bodyOf, idOf } from './asking.ts';

/** Transcriptions: their set-up, and the sections added to them. */
export function transcriptionsRouter(): Router {
  const router = Router();
  router.get('/', answer(listTranscriptions));
  router.get(
    '/:id',
    answer((visit, request) => showTranscription(visit, idOf(request))),
  );
  router.put(
    '/:id',
    answer((visit, request) => changeSetUp(visit, idOf(request), bodyOf(request, setUpSchema))),
  );
  router.get(
    '/:id/plan',
    answer((visit, request) => showPlan(visit, idOf(request))),
  );
  router.put(
    '/:id/plan',
    answer((visit, request) => keepPlan(visit, idOf(request), bodyOf(request, planSchema))),
  );
  router.post(
    '/:id/sections',
    answer((visit, request) => addSection(visit, idOf(request), bodyOf(request, sectionSchema)), 201),
  );
  return router;
}

/** Sections: changed, struck out, and the phrases added to them. */
export function sectionsRouter(): Router {
  const router = Router();
  router.put(
    '/:id',
    answer((visit, request) => changeSection(visit, idOf(request), bodyOf(request, sectionChangeSchema))),
  );
  router.post(
    '/:id/phrases',
    answer((visit, request) => addPhrase(visit, idOf(request), bodyOf(request, phraseSchema)), 201),
  );
  return router;
}

/** Phrases: changed and struck out, marked, compared with what they were, kept in several ways, and referring. */
export function phrasesRouter(): Router {
  const router = Router();
  router.put(
    '/:id',
    answer((visit, request) => changePhrase(visit, idOf(request), bodyOf(request, phraseChangeSchema))),
  );
  router.get(
    '/:id/revisions',
    answer((visit, request) => listRevisions(visit, idOf(request))),
  );
  router.post(
    '/:id/mark',
    answer((visit, request) => markPhrase(visit, idOf(request), bodyOf(request, phraseMarkSchema))),
  );
  router.post(
    '/:id/alternates',
    answer((visit, request) => addAlternate(visit, idOf(request), bodyOf(request, alternateSchema)), 201),
  );
  router.post(
    '/:id/chosen',
    answer((visit, request) => choosePhrase(visit, idOf(request), bodyOf(request, seenSchema))),
  );
  router.post(
    '/:id/reference',
    answer((visit, request) => referPhrase(visit, idOf(request), bodyOf(request, phraseReferenceSchema))),
  );
  return router;
}
