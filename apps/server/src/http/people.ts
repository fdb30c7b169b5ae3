import {
  acceptanceSchema,
  passwordChangeSchema,
  personChangeSchema,
  personSchema,
  tokenSchema,
  type ErrorAnswer,
} from '@jam-ledger/contract';
import { Router, type Request } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import { SignInCounts, type Store } from '../store/index.ts';
import {
  acceptInvitation,
  changePassword,
  changePerson,
  enterPerson,
  invite,
  listMail,
  listPeople,
  showWelcome,
} from '../studio/index.ts';
import { answer, bodyOf, idOf, sound, contextOf } from './asking.ts';

/** People of the studio: entered, changed, put away, invited. */
export function peopleRouter(): Router {
  const router = Router();
  router.get('/', answer(listPeople));
  router.post(
    '/',
    answer((context, request) => enterPerson(context, bodyOf(request, personSchema)), 201),
  );
  router.put(
    '/:id',
    answer((context, request) => changePerson(context, idOf(request), bodyOf(request, personChangeSchema))),
  );
  router.post(
    '/:id/invitation',
    answer((context, request) => invite(context, idOf(request)), 201),
  );
  return router;
}

/** The messages that would have been sent. */
export function outboxRouter(): Router {
  const router = Router();
  router.get('/', answer(listMail));
  return router;
}

/** Wrong tokens and wrong old passwords allowed from one address in a window. Our choice. */
const LIMITS = { windowMs: 15 * 60 * 1000, wrong: 30 } as const;

/** Invitations, for whoever has the link. */
export function invitationsRouter(store: Store, now: () => Date): Router {
  const router = Router();
  router.use(limitWrong(store, 'invitation:'));
  router.get('/:token', async (request, response) => {
    response.json(await showWelcome(store, tokenOf(request), now()));
  });
  router.post('/:token', async (request, response) => {
    const body = bodyOf(request, acceptanceSchema);
    response.json(await acceptInvitation(store, tokenOf(request), { ...body, now: now() }));
  });
  return router;
}

/** One’s own password. */
export function passwordRouter(store: Store): Router {
  const router = Router();
  router.put(
    '/',
    limitWrong(store, 'password:'),
    // Measuring and hashing takes long; no connection is held meanwhile.
    async (request, response) => {
      const change = bodyOf(request, passwordChangeSchema);
      response.json(await changePassword(contextOf(request), change, request.sessionID));
    },
  );
  return router;
}

function tokenOf(request: Request): string {
  return sound(tokenSchema, { token: request.params['token'] }).token;
}

function limitWrong(store: Store, prefix: string) {
  const message: ErrorAnswer = {
    error: { code: 'slow-down', message: 'Too many wrong tries; wait a quarter of an hour and try again.' },
  };
  return rateLimit({
    windowMs: LIMITS.windowMs,
    limit: LIMITS.wrong,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    store: new SignInCounts(store, prefix),
    keyGenerator: (request) => ipKeyGenerator(request.ip ?? ''),
    message,
  });
}
