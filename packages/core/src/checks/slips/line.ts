import { chordTones, chromaOf } from '../../harmony/index.ts';
import { bendHeight, heardOf, namedMidi, type EventItem, type Phrase } from '../../notation/index.ts';
import type { Guitar } from '../../fretboard/index.ts';

/** A chord as slips are weighed against it. */
export interface LineChord {
  readonly root: number;
  /** Its pitch classes. */
  readonly tones: ReadonlySet<number>;
  /** A major triad without a seventh, over which a minor third rubs; with a seventh it is the blues. Source: common practice. */
  readonly isPlainMajor: boolean;
}

/** A written note as slips are looked for in it. */
export interface LineNote {
  /** Its place among the notes of the line, and its event’s among the events. */
  readonly index: number;
  readonly event: number;
  readonly item: EventItem;
  /** Its place in the stack, as written. */
  readonly at: number;
  readonly string: number;
  readonly fret: number;
  /** How high it is bent, whole steps; 0 for not. */
  readonly bend: number;
  /** The whole MIDI number that it is named by, of the pitch it rests on. */
  readonly midi: number;
  /** The chord in force; undefined where none is known. */
  readonly chord: LineChord | undefined;
  /** The note of the event before it that a link holds it to. */
  readonly from: number | undefined;
  /** Whether its pitch follows from string, fret and bend alone; a harmonic’s does not. */
  readonly isPlain: boolean;
}

/** The sounding notes of a phrase, each written event once, in the order in which they are first heard. */
export interface Line {
  readonly notes: readonly LineNote[];
  /** Places of the notes of each event. */
  readonly events: readonly (readonly number[])[];
}

/** Lays a phrase out for looking at slips. Linear. */
export function lineOf(phrase: Phrase, guitar: Guitar): Line {
  const notes: LineNote[] = [];
  const events: number[][] = [];
  const known = new Set<EventItem>();
  let current: EventItem | undefined;
  const chords = new Map<string, LineChord | undefined>();
  for (const { item, note, string, fret, rests, chord } of heardOf(phrase, guitar)) {
    // A bend that goes on is typed without a fret, and a guess is settled first.
    if (note.held !== undefined || note.sought) continue;
    if (item !== current) {
      // Played again later: its notes are there already.
      if (known.has(item)) continue;
      known.add(item);
      current = item;
      events.push([]);
    }
    const at = item.notes.indexOf(note);
    const event = events.length - 1;
    const inside = events[event] ?? [];
    if (inside.some((index) => notes[index]?.at === at)) continue;
    const from = item.link === undefined ? undefined : events[event - 1]?.find((one) => notes[one]?.string === string);
    inside.push(notes.length);
    notes.push({
      index: notes.length,
      event,
      item,
      at,
      string,
      fret,
      bend: bendHeight(note),
      midi: namedMidi(rests),
      chord: chord === null ? undefined : chordOf(chord, chords),
      from,
      isPlain: note.harmonic === undefined,
    });
  }
  return { notes, events };
}

function chordOf(symbol: string, known: Map<string, LineChord | undefined>): LineChord | undefined {
  if (!known.has(symbol)) {
    const chord = chordTones(symbol);
    known.set(
      symbol,
      chord && {
        root: chord.root,
        tones: new Set([...chord.degrees.keys()].map((above) => chromaOf(chord.root + above))),
        isPlainMajor: chord.degrees.has(4) && !chord.degrees.has(10),
      },
    );
  }
  return known.get(symbol);
}
