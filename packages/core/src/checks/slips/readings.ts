import { topFret, type Guitar } from '../../fretboard/index.ts';
import type { Line, LineNote } from './line.ts';

/** How people slip. Source: common practice. */
export const SLIP_KINDS = [
  'one fret off',
  'tens lost or gained',
  'teen for ty',
  'neighbour string',
  'string that sounds alike',
  'big E for little e',
  'fret and string swapped',
  'an octave off',
  'size of the bend',
  'finger said for fret',
] as const;
export type SlipKind = (typeof SLIP_KINDS)[number];

/** A note as it would be in another reading. */
export interface Reread {
  readonly string: number;
  readonly fret: number;
  readonly bend: number;
  readonly midi: number;
}

/** Another reading of a typed number, letter or size: the notes that it changes, by their place in the line. */
export interface Reading {
  readonly kind: SlipKind;
  readonly changes: ReadonlyMap<number, Reread>;
}

/** Strings whose letters rhyme when they are spoken: E D G B e. Source: common practice. */
const RHYMING: readonly number[] = [6, 4, 3, 2, 1];

/** Numbers from 13 to 19 and the tens that sound like them; beyond 36 there are no frets. Source: common practice. */
const TEENS: readonly (readonly [teen: number, ty: number])[] = [
  [12, 20],
  [13, 30],
];

/** Sizes of a bend that are mistaken for each other, whole steps. Source: common practice. */
const SIZES: Readonly<Record<number, readonly number[]>> = { 0.5: [1], 1: [0.5, 1.5], 1.5: [1, 2], 2: [1, 1.5] };

/** No note has more readings of a kind than these. */
export const MOST_READINGS: Readonly<Record<SlipKind, number>> = {
  'one fret off': 2,
  'tens lost or gained': 1,
  'teen for ty': 1,
  'neighbour string': 2,
  'string that sounds alike': 3,
  'big E for little e': 1,
  'fret and string swapped': 1,
  'an octave off': 2,
  'size of the bend': 2,
  'finger said for fret': 1,
};

/** Every other reading of a note, by the kinds of slips; a changed string takes along the notes that are linked on. */
export function readingsOf(note: LineNote, line: Line, guitar: Guitar): readonly Reading[] {
  if (!note.isPlain) return [];
  const { string, fret, bend } = note;
  const readings: Reading[] = [];
  const add = (kind: SlipKind, to: { readonly string?: number; readonly fret?: number; readonly bend?: number }) => {
    const changed = { string: to.string ?? string, fret: to.fret ?? fret, bend: to.bend ?? bend };
    const isSame = changed.string === string && changed.fret === fret && changed.bend === bend;
    if (isSame || !isThere(changed, guitar)) return;
    const changes = new Map<number, Reread>();
    if (reread(note, changed, { line, guitar, changes })) readings.push({ kind, changes });
  };
  for (const by of [-1, 1]) add('one fret off', { fret: fret + by });
  add('tens lost or gained', { fret: fret < 10 ? fret + 10 : fret - 10 });
  for (const [teen, ty] of TEENS) {
    if (fret === ty) add('teen for ty', { fret: teen });
    if (fret === teen) add('teen for ty', { fret: ty });
  }
  for (const by of [-12, 12]) add('an octave off', { fret: fret + by });
  for (const size of bend === 0 ? [] : (SIZES[bend] ?? [])) add('size of the bend', { bend: size });
  const meant = fingerMeant(note, line);
  if (meant !== undefined) add('finger said for fret', { fret: meant });
  // The string of a linked note is not typed.
  if (note.from !== undefined) return readings;
  for (const by of [-1, 1]) add('neighbour string', { string: string + by });
  if (string === 6 || string === 1) add('big E for little e', { string: 7 - string });
  for (const other of RHYMING.includes(string) ? RHYMING : [])
    if (Math.abs(other - string) > 1 && other + string !== 7) add('string that sounds alike', { string: other });
  if (fret >= 1) add('fret and string swapped', { string: fret, fret: string });
  return readings;
}

/** The fret that a finger would be at, where the fret typed is no more than a finger’s number. */
function fingerMeant({ fret, event }: LineNote, { notes, events }: Line): number | undefined {
  if (fret < 1 || fret > 4) return undefined;
  let [held, lowest] = [0, Infinity];
  for (const by of [-2, -1, 1, 2])
    for (const index of events[event + by] ?? []) {
      const other = notes[index]?.fret ?? 0;
      if (other <= 0) continue;
      held += 1;
      lowest = Math.min(lowest, other);
    }
  return held < 2 ? undefined : lowest + fret - 1;
}

function isThere({ string, fret }: { readonly string: number; readonly fret: number }, guitar: Guitar): boolean {
  return string >= 1 && string <= guitar.tuning.openMidis.length && fret >= 0 && fret <= topFret(guitar);
}

/** Changes a note, and on another string all that is linked on to it; false where one of them would stand on a string twice. */
function reread(
  note: LineNote,
  { string, fret, bend }: Omit<Reread, 'midi'>,
  context: { readonly line: Line; readonly guitar: Guitar; readonly changes: Map<number, Reread> },
): boolean {
  const { line, guitar, changes } = context;
  const { openMidis } = guitar.tuning;
  for (const one of line.events[note.event] ?? [])
    if (one !== note.index && line.notes[one]?.string === string) return false;
  const moved = (openMidis[string - 1] ?? 0) - (openMidis[note.string - 1] ?? 0);
  const midi = note.midi + moved + fret - note.fret + Math.round(2 * (bend - note.bend));
  changes.set(note.index, { string, fret, bend, midi });
  if (string === note.string) return true;
  for (const one of line.events[note.event + 1] ?? []) {
    const next = line.notes[one];
    if (next?.from !== note.index) continue;
    if (!reread(next, { string, fret: next.fret, bend: next.bend }, context)) return false;
  }
  return true;
}
