import {
  entryChangeSchema,
  entrySchema,
  hearingSchema,
  ledgerQuerySchema,
  pieceChangeSchema,
  pieceSchema,
  pinSchema,
} from '@jam-ledger/contract';
import { Router } from 'express';
import {
  assignPiece,
  changePiece,
  hear,
  pinNote,
  postEntry,
  showLedger,
  showPiece,
  strikeEntry,
  strikePin,
} from '../studio/index.ts';
import { answer, bodyOf, idOf, queryOf } from './asking.ts';

/** Practice pieces: assigned, shown, changed, and the entries posted to them. */
export function piecesRouter(): Router {
  const router = Router();
  router.post(
    '/',
    answer((context, request) => assignPiece(context, bodyOf(request, pieceSchema)), 201),
  );
  router.get(
    '/:id',
    answer((context, request) => showPiece(context, idOf(request))),
  );
  router.put(
    '/:id',
    answer((context, request) => changePiece(context, idOf(request), bodyOf(request, pieceChangeSchema))),
  );
  router.post(
    '/:id/entries',
    answer((context, request) => postEntry(context, idOf(request), bodyOf(request, entrySchema)), 201),
  );
  router.post(
    '/:id/hearings',
    answer((context, request) => hear(context, idOf(request), bodyOf(request, hearingSchema)), 201),
  );
  router.post(
    '/:id/pins',
    answer((context, request) => pinNote(context, idOf(request), bodyOf(request, pinSchema)), 201),
  );
  return router;
}

/** Entries: struck out and put back. */
export function entriesRouter(): Router {
  const router = Router();
  router.put(
    '/:id',
    answer((context, request) => strikeEntry(context, idOf(request), bodyOf(request, entryChangeSchema))),
  );
  return router;
}

/** Pinned notes: taken out and put back. */
export function pinsRouter(): Router {
  const router = Router();
  router.put(
    '/:id',
    answer((context, request) => strikePin(context, idOf(request), bodyOf(request, entryChangeSchema))),
  );
  return router;
}

/** The ledger of a student. */
export function ledgerRouter(): Router {
  const router = Router();
  router.get(
    '/',
    answer((context, request) => showLedger(context, queryOf(request, ledgerQuerySchema))),
  );
  return router;
}
