import { CLEAN_SCHOOLS, LEARNING_SCHOOLS, TEMPO_SCHOOLS } from '@jam-ledger/core/pieces';
import type { Holiday } from '@jam-ledger/core/series';

/** How strokes are planned where nothing is written. */
export const PICKING_SCHOOLS = ['the player’s choice', 'strict alternate', 'economy', 'all down'] as const;
/** One of the `PICKING_SCHOOLS`. */
export type PickingSchool = (typeof PICKING_SCHOOLS)[number];

/** Where phrases are played: in the places of the recording, or in one box for learning. */
export const POSITION_SCHOOLS = ['as recorded', 'one box'] as const;
/** One of the `POSITION_SCHOOLS`. */
export type PositionSchool = (typeof POSITION_SCHOOLS)[number];

/** What the margin tells first: strings, frets and fingers, or chord, scale and degrees. */
export const WHY_SCHOOLS = ['where first', 'why first'] as const;
/** One of the `WHY_SCHOOLS`. */
export type WhySchool = (typeof WHY_SCHOOLS)[number];

/** What is heard first of a piece that is practised. */
export const HEARING_SCHOOLS = ['full speed first', 'slow first'] as const;
/** One of the `HEARING_SCHOOLS`. */
export type HearingSchool = (typeof HEARING_SCHOOLS)[number];

/** How strings are named where they are told: letters from the low E to the high e, or numbers from the thinnest. */
export const NAMING_SCHOOLS = ['letters', 'numbers'] as const;
/** One of the `NAMING_SCHOOLS`. */
export type NamingSchool = (typeof NAMING_SCHOOLS)[number];

/** How close a transcription keeps to the record. */
export const FIDELITY_SCHOOLS = ['note for note', 'as played live', 'in the ballpark'] as const;
/** One of the `FIDELITY_SCHOOLS`. */
export type FidelitySchool = (typeof FIDELITY_SCHOOLS)[number];

/** What each promises, in one sentence. */
export const FIDELITY_SAYS: Readonly<Record<FidelitySchool, string>> = {
  'note for note': 'Note for note, with alternates kept beside it.',
  'as played live': 'As it is played live.',
  'in the ballpark': 'In the ballpark, with room for one’s own ideas.',
};

/** Every question on which teachers differ, and its schools, the usual one first. */
export const SCHOOL_WORDS = {
  learning: LEARNING_SCHOOLS,
  raising: TEMPO_SCHOOLS,
  hearing: HEARING_SCHOOLS,
  picking: PICKING_SCHOOLS,
  position: POSITION_SCHOOLS,
  first: WHY_SCHOOLS,
  naming: NAMING_SCHOOLS,
  fidelity: FIDELITY_SCHOOLS,
  clean: CLEAN_SCHOOLS,
} as const;
/** One of the questions. */
export type SchoolName = keyof typeof SCHOOL_WORDS;
/** All of them. */
export const SCHOOL_NAMES: readonly SchoolName[] = [
  'learning',
  'raising',
  'hearing',
  'picking',
  'position',
  'first',
  'naming',
  'fidelity',
  'clean',
];

/** How a studio teaches where teachers differ. */
export type Schools = { readonly [Name in SchoolName]: (typeof SCHOOL_WORDS)[Name][number] };

/** The schools of one student; null where the studio’s holds. */
export type StudentSchools = { readonly [Name in keyof Schools]: Schools[Name] | null };

/** Most and least of what a guitar and a hand have. Our choice. */
export const GUITAR_LIMITS = {
  strings: { min: 4, max: 9 },
  /** Frets that fingers span from the fifth, `5 to 9` is 4. */
  spanFrets: { min: 2, max: 9 },
} as const;

/** A student’s guitar and hand, as little of it as the computing needs. */
export interface GuitarAndHand {
  readonly frets: number;
  readonly strings: number;
  readonly scaleLengthMm: number;
  readonly tremoloArm: boolean;
  readonly leftHanded: boolean;
  /** The widest comfortable span of frets from the fifth, or null where nobody asked. */
  readonly spanFrets: number | null;
}

/** A student as the teacher sees them. */
export interface Student {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly guitar: GuitarAndHand;
  readonly schools: StudentSchools;
}

/** A changed guitar, hand and schools of a student. */
export interface StudentChange {
  readonly version: number;
  readonly guitar: GuitarAndHand;
  readonly schools: StudentSchools;
}

/** The schools of a teacher, for the students they teach; null where the studio’s holds. */
export interface OwnSchools {
  readonly version: number;
  readonly schools: StudentSchools;
}

/** Minutes a week for transcribing, at most. Our choice: more than anybody works. */
export const MAX_WORK_MINUTES = 5000;

/** Longest names of a studio, a zone and a holiday, characters; most holidays kept. Our choice. */
export const STUDIO_LIMITS = { name: 120, zone: 64, holidayName: 60, holidays: 60 } as const;

/** The studio as it can be changed. */
export type StudioSchools = Schools & {
  readonly version: number;
  readonly name: string;
  /** For transcribing, in a week. */
  readonly workMinutes: number;
  /** The time zone of its walls, as the tz database names it. */
  readonly zone: string;
  readonly holidays: readonly Holiday[];
};
