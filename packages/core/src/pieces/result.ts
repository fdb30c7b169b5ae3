/** How a take went: played clean, or not yet. */
export const OUTCOMES = ['clean', 'not-yet'] as const;
/** One of the `OUTCOMES`. */
export type Outcome = (typeof OUTCOMES)[number];

/** Pencil: logged by the student alone. Ink: heard by the teacher in a lesson. */
export const MEDIA = ['pencil', 'ink'] as const;
/** One of the `MEDIA`. */
export type Medium = (typeof MEDIA)[number];

/** One result posted for a piece. Tempo in quarter notes a minute. */
export interface Result {
  readonly bpm: number;
  readonly outcome: Outcome;
  readonly medium: Medium;
  /** How much of the piece was played, in hundredths; all of it when left out. */
  readonly percent?: number;
}

/** A result at this share of the target is one at the target, as metronomes step. Our choice. */
export const NEAR_TARGET = 0.97;

/** Whether all of the piece was played. */
export function isWhole({ percent = 100 }: Result): boolean {
  return percent === 100;
}

/** How fast a piece has been played clean, told apart by medium; null where nothing clean is posted. */
export interface Standing {
  readonly inkBpm: number | null;
  readonly pencilBpm: number | null;
  /** Share of the target reached, 0 to 1: by ink where there is any, else by pencil. */
  readonly share: number;
  readonly by: Medium | null;
}

/**
 * The best clean tempo of the whole piece in ink and in pencil, and the share of the target that counts.
 *
 * @throws RangeError when the target is not above 0.
 */
export function standingOf(history: readonly Result[], target: number): Standing {
  if (!(target > 0)) throw new RangeError(`a target tempo is above 0, not ${target}`);
  const best = (medium: Medium) =>
    history.reduce<number | null>(
      (top, result) =>
        result.medium === medium && result.outcome === 'clean' && isWhole(result)
          ? Math.max(top ?? 0, result.bpm)
          : top,
      null,
    );
  const inkBpm = best('ink');
  const pencilBpm = best('pencil');
  const by = inkBpm !== null ? 'ink' : pencilBpm !== null ? 'pencil' : null;
  return { inkBpm, pencilBpm, share: Math.min(1, (inkBpm ?? pencilBpm ?? 0) / target), by };
}
