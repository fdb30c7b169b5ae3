import type { Span } from '../notation/index.ts';

/** What can be read in two ways. */
export type DoubtKind =
  | 'which E'
  | 'string'
  | 'which way'
  | 'how far'
  | 'a step'
  | 'slide'
  | 'open'
  | 'correction'
  | 'not understood'
  | 'fret'
  | 'nothing before';

/** Something that is asked rather than guessed, at its words. */
export interface SpokenDoubt {
  readonly kind: DoubtKind;
  readonly span: Span;
  readonly says: string;
  /** What may be meant, the one that was taken first; empty where only the teacher knows. */
  readonly choices: readonly SpokenChoice[];
}

/** One of several things that may be meant. */
export interface SpokenChoice {
  readonly label: string;
  /** What would be said in place of the words in doubt; `…` stands for those words. */
  readonly say: string;
}

/** Several ways, the one that was taken first. */
export function takenFirst<Way>(taken: Way, ways: readonly Way[]): readonly Way[] {
  return [taken, ...ways.filter((one) => one !== taken)];
}

/**
 * What a teacher means by words that others mean otherwise: the label that was chosen before, by the kind of the doubt. Of those that
 * were not understood, the words that say nothing of notes, spaces between them.
 */
export type Habits = Readonly<Partial<Record<DoubtKind, string>>>;

/** What a word that is not understood may be. */
export const JUST_TALK = 'just talk';
