import { midiOf, openMidi, type Tuning } from '../pitch/index.ts';
import type { EventItem, EventMark, Finger, Link, Phrase, Span, Sureness, WrittenNote } from './model.ts';
import { unroll, type TimedEvent } from './unroll.ts';

/** A note as played. `midi` = open string + capo + fret; null for a dead note. Heights in whole steps. */
export interface PlayedPitch {
  readonly string: number;
  readonly fret: number | null;
  readonly midi: number | null;
  readonly link?: Link;
  /** Heights of the bend and release moves, one each. */
  readonly bend?: readonly number[];
  readonly preBend?: number;
  readonly vibrato?: 'narrow' | 'wide';
  readonly harmonic?: 'natural' | 'pinch';
  readonly slideIn?: 'below' | 'above';
  readonly slideOut?: 'up' | 'down';
  readonly finger?: Finger;
  /** Fret the note trills with. */
  readonly trill?: number;
  /** Tremolo-arm dip, whole steps down. */
  readonly dip?: number;
}

/** An event in playing order; a rest has no notes. Times in ticks. */
export interface PlayedEvent {
  readonly at: number;
  readonly length: number;
  readonly notes: readonly PlayedPitch[];
  readonly marks: readonly (EventMark | Sureness | 'grace')[];
  /** False where only the order is known. */
  readonly timed: boolean;
  readonly bar: number;
  readonly pass: number | null;
  readonly span: Span;
  /** The chord in force, as typed; null for none. */
  readonly chord: string | null;
  readonly words: readonly string[];
  readonly barre: number | null;
}

/** How the guitar is set up. */
export interface Setup {
  readonly tuning: Tuning;
  /** Fret of the capo; 0 for none. */
  readonly capo: number;
}

/**
 * Plays a phrase out: repeats and passes in time order, rests included, at most `MAX_PLAYED` events.
 *
 * @throws RangeError when the phrase names a string the tuning lacks.
 */
export function playOut(phrase: Phrase, setup: Setup): readonly PlayedEvent[] {
  return unroll(phrase).events.map((event) => playedEvent(event, setup));
}

/** One timed event with its pitches. */
export function playedEvent(event: TimedEvent, setup: Setup): PlayedEvent {
  const { at, length, item, marks, timed, bar, pass, span, chord, words, barre } = event;
  const notes = item ? item.notes.map((note) => playedPitch(note, item, setup)) : [];
  return { at, length, notes, marks, timed, bar, pass, span, chord, words, barre };
}

function playedPitch(note: WrittenNote, { link, slideIn, slideOut }: EventItem, { tuning, capo }: Setup): PlayedPitch {
  const { string, fret, moves, claim: _, ...rest } = note;
  openMidi(tuning, string);
  return {
    ...rest,
    string,
    fret,
    midi: fret === null ? null : midiOf(tuning, string, fret, capo),
    ...(moves && { bend: moves.map(({ steps }) => steps) }),
    ...(link && { link }),
    ...(slideIn && { slideIn }),
    ...(slideOut && { slideOut }),
  };
}
