import type { Role } from './session.ts';

/** The owner alone. */
export const OWNER = ['owner'] as const satisfies readonly Role[];
/** Whoever teaches here. */
export const TEACHERS = ['owner', 'teacher'] as const satisfies readonly Role[];
/** Students, signed in as themselves. */
export const STUDENTS = ['student'] as const satisfies readonly Role[];
/** All but guardians, who read and change nothing. */
export const PLAYERS = ['owner', 'teacher', 'student'] as const satisfies readonly Role[];
/** Whoever is signed in. */
export const ALL = ['owner', 'teacher', 'student', 'guardian'] as const satisfies readonly Role[];
