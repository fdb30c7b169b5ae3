import { check, idParams, type CheckContext } from '@jam-ledger/contract';
import type { Request, RequestHandler } from 'express';
import type { Schema } from 'joi';
import { dayOf, Invalid, Forbidden, type RequestContext } from '../studio/index.ts';
import { NotSignedIn } from './errors.ts';

/** Methods that change nothing. */
export const READING: ReadonlySet<string> = new Set(['GET', 'HEAD', 'OPTIONS']);

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

/** The visit of the person signed in. @throws NotSignedIn */
export function contextOf(request: Request): RequestContext {
  if (!request.context) throw new NotSignedIn();
  return request.context;
}

/** The body, checked; days are checked against today in the studio. @throws Invalid */
export function bodyOf<T>(request: Request, schema: Schema<T>): T {
  const context = request.context ? { today: dayOf(request.context) } : {};
  return sound(schema, request.body, context);
}

/** The query, checked. @throws Invalid */
export function queryOf<T>(request: Request, schema: Schema<T>): T {
  return sound(schema, { ...request.query });
}

/** The id in the path, checked. @throws Invalid */
export function idOf(request: Request): string {
  return sound(idParams, { id: request.params['id'] }).id;
}

/** A value from outside, checked. @throws Invalid */
export function sound<T>(schema: Schema<T>, value: unknown, context: CheckContext = {}): T {
  const checked = check(schema, value, context);
  if (!checked.ok) throw new Invalid(checked.problems);
  return checked.value;
}

/**
 * Answers a signed-in person's request with what `ask` gives, as JSON. Whatever may change something runs in one transaction, so that
 * what is refused is not stored.
 */
export function answer(
  ask: (context: RequestContext, request: Request) => Promise<unknown>,
  status: 200 | 201 = 200,
): RequestHandler {
  return async (request, response) => {
    const context = contextOf(request);
    const reads = READING.has(request.method);
    if (context.person.role === 'guardian' && !reads)
      throw new Forbidden('Guardians read these pages; they change nothing.');
    const work = () => ask(context, request);
    const value = await (reads ? work() : context.store.inTransaction(work));
    response.status(status).json(value);
  };
}
