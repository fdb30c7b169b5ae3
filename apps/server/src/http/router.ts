import { ROUTE_NAMES, ROUTES, type Route, type RouteName } from '@jam-ledger/contract';
import { Router, type RequestHandler } from 'express';
import type { Store } from '../store/index.ts';
import { requireOwner, requireRole, type RequestContext } from '../studio/index.ts';
import { NotSignedIn } from './errors.ts';
import { HANDLERS, type OpenRoute } from './handlers.ts';
import { inputOf } from './input.ts';
import { limitsOf } from './limits.ts';
import { OPEN_HANDLERS } from './openHandlers.ts';

declare module 'express-serve-static-core' {
  interface Request {
    /** Who is asking; undefined when nobody is signed in. */
    context?: RequestContext;
  }
}

declare module 'express-session' {
  interface SessionData {
    personId: string;
    studioId: string;
  }
}

/** Methods that change nothing. */
export const READING: ReadonlySet<string> = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Measuring and hashing a password takes long; no connection is held meanwhile. */
const WITHOUT_TRANSACTION: ReadonlySet<RouteName> = new Set<RouteName>(['changePassword', 'changeNames']);

/** What all routes are answered from. */
interface Around {
  readonly store: Store;
  readonly now: () => Date;
  readonly beginKey: string | undefined;
}

/** A router of some routes of the table, or of all but those. */
export function routerOf(around: Around, isMeant: (name: RouteName) => boolean): Router {
  const router = Router();
  const limits: Partial<Record<RouteName, readonly RequestHandler[]>> = limitsOf(around.store);
  for (const name of ROUTE_NAMES.filter(isMeant)) {
    const { method, path } = ROUTES[name];
    const handler = isOpen(name) ? answerAnybody(name, around) : answer(name);
    router[METHODS[method]](path, ...(limits[name] ?? []), handler);
  }
  return router;
}

const METHODS = { GET: 'get', POST: 'post', PUT: 'put', DELETE: 'delete' } as const;

function isOpen(name: RouteName): name is OpenRoute {
  return ROUTES[name].who === 'anybody';
}

// The name ties what was given to what takes it.
// eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters
function answerAnybody<Name extends OpenRoute>(name: Name, { store, now, beginKey }: Around): RequestHandler {
  const { type }: Route = ROUTES[name];
  return async (request, response) => {
    const given = await inputOf(name, request, undefined);
    const value = await OPEN_HANDLERS[name]({ store, now: now(), beginKey, request, response }, given);
    if (type !== undefined && typeof value === 'string') response.type(type).send(value);
    else response.json(value);
  };
}

/**
 * Answers somebody who is signed in and may ask. Whatever may change something runs in one transaction, so that what is refused
 * is not stored.
 */
// The name ties what was given to what takes it.
// eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters
function answer<Name extends Exclude<RouteName, OpenRoute>>(name: Name): RequestHandler {
  const route: Route = ROUTES[name];
  return async (request, response) => {
    const { context } = request;
    if (!context) throw new NotSignedIn();
    const work = async () => {
      requireRole(context, route);
      const given = await inputOf(name, request, context);
      await requireOwner(context, route, given);
      return HANDLERS[name](context, given);
    };
    const isPlain = READING.has(request.method) || WITHOUT_TRANSACTION.has(name);
    const value = await (isPlain ? work() : context.store.inTransaction(work));
    response.status(route.creates ? 201 : 200).json(value);
  };
}
