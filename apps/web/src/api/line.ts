import type { RouteName } from '@jam-ledger/contract';
import { keptAnswers } from './device.ts';

/**
 * What a student’s pages read. Their answers are kept on the device by person, and given again while the studio cannot be
 * reached; so are the ledger and the pieces that a teacher opened.
 */
const KEPT: ReadonlySet<RouteName> = new Set<RouteName>([
  ...(['me', 'ledger', 'entries', 'piece', 'sheet', 'takes'] as const),
  ...(['lessons', 'seriesList', 'series', 'seriesReport', 'homeNotes', 'requests', 'struck'] as const),
]);

/** Asked for by itself, and no reason to ask somebody to sign in: a book that is restored ends every session, and is waited for. */
const QUIET: ReadonlySet<RouteName> = new Set<RouteName>(['counts', 'seeList', 'book']);

/** The line to the studio: whose it is, and what is to be done when it is cut or a session has ended. */
export interface Line {
  /** Whose answers are kept; nobody’s where it is empty. */
  personId: string;
  /** Called with whether the line was cut, at each answer. */
  onCut: (isCut: boolean) => void;
  /** Called where the session has ended; whether somebody signed in again. */
  signInAgain: () => Promise<boolean>;
}

const ALONE: Line = { personId: '', onCut: () => undefined, signInAgain: () => Promise.resolve(false) };

/** The line of this page. The session sets it. */
export const line: Line = { ...ALONE };

/** Who is signed in is asked before it is known whose answers are kept. */
const ownerFor = (name: RouteName): string => (name === 'me' ? '' : line.personId);

/** Whether somebody is asked to sign in again before a route is given up. */
export function asksAgain(name: RouteName): Promise<boolean> {
  return QUIET.has(name) ? Promise.resolve(false) : line.signInAgain();
}

/** Keeps an answer, where such answers are kept. A device that keeps nothing, or is full, is no trouble here. */
export async function keepAnswer(name: RouteName, path: string, answer: unknown): Promise<void> {
  line.onCut(false);
  if (!KEPT.has(name) || (name !== 'me' && line.personId === '')) return;
  await keptAnswers.put(ownerFor(name), path, answer).catch(() => undefined);
}

/** What was answered last at an address; undefined where nothing is kept. */
export async function answerKept(name: RouteName, path: string): Promise<unknown> {
  line.onCut(true);
  return KEPT.has(name) ? keptAnswers.of(ownerFor(name), path).catch(() => undefined) : undefined;
}
