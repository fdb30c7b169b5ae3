import {
  phraseChangeSchema,
  phraseSchema,
  sectionChangeSchema,
  sectionSchema,
  setUpSchema,
} from '@jam-ledger/contract';
import { Router } from 'express';
import {
  addPhrase,
  addSection,
  changePhrase,
  changeSection,
  changeSetUp,
  listTranscriptions,
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

/** Phrases: changed and struck out. */
export function phrasesRouter(): Router {
  const router = Router();
  router.put(
    '/:id',
    answer((visit, request) => changePhrase(visit, idOf(request), bodyOf(request, phraseChangeSchema))),
  );
  return router;
}
