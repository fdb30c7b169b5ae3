/** What a teacher listens for at an event. */
export const HEARING_KINDS = [
  'bend',
  'slide',
  'muted string',
  'cut-off',
  'slur',
  'vibrato',
  'harmonic',
  'ringing',
  'palm mute',
] as const;
/** One of the `HEARING_KINDS`. */
export type HearingKind = (typeof HEARING_KINDS)[number];

/** What is said of a sign of the shorthand wherever it is met. Everything has to be said; null where there is nothing to say. */
export interface SignRecord {
  /** As it is typed, for the page of the notation. */
  readonly example: string;
  /** What it means, in a few words. */
  readonly means: string;
  /** What stands for it on the page, as the legend shows it. */
  readonly sign: string;
  /** What the legend of a printed page says of that sign. */
  readonly legend: string;
  /** What hands do there; null where it is no technique of its own. `rank`: the plainest 1; what is rarer adds more difficulty. */
  readonly technique: { readonly name: string; readonly rank: number } | null;
  /** What to listen for in a drill of it; null for nothing of its own. */
  readonly drill: string | null;
  /** What is inspected where it is heard: what must be so, said of where it stands; null for nothing. */
  readonly hearing: { readonly kind: HearingKind; readonly says: string } | null;
}
