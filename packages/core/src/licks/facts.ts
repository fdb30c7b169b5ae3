import { degreesOf } from '../harmony/index.ts';
import {
  barTicks,
  heardOf,
  namedMidi,
  techniquesOf,
  unroll,
  type EventItem,
  type Phrase,
  type Setup,
  type Technique,
} from '../notation/index.ts';
import type { Key } from '../pitch/index.ts';

/** How a lick is set up where it stands. */
export interface LickSetup extends Setup {
  readonly key: Key;
}

/** What a phrase can be found by. Lists and strings are made to be searched for a part of them. */
export interface LickFacts {
  readonly techniques: readonly Technique[];
  /** The chords above it, each once. */
  readonly chords: readonly string[];
  /** Degrees against the chord in force, or against the key where none is written, with blanks around: ` 1 b3 4 5 `. */
  readonly degrees: string;
  /** Its way over the neck from where it begins, strings toward the thinnest and frets: ` 0,0 0,2 1,0 `. */
  readonly shape: string;
  /** Semitones from note to note, ` 3 2 -5 `; the same in every key and place. */
  readonly steps: string;
  /** Runs of `GRAM_LENGTH` steps, each once; phrases that share some may be alike. */
  readonly grams: readonly string[];
  readonly lowestFret: number;
  readonly highestFret: number;
  readonly events: number;
  /** How long it is as played, bars of its own meter. */
  readonly bars: number;
}

/** Steps in a run that phrases are found alike by. Our choice: four notes. */
export const GRAM_LENGTH = 3;

/** Longest part of a phrase that is looked at, events. Our choice. */
const MAX_EVENTS = 300;

/** What a phrase can be found by: its first pass. Linear. */
export function factsOf(phrase: Phrase, setup: LickSetup): LickFacts {
  const { events, chords, length } = unroll(phrase);
  const written = [...new Set(events.flatMap(({ item }) => item ?? []))].slice(0, MAX_EVENTS);
  const tops = topNotes(phrase, setup);
  const fretPositions = written.flatMap((item) => tops.get(item) ?? []);
  const [first] = fretPositions;
  const steps = fretPositions.slice(1).map(({ midi }, index) => midi - (fretPositions[index]?.midi ?? midi));
  const fretted = fretPositions.map(({ fret }) => fret).filter((fret) => fret > 0);
  const spans = new Set(written.map(({ span }) => span));
  const degrees = degreesOf(phrase, setup).filter(({ span }) => spans.has(span));
  return {
    techniques: [...techniquesOf(phrase).keys()],
    chords: [...new Set(chords.flatMap(({ chord }) => chord ?? []))],
    degrees: padded(onePerEvent(degrees).map(({ degree, keyDegree }) => degree ?? keyDegree)),
    shape: first
      ? padded(fretPositions.map(({ string, fret }) => `${first.string - string},${fret - first.fret}`))
      : '',
    steps: padded(steps.map(String)),
    grams: [
      ...new Set(steps.slice(0, 1 - GRAM_LENGTH).map((_, index) => steps.slice(index, index + GRAM_LENGTH).join(' '))),
    ],
    lowestFret: fretted.length === 0 ? 0 : Math.min(...fretted),
    highestFret: fretted.length === 0 ? 0 : Math.max(...fretted),
    events: written.length,
    bars: length / barTicks(phrase.meter),
  };
}

/** Of each written event the note on its thinnest string, with the pitch it rests on, at its first hearing. */
function topNotes(
  phrase: Phrase,
  { tuning, capo }: Setup,
): ReadonlyMap<EventItem, { readonly string: number; readonly fret: number; readonly midi: number }> {
  const tops = new Map<EventItem, { string: number; fret: number; midi: number }>();
  for (const { item, string, fret, rests } of heardOf(phrase, { tuning, capo })) {
    const known = tops.get(item);
    if (!known || string < known.string) tops.set(item, { string, fret, midi: namedMidi(rests) });
  }
  return tops;
}

/** Of each written event its highest note, at its first hearing. */
function onePerEvent<One extends { readonly span: object; readonly midi: number; readonly at: number }>(
  degrees: readonly One[],
): readonly One[] {
  const best = new Map<object, One>();
  for (const one of degrees) {
    const known = best.get(one.span);
    if (!known || (known.at === one.at && one.midi > known.midi)) best.set(one.span, one);
  }
  return [...best.values()];
}

const padded = (words: readonly string[]): string => (words.length === 0 ? '' : ` ${words.join(' ')} `);
