import { HIGHEST_FRET, openMidi, transposeSymbol, type Key, type Tuning } from '../pitch/index.ts';
import { eventsOf } from './edit.ts';
import { isNest, type BarreItem, type Item, type Phrase, type Span } from './model.ts';
import { movedEvent, type WrittenPlace } from './frets.ts';

/** How a whole text is moved over the neck. */
export interface Move {
  /** How much higher everything sounds; on the same strings, as many frets. */
  readonly semitones: number;
  /** Strings toward the thin ones; negative toward the thick ones. */
  readonly strings: number;
  /** Whether notes on open strings stay where they are. */
  readonly openStays: boolean;
}

/** Nothing is moved. */
export const UNMOVED: Move = { semitones: 0, strings: 0, openStays: false };

/** The guitar, and the key that chord symbols are spelt for. */
export interface MoveOn {
  readonly tuning: Tuning;
  readonly key?: Key | undefined;
}

/** A place of a text and what comes there instead; undefined where it would leave the neck. */
interface Change {
  readonly span: Span;
  readonly text: string | undefined;
}

/**
 * A whole text moved over the neck: notes, bend targets, bars, chord symbols and claims. All else stays byte for byte.
 * Undefined where something would leave the neck, or a bar would no longer be one.
 */
export function movedText(text: string, phrase: Phrase, move: Move, on: MoveOn): string | undefined {
  if (move.semitones === 0 && move.strings === 0) return text;
  const moving = {
    place: (place: WrittenPlace) => movedPlace(place, move, on),
    semitones: move.semitones,
    key: on.key,
  };
  const writesOut = move.openStays && move.strings !== 0;
  const notes = eventsOf(phrase).map(({ item: { span, notes: heads } }): Change => {
    const strings = heads.map(({ string }) => string);
    return { span, text: movedEvent({ typed: text.slice(span.from, span.to), strings, writesOut }, moving) };
  });
  const changes = [...notes, ...movedSigns(phrase.items, text, { move, on })];
  if (changes.some((change) => change.text === undefined)) return undefined;
  return changes
    .toSorted((a, b) => b.span.from - a.span.from)
    .reduce((whole, { span, text: to = '' }) => whole.slice(0, span.from) + to + whole.slice(span.to), text);
}

/** Where a place of the neck is moved to; undefined beyond the neck. A dead note keeps its cross. */
function movedPlace(
  { string, fret }: WrittenPlace,
  { semitones, strings, openStays }: Move,
  { tuning }: MoveOn,
): WrittenPlace | undefined {
  if (fret === 0 && openStays) return { string, fret };
  const to = string - strings;
  if (to < 1 || to > tuning.openMidis.length) return undefined;
  if (fret === null) return { string: to, fret };
  const there = fret + semitones - (openMidi(tuning, to) - openMidi(tuning, string));
  return there >= 0 && there <= HIGHEST_FRET ? { string: to, fret: there } : undefined;
}

/** Symbols and bars as they stand when all is moved. */
function movedSigns(
  items: readonly Item[],
  text: string,
  context: { readonly move: Move; readonly on: MoveOn },
): readonly Change[] {
  const { move, on } = context;
  return items.flatMap((item): readonly Change[] => {
    if (item.kind === 'harmony' && item.chord !== null) {
      const isSame = move.semitones % 12 === 0;
      return isSame ? [] : [{ span: item.span, text: `:${transposeSymbol(item.chord, move.semitones, on.key)}` }];
    }
    const inside = isNest(item) ? movedSigns(item.items, text, context) : [];
    return item.kind === 'barre' ? [movedBarre(item, text, context), ...inside] : inside;
  });
}

/** A bar goes where the notes under it go, as long as all of them go equally far. */
function movedBarre(
  barre: BarreItem,
  text: string,
  { move, on }: { readonly move: Move; readonly on: MoveOn },
): Change {
  const digits = /^\{bar(\d+)/.exec(text.slice(barre.span.from))?.[1] ?? '';
  const from = barre.span.from + '{bar'.length;
  const span = { from, to: from + digits.length };
  const held = eventsOf({ items: [barre] }).flatMap(({ item }) => item.notes);
  const far = new Set(
    held.flatMap(({ string, fret }) => {
      if (fret === null || (fret === 0 && move.openStays)) return [];
      return [(movedPlace({ string, fret }, move, on)?.fret ?? NaN) - fret];
    }),
  );
  const [by = move.semitones] = far;
  const fret = barre.fret + by;
  const isBar = far.size < 2 && fret >= 1 && fret <= HIGHEST_FRET;
  return { span, text: isBar ? String(fret) : undefined };
}

/** A phrase and the text it was read from. */
export interface WrittenPhrase {
  readonly text: string;
  readonly phrase: Phrase;
}

/** How one text is moved to be exactly another; undefined where it cannot be. Open strings stay where that is the way. */
export function moveBetween(from: WrittenPhrase, to: WrittenPhrase, on: MoveOn): Move | undefined {
  if (from.text === to.text) return UNMOVED;
  const [before, after] = [from, to].map(({ phrase }) => eventsOf(phrase).map(({ item }) => item.notes[0]));
  if (!before || before.length !== after?.length) return undefined;
  const moves = [false, true].flatMap((openStays): readonly Move[] => {
    const at = before.findIndex((note) => note?.fret != null && !(openStays && note.fret === 0));
    const [one, other] = [before[at], after[at]];
    if (one?.fret == null || other?.fret == null) return [];
    const opens = openMidi(on.tuning, other.string) - openMidi(on.tuning, one.string);
    return [{ semitones: other.fret - one.fret + opens, strings: one.string - other.string, openStays }];
  });
  return moves.find((move) => movedText(from.text, from.phrase, move, on) === to.text);
}

/** Says a move: `2 frets higher`, `on the next thinner string, 5 semitones higher, open strings as they are`. */
export function sayMove({ semitones, strings, openStays }: Move): string {
  const way = semitones > 0 ? 'higher' : 'lower';
  const count = (many: number, unit: string) => `${many} ${unit}${many === 1 ? '' : 's'}`;
  const far = semitones === 0 ? '' : `${count(Math.abs(semitones), strings === 0 ? 'fret' : 'semitone')} ${way}`;
  const over =
    strings === 0 ? '' : `${count(Math.abs(strings), 'string')} toward the ${strings > 0 ? 'thin' : 'thick'} ones`;
  return [over, far, openStays ? 'open strings as they are' : ''].filter((part) => part !== '').join(', ');
}
