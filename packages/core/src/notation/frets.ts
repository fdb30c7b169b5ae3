import { transposeSymbol, type Key } from '../pitch/index.ts';
import { FRONT_PATTERN } from './marks.ts';
import { letterOfString, STRING_SIGNS, stringOfLetter } from './strings.ts';

/** A place of the neck as it is written: 1 for the thinnest string; no fret for a dead note. */
export interface WrittenPlace {
  readonly string: number;
  readonly fret: number | null;
}

// A fret with its strings (what tells the size of a bend is none), one without, one after a link, the target of a bend, release or
// trill, which moves with the note before it, or the strings of a bend that goes on, or of a fret that was not said.
const FRET = new RegExp(
  `(?<![br][\\d.¼½¾-]*)(\\d+|x)(@\\d+|[${STRING_SIGNS}]+)|(?<=^${FRONT_PATTERN})(\\d+|x)|(?<=^[(<>]?[hpsSt])\\d+|(?<=[br][\\d.¼½¾]*>)\\d+|(?<=tr)\\d+|(?<=(?:^|\\+)(?:\\?|(?:[br]+[\\d.¼½¾-]*(?:>\\d+)?)+))(@\\d+|[${STRING_SIGNS}]+)`,
  'g',
);

/** A place, with the sign that its string was written by where it is still on it. */
interface SignedPlace extends WrittenPlace {
  readonly sign?: string;
}

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
  const group = (places: readonly SignedPlace[], numbered: boolean) => {
    const groups: { fret: string; strings: string }[] = [];
    for (const place of places) {
      const name = place.sign ?? nameOf(place.string, numbered);
      const last = groups.at(-1);
      if (last?.fret === wordOf(place)) last.strings += name;
      else groups.push({ fret: wordOf(place), strings: name });
    }
    return groups.map((one) => `${one.fret}${numbered ? '@' : ''}${one.strings}`).join(numbered ? '+' : '');
  };
  return typed.replace(FRET, (...[whole, fret, named, bare, only]: readonly (string | undefined)[]) => {
    const fretOf = (text: string) => (text === 'x' ? null : Number(text));
    const placesOf = (signs: readonly string[], at: number | null) =>
      signs.map((sign): SignedPlace => {
        string = stringOfLetter(sign) ?? Number(sign);
        const place = move({ string, fret: at });
        return place.string === string ? { ...place, sign } : place;
      });
    if (fret !== undefined && named !== undefined)
      return group(placesOf(signsOf(named), fretOf(fret)), named.startsWith('@'));
    if (only !== undefined) {
      const isNumbered = only.startsWith('@');
      const names = placesOf(signsOf(only), null).map((place) => place.sign ?? nameOf(place.string, isNumbered));
      return `${isNumbered ? '@' : ''}${names.join('')}`;
    }
    if (bare === undefined) return String(move({ string, fret: Number(whole) }).fret);
    const places = strings.map((one) => move({ string: one, fret: fretOf(bare) }));
    const isAlike = places.every((place) => wordOf(place) === wordOf(places[0] ?? place));
    const isNumbered = places.some((place) => letterOfString(place.string) === undefined);
    return isAlike && !writesOut ? wordOf(places[0] ?? { string, fret: fretOf(bare) }) : group(places, isNumbered);
  });
}

/** The text of an event with its strings by letters or by numbers; a fret that goes by the string before gets its own written. */
export function nameStrings(typed: string, strings: readonly number[], by: 'letters' | 'numbers'): string {
  const mark = by === 'numbers' ? '@' : '';
  const named = (all: readonly number[]) => {
    const names = all.map((string) => (by === 'numbers' ? String(string) : letterOfString(string)));
    return names.includes(undefined) ? undefined : `${mark}${names.join('')}`;
  };
  const stringOf = (sign: string) => stringOfLetter(sign) ?? Number(sign);
  let end = -1;
  return typed.replace(FRET, (...match: readonly (string | number | undefined)[]) => {
    const [whole, fret, names, bare, only] = match
      .slice(0, 5)
      .map((part) => (part === undefined ? undefined : String(part)));
    const at = Number(match[5]);
    const signs = names ?? only;
    if (signs !== undefined) {
      const text = named(signsOf(signs).map(stringOf));
      // Frets with numbers are not written at once behind one another.
      const joint = by === 'numbers' && at === end ? '+' : '';
      end = at + (whole ?? '').length;
      return text === undefined ? (whole ?? '') : `${joint}${fret ?? ''}${text}`;
    }
    return bare === undefined ? (whole ?? '') : `${bare}${named(strings) ?? ''}`;
  });
}

/** The signs of some strings, one each. */
function signsOf(named: string): readonly string[] {
  return Array.from(named.startsWith('@') ? named.slice(1) : named);
}

function nameOf(string: number, numbered: boolean): string {
  return numbered ? String(string) : (letterOfString(string) ?? '');
}

/** Names of notes in an event: what is claimed, where a bend goes, and what is named itself. */
const NAMES = /(?<==|'|[br][\d.¼½¾]*>)[A-G][#bn]?/g;

/** How the places of an event are moved, undefined where one has nowhere to go, and how much higher it sounds then. */
export interface EventMove {
  readonly place: (place: WrittenPlace) => WrittenPlace | undefined;
  readonly semitones: number;
  readonly key?: Key | undefined;
}

/** The text of an event moved, the names of notes in it as well; undefined where one of its notes has nowhere to go. */
export function movedEvent(event: WrittenEvent, { place, semitones, key }: EventMove): string | undefined {
  const off: WrittenPlace[] = [];
  const moved = rewriteFrets(event, (from) => {
    const to = place(from);
    if (!to) off.push(from);
    return to ?? from;
  });
  if (off.length > 0) return undefined;
  return moved.replace(NAMES, (name: string, at: number) => {
    const there = transposeSymbol(name.replace(/n$/, ''), semitones, key);
    // What follows may not come to be its accidental.
    const isOpen = !/[#b]$/.test(there) && /[#bn]/.test(moved.charAt(at + name.length));
    return isOpen ? `${there}n` : there;
  });
}
