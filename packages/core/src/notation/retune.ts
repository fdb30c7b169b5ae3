import { openMidi, type Tuning } from '../pitch/index.ts';
import { eventsOf } from './edit.ts';
import type { EventItem, Phrase, Span } from './model.ts';
import { FRONT_PATTERN, letterOfString, STRING_SIGNS, stringOfLetter } from './strings.ts';

/** A guitar as strings sound: its tuning, the capo, and its frets. */
export interface Strung {
  readonly tuning: Tuning;
  readonly capo: number;
  readonly frets: number;
}

/** A note whose pitch a change of tuning or capo changes. Semitones; negative when it sounds lower now. */
export interface Retuned {
  readonly span: Span;
  readonly string: number;
  readonly fret: number;
  readonly semitones: number;
  /** The fret of the same string at which it sounds as before; undefined where the string has none. */
  readonly movedTo: number | undefined;
}

/** What a change of tuning or capo does to a phrase. */
export interface Retuning {
  readonly notes: readonly Retuned[];
  /** The text with every note moved that can be; the same text where none can. */
  readonly text: string;
}

/**
 * Finds the written notes that change pitch, or lie beyond the neck, when tuning or capo change. Each is moved along its string
 * to where it sounds as before. Notes on strings that are no longer there cannot be moved.
 */
export function retune(text: string, phrase: Phrase, before: Strung, after: Strung): Retuning {
  const notes: Retuned[] = [];
  let moved = '';
  let at = 0;
  for (const { item } of eventsOf(phrase)) {
    const found = item.notes.map(({ string, fret }) => shiftOf({ item, string, fret }, before, after));
    notes.push(...found.filter((one) => one !== undefined));
    const by = new Map<number, number>();
    for (const one of found) if (one?.movedTo !== undefined) by.set(one.string, one.movedTo - one.fret);
    if (by.size === 0) continue;
    const strings = item.notes.map(({ string }) => string);
    const written = text.slice(item.span.from, item.span.to);
    moved += text.slice(at, item.span.from) + rewriteFrets({ typed: written, strings }, (place) => shifted(place, by));
    at = item.span.to;
  }
  return { notes, text: moved + text.slice(at) };
}

/** A place moved along its string by the shift of that string, never below the open string. */
function shifted({ string, fret }: WrittenPlace, by: ReadonlyMap<number, number>): WrittenPlace {
  return { string, fret: fret === null ? null : Math.max(0, fret + (by.get(string) ?? 0)) };
}

function shiftOf(
  { item, string, fret }: { item: EventItem; string: number; fret: number | null },
  before: Strung,
  after: Strung,
): Retuned | undefined {
  if (fret === null || string > before.tuning.openMidis.length) return undefined;
  const { span } = item;
  if (string > after.tuning.openMidis.length) return { span, string, fret, semitones: 0, movedTo: undefined };
  const open = ({ tuning, capo }: Strung) => openMidi(tuning, string) + capo;
  const semitones = open(after) - open(before);
  const reachable = (place: number) => place >= 0 && place + after.capo <= after.frets;
  if (semitones === 0 && reachable(fret)) return undefined;
  return { span, string, fret, semitones, movedTo: reachable(fret - semitones) ? fret - semitones : undefined };
}

/** A place of the neck as it is written: 1 for the thinnest string; no fret for a dead note. */
export interface WrittenPlace {
  readonly string: number;
  readonly fret: number | null;
}

// A fret with its strings, one without, one after a link, or the target of a bend, release or trill, which moves with the note before it.
const FRET = new RegExp(
  `(\\d+|x)(@\\d+|[${STRING_SIGNS}]+)|(?<=^${FRONT_PATTERN})(\\d+|x)|(?<=^[(<>]?[hpsSt])\\d+|(?<=[br][\\d.¼½¾]*>)\\d+|(?<=tr)\\d+`,
  'g',
);

/** A written event with the strings of its notes, and how its strings are named where they are written out. */
export interface WrittenEvent {
  readonly typed: string;
  readonly strings: readonly number[];
  /** Whether a fret without a string gets it written out. */
  readonly writesOut?: boolean;
}

/** Moves every place of one written event; one fret of several strings is written apart where they part. */
export function rewriteFrets(
  { typed, strings, writesOut }: WrittenEvent,
  move: (place: WrittenPlace) => WrittenPlace,
): string {
  let string = strings[0] ?? 1;
  const wordOf = ({ fret }: WrittenPlace) => (fret === null ? 'x' : String(fret));
  const group = (places: readonly (WrittenPlace & { readonly sign?: string })[], numbered: boolean) => {
    const groups: { fret: string; strings: string }[] = [];
    for (const place of places) {
      const name = place.sign ?? (numbered ? String(place.string) : (letterOfString(place.string) ?? ''));
      const last = groups.at(-1);
      if (last?.fret === wordOf(place) && !numbered) last.strings += name;
      else groups.push({ fret: wordOf(place), strings: name });
    }
    return groups.map((one) => `${one.fret}${numbered ? '@' : ''}${one.strings}`).join(numbered ? '+' : '');
  };
  return typed.replace(
    FRET,
    (whole: string, fret: string | undefined, named: string | undefined, bare: string | undefined) => {
      const fretOf = (text: string) => (text === 'x' ? null : Number(text));
      if (fret !== undefined && named !== undefined) {
        const numbered = named.startsWith('@');
        const signs = Array.from(numbered ? named.slice(1) : named);
        const places = signs.map((sign) => {
          string = stringOfLetter(sign) ?? Number(sign);
          const place = move({ string, fret: fretOf(fret) });
          return place.string === string ? { ...place, sign } : place;
        });
        return group(places, numbered);
      }
      if (bare === undefined) return String(move({ string, fret: Number(whole) }).fret);
      const places = strings.map((one) => move({ string: one, fret: fretOf(bare) }));
      const isAlike = places.every((place) => wordOf(place) === wordOf(places[0] ?? place));
      const isNumbered = places.some((place) => letterOfString(place.string) === undefined);
      return isAlike && !writesOut ? wordOf(places[0] ?? { string, fret: fretOf(bare) }) : group(places, isNumbered);
    },
  );
}
