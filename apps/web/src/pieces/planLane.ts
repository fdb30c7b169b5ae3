import type { PlanPiece } from '@jam-ledger/contract';
import type { PlanPhrase } from './planEdits.ts';

/** Sizes of the plan, pixels: a row, the head, and how wide a whole song is at least and at most, by its phrases. */
export const LANE = { row: 30, head: 30, phrase: 64, min: 200, max: 520 } as const;

/** A phrase along the form. */
export interface LanePhrase {
  readonly id: string;
  readonly left: number;
  readonly width: number;
  readonly length: number;
}

/** The form of a song along which its pieces lie, pixels. */
export interface SongLane {
  readonly phrases: readonly LanePhrase[];
  readonly byId: ReadonlyMap<string, LanePhrase>;
  readonly sections: readonly {
    readonly id: string;
    readonly label: string;
    readonly left: number;
    readonly width: number;
  }[];
  readonly width: number;
}

/** Lays the phrases of a song out one after the other, to scale by their bars. */
export function laneOf(phrases: readonly PlanPhrase[]): SongLane {
  const bars = phrases.reduce((sum, { cut }) => sum + cut.bars, 0);
  const all = Math.min(LANE.max, Math.max(LANE.min, phrases.length * LANE.phrase));
  let left = 0;
  const placed = phrases.map(({ cut }) => {
    const width = (cut.bars / Math.max(1, bars)) * all;
    const one = { id: cut.id, left, width, length: cut.length, sectionId: cut.sectionId };
    left += width;
    return one;
  });
  const sections = new Map<string, { id: string; label: string; left: number; width: number }>();
  placed.forEach(({ sectionId, left: at, width }, index) => {
    const known = sections.get(sectionId);
    const label = phrases[index]?.section ?? '';
    if (known) known.width = at + width - known.left;
    else sections.set(sectionId, { id: sectionId, label, left: at, width });
  });
  const byId = new Map(placed.map((phrase) => [phrase.id, phrase]));
  return { phrases: placed, byId, sections: [...sections.values()], width: all };
}

/** From where to where a piece lies, pixels. */
function extentOf({ parts }: PlanPiece, { byId }: SongLane): readonly [left: number, right: number] {
  const edges = parts.flatMap(({ phraseId, from, to }) => {
    const phrase = byId.get(phraseId);
    if (!phrase) return [];
    const at = (tick: number) =>
      phrase.left + (phrase.width * Math.min(tick, phrase.length)) / Math.max(1, phrase.length);
    return [at(from), at(to ?? phrase.length)];
  });
  return edges.length === 0 ? [0, 0] : [Math.min(...edges), Math.max(...edges)];
}

/** How the bar of a piece is placed in its row. */
export function barOf(piece: PlanPiece, lane: SongLane): { readonly left: string; readonly width: string } {
  const [left, right] = extentOf(piece, lane);
  return { left: `${left + 1}px`, width: `${Math.max(5, right - left - 2)}px` };
}

/** Where lines to and from a piece meet it, pixels from the top of the rows. */
export function placeOf(piece: PlanPiece, index: number, lane: SongLane) {
  const [left, right] = extentOf(piece, lane);
  return { x: (left + right) / 2, top: index * LANE.row + LANE.row * 0.22, bottom: index * LANE.row + LANE.row * 0.78 };
}
