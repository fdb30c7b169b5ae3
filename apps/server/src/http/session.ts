import { signInSchema, type ErrorAnswer } from '@jam-ledger/contract';
import { Router, type Request, type RequestHandler } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import { SignInCounts, type Store } from '../store/index.ts';
import { describeMe, signIn, contextOf as openContext, WrongSignIn } from '../studio/index.ts';
import { answer, bodyOf } from './asking.ts';

/** A wrong sign-in is answered no sooner than this, milliseconds. Our choice. */
const WRONG_ANSWER_MS = 700;

/** Wrong sign-ins allowed in a window: for one name from one address, and for one address. Our choice. */
const LIMITS = { windowMs: 15 * 60 * 1000, perName: 10, perAddress: 60 } as const;

/** Signing in and out, and who is signed in. */
export function sessionRouter(store: Store, now: () => Date): Router {
  const router = Router();
  router.get('/', answer(describeMe));
  router.post(
    '/',
    limit(store, 'address:', LIMITS.perAddress, addressOf),
    limit(store, 'name:', LIMITS.perName, nameOf),
    signInHandler(store, now),
  );
  router.delete('/', async (request, response) => {
    await whenDone((callback) => request.session.destroy(callback));
    response.clearCookie(SESSION_COOKIE).status(204).end();
  });
  return router;
}

/** The name of the session cookie. */
export const SESSION_COOKIE = 'jam.sid';

function signInHandler(store: Store, now: () => Date): RequestHandler {
  return async (request, response) => {
    const started = Date.now();
    const body = bodyOf(request, signInSchema);
    try {
      const person = await signIn(store, body);
      await whenDone((callback) => request.session.regenerate(callback));
      request.session.personId = person.id;
      request.session.studioId = person.studioId;
      const context = await openContext(store, person.id, now());
      if (!context) throw new WrongSignIn();
      // Nobody is told that they are signed in before that is kept.
      await whenDone((callback) => request.session.save(callback));
      response.json(await describeMe(context));
    } catch (error) {
      await new Promise((done) => setTimeout(done, WRONG_ANSWER_MS - (Date.now() - started)));
      throw error;
    }
  };
}

/** Waits for something that calls back with an error, or nothing. @throws that error */
function whenDone(work: (callback: (error: unknown) => void) => unknown): Promise<void> {
  return new Promise((done, fail) => {
    work((error) => {
      if (error) fail(error instanceof Error ? error : new Error('the session could not be changed'));
      else done();
    });
  });
}

function limit(store: Store, prefix: string, max: number, keyGenerator: (request: Request) => string): RequestHandler {
  const message: ErrorAnswer = {
    error: { code: 'slow-down', message: 'Too many wrong sign-ins; wait a quarter of an hour and try again.' },
  };
  return rateLimit({
    windowMs: LIMITS.windowMs,
    limit: max,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    store: new SignInCounts(store, prefix),
    keyGenerator,
    message,
  });
}

function addressOf(request: Request): string {
  return ipKeyGenerator(request.ip ?? '');
}

function nameOf(request: Request): string {
  const body: unknown = request.body;
  const name = typeof body === 'object' && body !== null && 'name' in body ? body.name : '';
  return `${addressOf(request)} ${typeof name === 'string' ? name.slice(0, 64).toLowerCase() : ''}`;
}
