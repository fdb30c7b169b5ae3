/** What is struck out, and can be put back. */
export const STRUCK_KINDS = ['section', 'phrase', 'piece', 'result', 'note', 'point', 'series'] as const;
/** One of the `STRUCK_KINDS`. */
export type StruckKind = (typeof STRUCK_KINDS)[number];

/** Something that was struck out. */
export interface StruckLine {
  readonly kind: StruckKind;
  readonly id: string;
  readonly version: number;
  /** What it is, and where it stood, in words. */
  readonly name: string;
  readonly place: string;
  /** When it was written, where that is known. */
  readonly at: string | null;
  /** Whether whoever looks may put it back. */
  readonly mayPutBack: boolean;
}

/** Whose, and of which song. */
export interface StruckQuery {
  readonly studentId?: string;
  readonly songId?: string;
}

/** What is put back, over the version that was seen. */
export interface PutBack {
  readonly kind: StruckKind;
  readonly id: string;
  readonly version: number;
}

/** Something that was corrected. */
export interface Correction {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly kind: string;
  /** What of it, and of which row in words. */
  readonly field: string;
  readonly name: string;
  readonly was: string;
  readonly became: string;
}

/** The lists whose new lines are counted on their tab. */
export const COUNTED_LISTS = ['desk', 'requests', 'practice', 'home'] as const;
/** One of the `COUNTED_LISTS`. */
export type CountedList = (typeof COUNTED_LISTS)[number];

/** How much is new on each list. */
export type Counts = Readonly<Record<CountedList, number>>;

/** A list that was looked at. */
export interface ListSeen {
  readonly list: CountedList;
}
