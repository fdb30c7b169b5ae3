import type { ErrorAnswer } from '@jam-ledger/contract';
import type { Request, RequestHandler } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import { SignInCounts, type Store } from '../store/index.ts';
import { digestOf, isKnownDevice } from '../studio/index.ts';
import { deviceOf } from './sessionCookie.ts';

/** What is counted lies together for so long, milliseconds. Our choice. */
const WINDOW_MS = 15 * 60 * 1000;

/** Wrong sign-ins, wrong tokens and wrong old passwords allowed in a window. Our choice. */
const MAX = { signInsOfName: 10, signInsOfAddress: 60, links: 30, passwords: 30 } as const;

const signIns = 'Too many wrong sign-ins; wait a quarter of an hour and try again.';
const tries = 'Too many wrong tries; wait a quarter of an hour and try again.';

/** How often what can be guessed may be guessed at, by the route where that is done. */
export function limitsOf(store: Store) {
  const limit = (
    prefix: string,
    max: number,
    keyOf: (request: Request) => string,
    message: string,
    isMeant: (request: Request) => boolean = () => true,
  ): RequestHandler => {
    const answer: ErrorAnswer = { error: { code: 'slow-down', message } };
    return rateLimit({
      windowMs: WINDOW_MS,
      limit: max,
      skipSuccessfulRequests: true,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      store: new SignInCounts(store, prefix),
      keyGenerator: keyOf,
      skip: (request) => !isMeant(request),
      message: answer,
    });
  };
  const passwords = limit('password:', MAX.passwords, addressOf, tries);
  const links = limit('invitation:', MAX.links, addressOf, tries);
  return {
    // Whoever guesses is stopped, and not whoever sits at a device that is known for the name: that one is counted alone. Source:
    // OWASP, “Slow Down Online Guessing Attacks with Device Cookies” (from memory).
    signIn: [
      knowing(store),
      limit('address:', MAX.signInsOfAddress, addressOf, signIns, isStrange),
      limit('name:', MAX.signInsOfName, nameOf, signIns, isStrange),
      limit('device:', MAX.signInsOfName, deviceKeyOf, signIns, (request) => !isStrange(request)),
    ],
    welcome: [links],
    accept: [links],
    begin: [links],
    readCalendarFeed: [links],
    changeNames: [passwords],
    changePassword: [passwords],
  } as const;
}

/** Devices that are known for the name that is signed in with. */
const known = new WeakSet<Request>();
const isStrange = (request: Request) => !known.has(request);

/** Finds out whether a sign-in comes from a device that is known for its name. */
function knowing(store: Store): RequestHandler {
  return async (request, _response, next) => {
    const device = deviceOf(request);
    if (device !== undefined && (await isKnownDevice(store, signInNameOf(request), device))) known.add(request);
    next();
  };
}

function deviceKeyOf(request: Request): string {
  return `${digestOf(deviceOf(request) ?? '')} ${signInNameOf(request)}`;
}

function addressOf(request: Request): string {
  return ipKeyGenerator(request.ip ?? '');
}

function nameOf(request: Request): string {
  return `${addressOf(request)} ${signInNameOf(request)}`;
}

function signInNameOf({ body }: { readonly body: unknown }): string {
  const name = typeof body === 'object' && body !== null && 'name' in body ? body.name : '';
  return typeof name === 'string' ? name.slice(0, 64).toLowerCase() : '';
}
