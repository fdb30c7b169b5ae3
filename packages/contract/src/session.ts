import type { Holiday } from '@jam-ledger/core/series';
import type { FidelitySchool, NamingSchool } from './schools.ts';

/** What a person may do: an owner all, a teacher the studio's teaching, a student their own; a guardian reads their child's. */
export const ROLES = ['owner', 'teacher', 'student', 'guardian'] as const;
/** One of the `ROLES`. */
export type Role = (typeof ROLES)[number];

/** Longest name to sign in with, and longest password, characters. */
export const SIGN_IN_LIMITS = { name: 64, password: 200 } as const;

/** Signing in. */
export interface SignIn {
  readonly name: string;
  readonly password: string;
}

/** Who is signed in, where, and which day it is there. */
export interface Me {
  readonly id: string;
  readonly name: string;
  readonly signInName: string;
  readonly role: Role;
  readonly studio: {
    readonly name: string;
    /** Whether it is the made-up studio that an empty book is given. */
    readonly demo: boolean;
    readonly zone: string;
    readonly today: string;
    readonly holidays: readonly Holiday[];
  };
  /** How a student is taught, as far as pages without a song need it; null for others. */
  readonly taught: { readonly naming: NamingSchool; readonly fidelity: FidelitySchool } | null;
  /** The students whose pages a guardian reads. */
  readonly wards: readonly { readonly id: string; readonly name: string }[];
}

/** Whether the server is well: the database answers, and the newest migration it has. */
export interface Health {
  readonly database: 'up' | 'down';
  readonly migration: string | null;
}
