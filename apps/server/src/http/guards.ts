import type { RequestHandler } from 'express';
import type { Sessions, Store } from '../store/index.ts';
import { contextOf, contextOfPerson, type BookKeeping } from '../studio/index.ts';
import { READING } from './router.ts';
import { OtherOrigin } from './errors.ts';

/** What is answered to one person lies in no cache. */
export const keptNowhere: RequestHandler = (_request, response, next) => {
  response.setHeader('Cache-Control', 'no-store');
  next();
};

/** Refuses changes that a page of another origin sends with our cookie. */
export const sameOriginOnly: RequestHandler = (request, _response, next) => {
  if (READING.has(request.method)) {
    next();
    return;
  }
  const { origin, host } = request.headers;
  const site = request.headers['sec-fetch-site'];
  const ownSite = site === undefined || site === 'same-origin' || site === 'none';
  const ownOrigin = origin === undefined || hostOf(origin) === host;
  if (!ownSite || !ownOrigin) throw new OtherOrigin();
  next();
};

function hostOf(origin: string): string | undefined {
  return URL.canParse(origin) ? new URL(origin).host : undefined;
}

/**
 * Tells who is signed in, looked up anew for every request, so that a role taken away is gone at once: with the session, and once more where
 * something may change, since a body can be long on its way.
 */
export function knowCaller(
  { store, now, book }: { readonly store: Store; readonly now: () => Date; readonly book: BookKeeping },
  sessions: Pick<Sessions, 'personOf'>,
): RequestHandler {
  return async (request, _response, next) => {
    const { personId } = request.session;
    const around = { sessionId: request.sessionID, now: now(), book };
    const context = READING.has(request.method)
      ? await contextOfPerson(store, sessions.personOf(request), around)
      : personId !== undefined && (await contextOf(store, { ...around, personId }));
    if (context) request.context = context;
    next();
  };
}
