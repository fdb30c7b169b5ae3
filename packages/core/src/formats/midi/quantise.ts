import { TICKS_PER_QUARTER } from '../../notation/index.ts';

/** How a beat may be divided, the plainest first, and what each further kind costs, as a share of a beat that a note may be off instead. */
export interface Grid {
  readonly divisions: readonly number[];
  readonly strain: number;
}

/** Notes of a file lie close to where they are meant. Our choice. */
const OF_FILES: Grid = { divisions: [1, 2, 4, 3, 6, 8, 5, 7, 9, 12, 16], strain: 0.004 };
/** Notes that were played and heard lie beside it, and are rarely as intricate. Our choice. */
export const OF_HANDS: Grid = { divisions: [1, 2, 4, 3, 6], strain: 0.022 };

interface Sounding {
  readonly at: number;
  readonly end: number;
}

/** A note with the places it is written at. Ticks. */
export interface OnGrid<Note> {
  readonly note: Note;
  readonly at: number;
  readonly end: number;
}

/**
 * Notes put on places that can be written: in each beat the division to which its onsets lie nearest, plainer ones first. Ends lie on
 * the same divisions; a note lasts at least one part. What lies on such a place already stays. Linear.
 */
export function quantised<Note extends Sounding>(
  notes: readonly Note[],
  grid: Grid = OF_FILES,
): readonly OnGrid<Note>[] {
  const sorted = notes.toSorted((a, b) => a.at - b.at);
  const beats = new Map<number, number[]>();
  for (const { at } of sorted) {
    const beat = Math.floor((at + TICKS_PER_QUARTER / 64) / TICKS_PER_QUARTER);
    beats.set(beat, [...(beats.get(beat) ?? []), at - beat * TICKS_PER_QUARTER]);
  }
  const divisions = new Map([...beats].map(([beat, onsets]) => [beat, bestDivision(onsets, grid)]));
  const snap = (tick: number, coarse: boolean) => {
    const beat = Math.floor((tick + TICKS_PER_QUARTER / 64) / TICKS_PER_QUARTER);
    const parts = divisions.get(beat) ?? (coarse ? 4 : 1);
    const part = TICKS_PER_QUARTER / parts;
    return { at: Math.round(tick / part) * part, part };
  };
  return sorted.map((note) => {
    const { at, part } = snap(note.at, false);
    const end = snap(note.end, true).at;
    return { note, at, end: Math.max(end, at + part) };
  });
}

function bestDivision(onsets: readonly number[], { divisions, strain }: Grid): number {
  let best = divisions[0] ?? 1;
  let least = Infinity;
  divisions.forEach((parts, index) => {
    const part = TICKS_PER_QUARTER / parts;
    const off =
      Math.max(...onsets.map((onset) => Math.abs(onset - Math.round(onset / part) * part))) / TICKS_PER_QUARTER;
    // Notes that fall together on one place were apart.
    const places = new Set(onsets.map((onset) => Math.round(onset / part)));
    const apart = new Set(onsets.map((onset) => Math.round(onset / (TICKS_PER_QUARTER / 16)))).size;
    const cost = off + index * strain + (places.size < apart ? 1 : 0);
    if (cost < least - 1e-9) {
      least = cost;
      best = parts;
    }
  });
  return best;
}
