import { transposeSymbol, type Key } from '../pitch/index.ts';
import { FRONT_PATTERN } from './marks.ts';
import { letterOfString, STRING_SIGNS, stringOfLetter } from './strings.ts';

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
      if (last?.fret === wordOf(place)) last.strings += name;
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

/** Names of notes in an event: what is claimed, and where a bend goes. */
const NAMES = /(?<==|[br][\d.¼½¾]*>)[A-G][#bn]?/g;

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
  return off.length > 0 ? undefined : moved.replace(NAMES, (name) => transposeSymbol(name, semitones, key));
}
