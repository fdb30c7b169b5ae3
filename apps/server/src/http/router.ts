import { ROUTE_NAMES, ROUTES, type Route, type RouteName } from '@jam-ledger/contract';
import { Router, type RequestHandler } from 'express';
import { databaseTrouble, isAway, type Store } from '../store/index.ts';
import { requireOwner, requireRole, type BookKeeping, type RequestContext } from '../studio/index.ts';
import { NotSignedIn } from './errors.ts';
import { giveFile } from './files.ts';
import { HANDLERS, type OpenRoute } from './handlers.ts';
import { inputOf } from './input.ts';
import { giveJson } from './json.ts';
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
const WITHOUT_TRANSACTION: ReadonlySet<RouteName> = new Set<RouteName>([
  ...(['changePassword', 'changeNames'] as const),
  // What is done with the whole book goes on behind the answer, or waits for a file that is sent.
  ...(['makeBackup', 'bringBackup', 'restore', 'sendPart'] as const),
]);

/** What may be a moment old is read from a copy of the database, where there is one. */
const MAY_BE_OLD: ReadonlySet<RouteName> = new Set<RouteName>([
  'licks',
  'search',
  'seriesReport',
  'studioReport',
  'trail',
]);

/** Asks the copy, and the first while the copy is away or does not have everything yet. */
async function askCopy<T>(ask: (store: Store) => Promise<T>, replica: Store, first: Store): Promise<T> {
  try {
    return await ask(replica);
  } catch (error) {
    if (!isAway(error) && !databaseTrouble(error)) throw error;
    return ask(first);
  }
}

/** What all routes are answered from. */
interface Around {
  readonly store: Store;
  /** A copy of the database that may lag, for what may be old. */
  readonly replica?: Store | undefined;
  readonly now: () => Date;
  readonly beginKey: string | undefined;
  readonly book: BookKeeping;
  /** Whether cookies are sent over https only. */
  readonly secureCookie: boolean;
}

/** A router of some routes of the table, or of all but those. */
export function routerOf(around: Around, isMeant: (name: RouteName) => boolean): Router {
  const router = Router();
  const limits: Partial<Record<RouteName, readonly RequestHandler[]>> = limitsOf(around.store);
  for (const name of ROUTE_NAMES.filter(isMeant)) {
    const { method, path } = ROUTES[name];
    const handler = isOpen(name) ? answerAnybody(name, around) : answer(name, around);
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
function answerAnybody<Name extends OpenRoute>(name: Name, around: Around): RequestHandler {
  const { type }: Route = ROUTES[name];
  return async (request, response) => {
    const given = await inputOf(name, request, undefined);
    const value = await OPEN_HANDLERS[name]({ ...around, now: around.now(), request, response }, given);
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
function answer<Name extends Exclude<RouteName, OpenRoute>>(name: Name, { replica }: Around): RequestHandler {
  const route: Route = ROUTES[name];
  return async (request, response) => {
    const { context } = request;
    if (!context) throw new NotSignedIn();
    const work = async () => {
      requireRole(context, route);
      const given = await inputOf(name, request, context);
      await requireOwner(context, route, given);
      const asked = (store: Store) => HANDLERS[name]({ ...context, store, sent: request }, given);
      return replica && MAY_BE_OLD.has(name) ? askCopy(asked, replica, context.store) : asked(context.store);
    };
    const isPlain = READING.has(request.method) || WITHOUT_TRANSACTION.has(name);
    const value = await (isPlain ? work() : context.store.inTransaction(work));
    if (route.type === undefined) await giveJson(response.status(route.creates ? 201 : 200), value);
    else await giveFile(response, route.type, value);
  };
}
