import type { DatedResult, MasteryState } from './mastery.ts';

/** A piece as far as the whole song is concerned. */
export interface SongPart {
  /** How long it is, in any unit that is the same for all. */
  readonly length: number;
  /** Share of the target reached, 0 to 1. */
  readonly share: number;
  readonly state: MasteryState;
}

/** How much of a song stands, as shares of its length, 0 to 1. */
export interface SongProgress {
  readonly held: number;
  /** Playable at the target, at 80 and at 60 in 100 of it. */
  readonly full: number;
  readonly at80: number;
  readonly at60: number;
}

/** How much of some pieces is held, and playable at what tempo, by their length. All 0 for none. Linear. */
export function songProgress(parts: readonly SongPart[]): SongProgress {
  const all = parts.reduce((sum, { length }) => sum + length, 0);
  const share = (counts: (part: SongPart) => boolean) =>
    all === 0 ? 0 : parts.filter(counts).reduce((sum, { length }) => sum + length, 0) / all;
  return {
    held: share(({ state }) => state === 'held'),
    full: share(reaches(100)),
    at80: share(reaches(80)),
    at60: share(reaches(60)),
  };
}

/** Whether a piece is at so many hundredths of its target, as they are shown. */
const reaches =
  (percent: number) =>
  ({ share }: SongPart): boolean =>
    Math.round(share * 100) >= percent;

/** What became of a piece since the last lesson. Tempos of its best clean takes; null where there is none. */
export interface SinceLesson {
  readonly before: number | null;
  readonly since: number | null;
  readonly results: number;
  readonly misses: number;
}

/** The day of the last lesson: the last on which something was posted in ink; undefined for none. */
export function lastLesson(histories: readonly (readonly DatedResult[])[]): string | undefined {
  return histories.reduce<string | undefined>((newest, history) => {
    const day = history.findLast(({ medium }) => medium === 'ink')?.day;
    return day !== undefined && (newest === undefined || day > newest) ? day : newest;
  }, undefined);
}

/** What was posted for a piece after a day, against what it was until then. */
export function sinceLesson(history: readonly DatedResult[], lesson: string): SinceLesson {
  const after = history.filter(({ day }) => day > lesson);
  const best = (results: readonly DatedResult[]) =>
    results.reduce<number | null>(
      (top, { bpm, outcome }) => (outcome === 'clean' ? Math.max(top ?? 0, bpm) : top),
      null,
    );
  return {
    before: best(history.filter(({ day }) => day <= lesson)),
    since: best(after),
    results: after.length,
    misses: after.filter(({ outcome }) => outcome === 'not-yet').length,
  };
}
