import { setTimeout } from 'node:timers/promises';
import type { Answer, Given, Me } from '@jam-ledger/contract';
import type { Request, Response } from 'express';
import { newestMigration, type Store } from '../store/index.ts';
import {
  acceptInvitation,
  beginStudio,
  knowDevice,
  contextOf,
  describeMe,
  readCalendarFeed,
  showBeginning,
  showWelcome,
  signIn,
  WrongSignIn,
  type BookKeeping,
} from '../studio/index.ts';
import type { OpenRoute } from './handlers.ts';
import { DEVICE, DEVICE_COOKIE, deviceOf, SESSION_COOKIE } from './sessionCookie.ts';

/** A wrong sign-in is answered no sooner than this, milliseconds. Our choice. */
const WRONG_ANSWER_MS = 700;

/** What a route that is open to anybody is answered from. */
export interface Open {
  readonly store: Store;
  readonly now: Date;
  /** The key that whoever begins a studio must know; undefined where none can be begun. */
  readonly beginKey: string | undefined;
  readonly book: BookKeeping;
  readonly secureCookie: boolean;
  readonly request: Request;
  readonly response: Response;
}

/** What answers the routes that are open to whoever is not signed in. */
export const OPEN_HANDLERS: {
  readonly [Name in OpenRoute]: (open: Open, given: Given<Name>) => Promise<Answer<Name>>;
} = {
  health,
  beginning: ({ store, beginKey }) => showBeginning(store, beginKey),
  begin,
  signIn: openSession,
  me: async ({ request }) => (request.context ? describeMe(request.context) : null),
  async signOut({ request, response }) {
    await whenDone((callback) => request.session.destroy(callback));
    response.clearCookie(SESSION_COOKIE).status(204);
    return null;
  },
  readCalendarFeed: ({ store, now }, { token }) => readCalendarFeed(store, token, now),
  welcome: ({ store, now }, { token }) => showWelcome(store, token, now),
  accept: ({ store, now }, { token, body }) => acceptInvitation(store, token, { ...body, now }),
};

/** Whether the database answers and which migration it has: 200 when well, 503 when not. */
async function health({ store, request, response }: Open): Promise<Answer<'health'>> {
  try {
    return { database: 'up', migration: await newestMigration(store) };
  } catch (error) {
    request.log.error({ err: error }, 'the database does not answer');
    response.status(503);
    return { database: 'down', migration: null };
  }
}

async function openSession(open: Open, { body }: Given<'signIn'>): Promise<Answer<'signIn'>> {
  const started = Date.now();
  try {
    return await enterAs(open, await signIn(open.store, body));
  } catch (error) {
    await setTimeout(Math.max(0, WRONG_ANSWER_MS - (Date.now() - started)));
    throw error;
  }
}

async function begin(open: Open, { body }: Given<'begin'>): Promise<Answer<'begin'>> {
  return enterAs(open, await beginStudio(open.store, open.beginKey, body));
}

/** Opens a session of somebody’s own, whatever was open before. */
async function enterAs(
  { store, now, request, response, book, secureCookie }: Open,
  person: { readonly id: string; readonly studioId: string },
): Promise<Me> {
  await whenDone((callback) => request.session.regenerate(callback));
  request.session.personId = person.id;
  request.session.studioId = person.studioId;
  const context = await contextOf(store, { personId: person.id, sessionId: request.sessionID, now, book });
  if (!context) throw new WrongSignIn();
  const device = await knowDevice(context, deviceOf(request));
  response.cookie(DEVICE_COOKIE, device, { ...DEVICE, secure: secureCookie });
  // Nobody is told that they are signed in before that is kept.
  await whenDone((callback) => request.session.save(callback));
  return describeMe(context);
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
