import { openMidi, type Tuning } from '../pitch/index.ts';
import { eventsOf } from './edit.ts';
import { rewriteFrets, type WrittenPlace } from './frets.ts';
import type { EventItem, Phrase, Span } from './model.ts';

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
