import type { GuitarAndHand, Role, StudentSchools } from '@jam-ledger/contract';

/** The made-up studio above a boat shed in a made-up harbour town. */
export const demoStudio = { name: 'Gull Loft Guitar, Port Averrow', zone: 'Europe/Oslo', demo: true } as const;

/** Somebody of the demo studio, with what they sign in with. Only an empty database is given these. */
export interface DemoSignIn {
  readonly signInName: string;
  readonly password: string;
  readonly role: Role;
  readonly name: string;
  /** What of guitar, hand and schools is not as most have it. */
  readonly guitar: Partial<GuitarAndHand>;
  readonly schools?: Partial<StudentSchools>;
  /** Whose pages a guardian reads. */
  readonly wards?: readonly string[];
}

/** Everybody of the demo studio. */
export const demoSignIns: readonly DemoSignIn[] = [
  {
    signInName: 'mara',
    password: 'ink-and-paper',
    role: 'teacher',
    name: 'Mara Tenfold',
    guitar: {},
  },
  {
    signInName: 'ines',
    password: 'pencil-case',
    role: 'student',
    name: 'Ines Harrowmere',
    guitar: { frets: 22, spanFrets: 4 },
  },
  {
    signInName: 'tomas',
    password: 'pencil-case',
    role: 'student',
    name: 'Tomas Brackwater',
    guitar: { frets: 24, tremoloArm: true, spanFrets: 5 },
    schools: { picking: 'strict alternate' },
  },
  {
    signInName: 'pia',
    password: 'pencil-case',
    role: 'student',
    name: 'Pia Lindquay',
    guitar: { frets: 20, scaleLengthMm: 578, spanFrets: 3 },
    schools: { position: 'one box' },
  },
  {
    signInName: 'ferris',
    password: 'pencil-case',
    role: 'student',
    name: 'Ferris Oldegard',
    guitar: { frets: 21, leftHanded: true },
    schools: { first: 'why first' },
  },
  {
    signInName: 'signe',
    password: 'read-along',
    role: 'guardian',
    name: 'Signe Lindquay',
    guitar: {},
    wards: ['pia'],
  },
  { signInName: 'odile', password: 'keys-and-deeds', role: 'owner', name: 'Odile Skerryvane', guitar: {} },
];
