import type { FieldProblem } from './problems.ts';

/** Why a request was refused, for programs. */
export const ERROR_CODES = [
  'unreadable',
  'not-signed-in',
  'wrong-sign-in',
  'not-yours',
  'other-origin',
  'unknown',
  'stale',
  'too-large',
  'invalid',
  'slow-down',
  'away',
  'broken',
] as const;
/** One of the `ERROR_CODES`. */
export type ErrorCode = (typeof ERROR_CODES)[number];

/** The body of every refusal. */
export interface ErrorAnswer {
  readonly error: {
    readonly code: ErrorCode;
    /** A plain sentence for the person. */
    readonly message: string;
    /** What is wrong, field by field (422, 400). */
    readonly problems?: readonly FieldProblem[];
    /** The row as it stands now (409). */
    readonly current?: unknown;
    /** The number under which the server logged the trouble (500). */
    readonly reference?: string;
  };
}
