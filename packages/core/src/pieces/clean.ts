/** What a clean take is. */
export interface CleanRule {
  /** Of 100 notes, so many are in time at least. */
  readonly inTimePercent: number;
  /** A bend ends within so many cents of its pitch. */
  readonly bendCents: number;
}

/** How strictly a take is heard: by the share of its notes that must be in time. Every note is there and none wrong in all of them. */
export const CLEAN_SCHOOLS = ['nine in ten', 'eight in ten', 'nearly all'] as const;
/** One of the `CLEAN_SCHOOLS`. */
export type CleanSchool = (typeof CLEAN_SCHOOLS)[number];

/** The rule of each: nine in ten and a quarter of a semitone are usual, the others for who begins and who plays in public. Our choice. */
export const CLEAN_RULES: Readonly<Record<CleanSchool, CleanRule>> = {
  'nine in ten': { inTimePercent: 90, bendCents: 25 },
  'eight in ten': { inTimePercent: 80, bendCents: 40 },
  'nearly all': { inTimePercent: 97, bendCents: 15 },
};
