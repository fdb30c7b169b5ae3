import type { FieldProblem } from './check.ts';

/** Why a request was refused, for programs. */
export type ErrorCode =
  | 'unreadable'
  | 'not-signed-in'
  | 'wrong-sign-in'
  | 'not-yours'
  | 'other-origin'
  | 'unknown'
  | 'stale'
  | 'too-large'
  | 'invalid'
  | 'slow-down'
  | 'away'
  | 'broken';

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
