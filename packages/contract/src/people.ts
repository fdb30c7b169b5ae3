import type { Role } from './session.ts';

/** Longest name of a person; shortest password that is chosen; most students of one guardian. Our choice. */
export const PEOPLE_LIMITS = { name: 120, password: 10, wards: 12, together: 200, email: 254 } as const;

/** Whom the studio enters: all but its owner. */
export const ENTERED_ROLES = ['teacher', 'student', 'guardian'] as const;
/** One of the `ENTERED_ROLES`. */
export type EnteredRole = (typeof ENTERED_ROLES)[number];

/** Somebody to be entered. Nothing is asked but a name. */
export interface PersonBody {
  readonly role: EnteredRole;
  readonly name: string;
  /** The students whose pages a guardian reads; empty for others. */
  readonly wards: readonly string[];
}

/** Students entered together: all of them, or none. */
export interface StudentsBody {
  readonly names: readonly string[];
}

/** A changed person; `archived` puts them away with all that is theirs, and takes that back. */
export interface PersonChange {
  readonly version: number;
  readonly name: string;
  readonly wards: readonly string[];
  /** Who teaches a student; null where nobody does yet. */
  readonly teacherId: string | null;
  readonly archived: boolean;
  /** Where mail to them goes; null for nowhere, left out where that stays as it is. */
  readonly email?: string | null;
  /** Whether a teacher owns the studio, too; left out where that stays as it is. */
  readonly role?: 'owner' | 'teacher';
}

/** Somebody of the studio. */
export interface Person {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly role: Role;
  /** Whether they have a name and password to sign in with. */
  readonly signsIn: boolean;
  /** Until when an invitation holds that was not used yet. */
  readonly invitedUntil: string | null;
  readonly archived: boolean;
  readonly wards: readonly { readonly id: string; readonly name: string }[];
  readonly teacher: { readonly id: string; readonly name: string } | null;
  /** Where mail to them goes; null where nobody said. */
  readonly email: string | null;
  /** The day on which they are erased; null where nobody asked for it. */
  readonly eraseOn: string | null;
  /** Lessons that are still to come, of a student. */
  readonly lessonsToCome: number;
}

/** What became of a change: who it is now, and series that could not come back since others have their hours. */
export interface PersonChanged {
  readonly person: Person;
  readonly ended: readonly string[];
}

/** An invitation, shown once; the studio keeps only a digest of it. */
export interface Invitation {
  /** Path of the page where a name and a password are chosen. */
  readonly path: string;
  readonly expiresAt: string;
}

/** Who is invited, and where to. */
export interface Welcome {
  readonly name: string;
  readonly studio: string;
  readonly role: Role;
  /** The name they sign in with so far; empty for none. */
  readonly signInName: string;
}

/** The name and password chosen. */
export interface Acceptance {
  readonly signInName: string;
  readonly password: string;
}

/** One’s own name, and the one to sign in with; the password holds for whoever changes them. */
export interface OwnNames {
  readonly name: string;
  readonly signInName: string;
  readonly password: string;
}

/** A changed password, with the one that holds. */
export interface PasswordChange {
  readonly old: string;
  readonly password: string;
}

/** A message that would be sent; nothing leaves the machine. */
export interface Mail {
  readonly id: string;
  readonly to: string;
  readonly subject: string;
  readonly body: string;
  readonly at: string;
}
