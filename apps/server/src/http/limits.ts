import type { ErrorAnswer } from '@jam-ledger/contract';
import type { Request, RequestHandler } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import { SignInCounts, type Store } from '../store/index.ts';

/** What is counted lies together for so long, milliseconds. Our choice. */
const WINDOW_MS = 15 * 60 * 1000;

/** Wrong sign-ins, wrong tokens and wrong old passwords allowed in a window. Our choice. */
const MAX = { signInsOfName: 10, signInsOfAddress: 60, links: 30, passwords: 30 } as const;

const signIns = 'Too many wrong sign-ins; wait a quarter of an hour and try again.';
const tries = 'Too many wrong tries; wait a quarter of an hour and try again.';

/** How often what can be guessed may be guessed at, by the route where that is done. */
export function limitsOf(store: Store) {
  const limit = (prefix: string, max: number, keyOf: (request: Request) => string, message: string): RequestHandler => {
    const answer: ErrorAnswer = { error: { code: 'slow-down', message } };
    return rateLimit({
      windowMs: WINDOW_MS,
      limit: max,
      skipSuccessfulRequests: true,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      store: new SignInCounts(store, prefix),
      keyGenerator: keyOf,
      message: answer,
    });
  };
  const passwords = limit('password:', MAX.passwords, addressOf, tries);
  const links = limit('invitation:', MAX.links, addressOf, tries);
  return {
    signIn: [
      limit('address:', MAX.signInsOfAddress, addressOf, signIns),
      limit('name:', MAX.signInsOfName, nameOf, signIns),
    ],
    welcome: [links],
    accept: [links],
    begin: [links],
    readCalendarFeed: [links],
    changeNames: [passwords],
    changePassword: [passwords],
  } as const;
}

function addressOf(request: Request): string {
  return ipKeyGenerator(request.ip ?? '');
}

function nameOf(request: Request): string {
  const body: unknown = request.body;
  const name = typeof body === 'object' && body !== null && 'name' in body ? body.name : '';
  return `${addressOf(request)} ${typeof name === 'string' ? name.slice(0, 64).toLowerCase() : ''}`;
}
