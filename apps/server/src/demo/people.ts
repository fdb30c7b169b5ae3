import type { Role } from '@jam-ledger/contract';

/** The made-up studio above a boat shed in a made-up harbour town. */
export const demoStudio = { name: 'Gull Loft Guitar, Port Averrow', zone: 'Europe/Oslo' } as const;

/** Somebody of the demo studio, with what they sign in with. Only an empty database is given these. */
export interface DemoSignIn {
  readonly signInName: string;
  readonly password: string;
  readonly role: Role;
  readonly name: string;
  readonly frets: number;
}

/** Everybody of the demo studio. */
export const demoSignIns: readonly DemoSignIn[] = [
  { signInName: 'mara', password: 'ink-and-paper', role: 'teacher', name: 'Mara Tenfold', frets: 22 },
  { signInName: 'ines', password: 'pencil-case', role: 'student', name: 'Ines Harrowmere', frets: 22 },
  { signInName: 'tomas', password: 'pencil-case', role: 'student', name: 'Tomas Brackwater', frets: 24 },
  { signInName: 'pia', password: 'pencil-case', role: 'student', name: 'Pia Lindquay', frets: 20 },
  { signInName: 'ferris', password: 'pencil-case', role: 'student', name: 'Ferris Oldegard', frets: 21 },
  { signInName: 'odile', password: 'keys-and-deeds', role: 'owner', name: 'Odile Skerryvane', frets: 22 },
];
