import { randomUUID } from 'node:crypto';
import type { ErrorAnswer, ErrorCode } from '@jam-ledger/contract';
import type { ErrorRequestHandler } from 'express';
import { isAway } from '../store/index.ts';
import { Invalid, Forbidden, Conflict, NotFound, WrongSignIn } from '../studio/index.ts';

/** Nobody is signed in. */
export class NotSignedIn extends Error {
  constructor() {
    super('Sign in first.');
  }
}

/** A change was asked for from a page that is not ours. */
export class OtherOrigin extends Error {
  constructor() {
    super('Changes are accepted from the pages of this studio only.');
  }
}

interface Refusal {
  readonly status: number;
  readonly error: ErrorAnswer['error'];
}

/** The one place where trouble becomes an answer. Never shows a stack. */
export const refuse: ErrorRequestHandler = (error: unknown, request, response, next) => {
  if (response.headersSent) {
    request.log.warn({ err: error }, 'trouble after the answer');
    // A session that could not be kept alive takes nothing from an answer that is whole; one that is not is cut.
    if (!response.writableEnded) next(error);
    return;
  }
  const refusal = refusalOf(error);
  if (refusal.status === AWAY.status) {
    request.log.warn({ err: error }, 'the database is away');
    response.setHeader('Retry-After', AWAY.retrySeconds);
  } else if (refusal.status >= 500)
    request.log.error({ err: error, reference: refusal.error.reference }, 'broken request');
  const answer: ErrorAnswer = { error: refusal.error };
  response.status(refusal.status).json(answer);
};

/** While the database is away: it is asked for again in so many seconds. Our choice. */
const AWAY = { status: 503, retrySeconds: 2 } as const;

function refusalOf(error: unknown): Refusal {
  const plain = (status: number, code: ErrorCode, message: string): Refusal => ({ status, error: { code, message } });
  if (error instanceof NotSignedIn) return plain(401, 'not-signed-in', error.message);
  if (error instanceof WrongSignIn) return plain(401, 'wrong-sign-in', error.message);
  if (error instanceof OtherOrigin) return plain(403, 'other-origin', error.message);
  if (error instanceof Forbidden) return plain(403, 'not-yours', error.message);
  if (error instanceof NotFound) return plain(404, 'unknown', error.message);
  if (error instanceof Conflict)
    return { status: 409, error: { code: 'stale', message: error.message, current: error.current } };
  if (error instanceof Invalid)
    return { status: 422, error: { code: 'invalid', message: error.message, problems: error.problems } };
  if (isAway(error)) return plain(AWAY.status, 'away', 'The book cannot be opened just now; try again in a moment.');
  return bodyRefusal(error) ?? callerRefusal(error) ?? broken();
}

/** What a middleware lays to whoever asks: an address that cannot be read, a body that is not packed as it says, a missing file. */
function callerRefusal(error: unknown): Refusal | undefined {
  if (error instanceof URIError)
    return { status: 400, error: { code: 'unreadable', message: 'The address could not be read.' } };
  const status: unknown = error instanceof Error ? Reflect.get(error, 'status') : undefined;
  if (status === 404) return { status, error: { code: 'unknown', message: 'There is nothing at this address.' } };
  if (typeof status !== 'number' || status < 400 || status >= 500) return undefined;
  return { status: 400, error: { code: 'unreadable', message: 'The request could not be read.' } };
}

/** What the body parser says of a body it could not take. */
function bodyRefusal(error: unknown): Refusal | undefined {
  const type = error instanceof Error && 'type' in error ? error.type : undefined;
  const body = (message: string) => [{ field: 'body', message }];
  if (type === 'entity.too.large') {
    const message = 'This is more than can be sent at once (2 MB).';
    return { status: 413, error: { code: 'too-large', message, problems: body(message) } };
  }
  if (typeof type === 'string' && /^(entity|encoding|charset|request|stream)\./.test(type)) {
    const message = 'The body could not be read; it must be JSON.';
    return { status: 400, error: { code: 'unreadable', message, problems: body(message) } };
  }
  return undefined;
}

function broken(): Refusal {
  const reference = randomUUID().slice(0, 8);
  const message = `Something broke on our side; nothing half-done was kept. Tell the studio this number: ${reference}.`;
  return { status: 500, error: { code: 'broken', message, reference } };
}
