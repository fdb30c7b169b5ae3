import type { DraftNote, Shape } from './drafts.ts';

/** What a shape adds above its root: strings thinner, semitones. Source: common practice. */
const SHAPES: Readonly<Record<Shape, readonly (readonly [strings: number, semitones: number])[]>> = {
  power: [[1, 7]],
  'power with octave': [
    [1, 7],
    [2, 12],
  ],
  octave: [[2, 12]],
};

/** A root with the notes of its shape; those that the neck or the strings have no place for are left out. */
export function inShape(shape: Shape, notes: readonly DraftNote[], openMidis: readonly number[]): DraftNote[] {
  const [root] = notes;
  const midi = root && openMidis[root.string - 1];
  if (!root || midi === undefined || root.fret === null || notes.length > 1) return [...notes];
  const { fret, string } = root;
  const added = SHAPES[shape].flatMap(([strings, semitones]): readonly DraftNote[] => {
    const open = openMidis[string - strings - 1];
    const there = open === undefined ? -1 : midi + fret + semitones - open;
    return there < 0 ? [] : [{ string: string - strings, fret: there }];
  });
  return [root, ...added];
}

/** A pair of which the thicker string is bent to the pitch of the thinner, where nothing is bent yet. */
export function bentToUnison(notes: readonly DraftNote[], openMidis: readonly number[]): DraftNote[] {
  const heights = notes.map(({ string, fret }) => (openMidis[string - 1] ?? 0) + (fret ?? 0));
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const isBent = notes.some(({ moves, preBend }) => moves ?? preBend);
  if (notes.length !== 2 || isBent || low === high) return [...notes];
  return notes.map((note, index) =>
    heights[index] === low ? { ...note, moves: [{ kind: 'bend', steps: (high - low) / 2 }] } : note,
  );
}
