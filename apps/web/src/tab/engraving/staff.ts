import type { EventItem, ScoreBar } from '@jam-ledger/core/notation';
import { midiOf, spell, type Key, type Tuning } from '@jam-ledger/core/pitch';

/** What standard notation needs to know besides the bars. */
export interface StaffSetUp {
  readonly tuning: Tuning;
  readonly capo: number;
  readonly key: Key;
}

/** A guitar sounds an octave below what is written for it. Source: common practice. */
export const WRITTEN_ABOVE = 12;

/** Top and bottom line of the stave, in steps of the scale: F5 and E4 as written. */
export const TOP_STEP = 38;
export const BOTTOM_STEP = 30;
export const STEP_PIXELS = 5;

/** Room of the stave itself with its lines, and air around it. Pixels. */
const STAVE_PIXELS = 40;
const AIR_PIXELS = 22;

/** Room a stave needs: from the top of its system part to its first line, and in all. Pixels. */
export interface StaffRoom {
  readonly above: number;
  readonly height: number;
}

/** How much room the notes of some bars need above and below their stave. */
export function staffRoom(bars: readonly ScoreBar[], setUp: StaffSetUp): StaffRoom {
  const steps = bars.flatMap(({ events }) =>
    events.flatMap(({ item }) =>
      item
        ? [
            ...stepsOf(item, setUp),
            ...bentOf(item, setUp)
              .flat()
              .map(({ step }) => step),
          ]
        : [],
    ),
  );
  const above = Math.max(0, Math.max(TOP_STEP, ...steps) - TOP_STEP) * STEP_PIXELS + AIR_PIXELS;
  const below = Math.max(0, BOTTOM_STEP - Math.min(BOTTOM_STEP, ...steps)) * STEP_PIXELS + AIR_PIXELS;
  return { above, height: above + STAVE_PIXELS + below };
}

/** Width of clef and key signature at the head of a system. */
export function clefPixels({ key }: StaffSetUp): number {
  return 42 + Math.abs(key.fifths) * 9;
}

/** A pitch that a bend leads to: its place on the stave, and the sign before it where its key does not say it. */
interface BentPitch {
  readonly step: number;
  readonly sign: string;
}

/** What the bends of a stack lead to, note by note, move by move. A quarter of a tone stands at the nearest pitch. */
export function bentOf(item: EventItem, setUp: StaffSetUp): readonly (readonly BentPitch[])[] {
  const { tuning, capo, key } = setUp;
  const own = stepsOf(item, setUp);
  return item.notes.map(({ string, fret, moves }) =>
    (fret === null ? [] : (moves ?? [])).map(({ steps }): BentPitch => {
      const midi = midiOf(tuning, string, fret ?? 0, capo) + WRITTEN_ABOVE + Math.round(2 * Math.max(0, steps));
      const { letter, alter, octave } = spell(midi, key);
      const step = octave * 7 + LETTERS.indexOf(letter);
      // After a note of the same line the key says nothing any more.
      const isSaid = alter === alterIn(key, letter) && !own.includes(step);
      return { step, sign: isSaid ? '' : (ALTER_SIGNS[alter] ?? '') };
    }),
  );
}

/** How far a key raises or lowers a letter. */
function alterIn({ fifths }: Key, letter: string): number {
  if (fifths >= 0) return SHARPS.indexOf(letter) < fifths ? 1 : 0;
  return SHARPS.length - 1 - SHARPS.indexOf(letter) < -fifths ? -1 : 0;
}

const LETTERS = 'CDEFGAB';
/** In this order keys take their sharps; flats the other way round. */
const SHARPS = 'FCGDAEB';
/** Signs of the music font, by the glyph names of SMuFL: accidentalFlat, accidentalNatural, accidentalSharp. */
const ALTER_SIGNS: Readonly<Record<number, string>> = { [-1]: '\uE260', 0: '\uE261', 1: '\uE262' };
/** Where the notes of a stack stand, in steps of the scale. */
/** Where the notes of a stack stand as written, in steps of the scale. */
export function stepsOf({ notes }: EventItem, { tuning, capo, key }: StaffSetUp): readonly number[] {
  return notes.map((note) => {
    const { letter, octave } = spell(soundsAt(note, tuning, capo) + WRITTEN_ABOVE, key);
    return octave * 7 + LETTERS.indexOf(letter);
  });
}

/** What a note sounds at as it begins: a string that stands bent sounds higher than its fret. */
export function soundsAt(
  { string, fret, preBend, again, held }: EventItem['notes'][number],
  tuning: Tuning,
  capo: number,
): number {
  return midiOf(tuning, string, fret ?? 0, capo) + Math.round(2 * (preBend ?? again ?? held ?? 0));
}
