import {
  alternateSchema,
  phraseChangeSchema,
  phraseMarkSchema,
  phraseReferenceSchema,
  phraseSchema,
  check,
  planFrameSchema,
  planPieceSchema,
  type PlanBody,
  sectionChangeSchema,
  sectionSchema,
  seenSchema,
  setUpSchema,
} from '@jam-ledger/contract';
import { Router, type Request } from 'express';
import {
  addAlternate,
  addPhrase,
  addSection,
  changePhrase,
  changeSection,
  changeSetUp,
  choosePhrase,
  Invalid,
  keepPlan,
  listRevisions,
  listTranscriptions,
  mapInSlices,
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
    answer(async (visit, request) => keepPlan(visit, idOf(request), await planOf(request))),
  );
  router.post(
    '/:id/sections',
    answer((visit, request) => addSection(visit, idOf(request), bodyOf(request, sectionSchema)), 201),
  );
  return router;
}

/** The plan sent, checked; it may hold thousands of pieces, so that others are answered in between. @throws Invalid */
async function planOf(request: Request): Promise<PlanBody> {
  const frame = bodyOf(request, planFrameSchema);
  const checked = await mapInSlices(frame.pieces, (piece) => check(planPieceSchema, piece));
  const ids = new Set<string>();
  const problems = checked.flatMap((one, index) => {
    const at = `pieces.${index}`;
    if (!one.ok)
      return one.problems.map(({ field, message }) => ({ field: field === 'body' ? at : `${at}.${field}`, message }));
    if (ids.has(one.value.id)) return [{ field: at, message: 'This stands here twice.' }];
    ids.add(one.value.id);
    return [];
  });
  if (problems.length > 0) throw new Invalid(problems);
  return { ...frame, pieces: checked.flatMap((one) => (one.ok ? [one.value] : [])) };
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
