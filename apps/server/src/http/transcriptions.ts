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
    answer((context, request) => showTranscription(context, idOf(request))),
  );
  router.put(
    '/:id',
    answer((context, request) => changeSetUp(context, idOf(request), bodyOf(request, setUpSchema))),
  );
  router.get(
    '/:id/plan',
    answer((context, request) => showPlan(context, idOf(request))),
  );
  router.put(
    '/:id/plan',
    answer(async (context, request) => keepPlan(context, idOf(request), await planOf(request))),
  );
  router.post(
    '/:id/sections',
    answer((context, request) => addSection(context, idOf(request), bodyOf(request, sectionSchema)), 201),
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
    answer((context, request) => changeSection(context, idOf(request), bodyOf(request, sectionChangeSchema))),
  );
  router.post(
    '/:id/phrases',
    answer((context, request) => addPhrase(context, idOf(request), bodyOf(request, phraseSchema)), 201),
  );
  return router;
}

/** Phrases: changed and struck out, marked, compared with what they were, kept in several ways, and referring. */
export function phrasesRouter(): Router {
  const router = Router();
  router.put(
    '/:id',
    answer((context, request) => changePhrase(context, idOf(request), bodyOf(request, phraseChangeSchema))),
  );
  router.get(
    '/:id/revisions',
    answer((context, request) => listRevisions(context, idOf(request))),
  );
  router.post(
    '/:id/mark',
    answer((context, request) => markPhrase(context, idOf(request), bodyOf(request, phraseMarkSchema))),
  );
  router.post(
    '/:id/alternates',
    answer((context, request) => addAlternate(context, idOf(request), bodyOf(request, alternateSchema)), 201),
  );
  router.post(
    '/:id/chosen',
    answer((context, request) => choosePhrase(context, idOf(request), bodyOf(request, seenSchema))),
  );
  router.post(
    '/:id/reference',
    answer((context, request) => referPhrase(context, idOf(request), bodyOf(request, phraseReferenceSchema))),
  );
  return router;
}
