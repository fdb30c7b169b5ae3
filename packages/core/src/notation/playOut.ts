import { midiOf, openMidi, type Tuning } from '../pitch/index.ts';
import type { EventItem, EventMark, Finger, Link, Phrase, Span, Sureness, WrittenNote } from './model.ts';
import type { PluckingMark, Sought } from './model.ts';
import { FIRST_ROUND, inRound, type Round } from './rounds.ts';
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
  readonly fingerBehind?: Finger;
  readonly fingerOr?: Finger;
  /** Fret the note trills with. */
  readonly trill?: number;
  /** How it is plucked where that is not said of its whole stack. */
  readonly plucked?: PluckingMark;
  readonly quiet?: true;
  readonly sureness?: Sureness;
  /** Whether its place is a guess that nobody has settled; it makes no sound. */
  readonly guess?: true;
  /** Not struck: its string stands bent so high, and goes on. Whole steps. */
  readonly held?: number;
  /** Struck again while its string stands bent so high. */
  readonly again?: number;
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
  /** How far the tremolo arm takes every string that sounds, one move after the other, whole steps; negative is down. */
  readonly arm?: readonly number[];
  /** How loud it is beside what it would be without growing softer or louder, 0 to 1. */
  readonly loudness?: number;
}

/** How the guitar is set up. */
export interface Setup {
  readonly tuning: Tuning;
  /** Fret of the capo; 0 for none. */
  readonly capo: number;
}

/**
 * Plays a phrase out as in one round of its section, the first unless told: repeats and passes in time order, rests included, at most `MAX_PLAYED` events.
 *
 * @throws RangeError when the phrase names a string the tuning lacks.
 */
export function playOut(phrase: Phrase, setup: Setup & { readonly round?: Round | undefined }): readonly PlayedEvent[] {
  return unroll(inRound(phrase, setup.round ?? FIRST_ROUND)).events.map((event) => playedEvent(event, setup));
}

/** One timed event with its pitches. */
export function playedEvent(event: TimedEvent, setup: Setup): PlayedEvent {
  const { at, length, item, marks, timed, bar, pass, span, chord, words, barre, loudness } = event;
  const notes = item ? item.notes.map((note) => playedPitch(note, item, setup)) : [];
  return {
    ...{ at, length, notes, marks, timed, bar, pass, span, chord, words, barre },
    ...(item?.arm && { arm: item.arm }),
    ...(loudness !== undefined && { loudness }),
  };
}

function playedPitch(note: WrittenNote, { link, slideIn, slideOut }: EventItem, { tuning, capo }: Setup): PlayedPitch {
  const { string, fret, moves, claim: _, sought, ...rest } = note;
  openMidi(tuning, string);
  return {
    ...rest,
    string,
    fret,
    midi: fret === null || isGuessed(sought) ? null : midiOf(tuning, string, fret, capo),
    ...(isGuessed(sought) && { guess: true as const }),
    ...(moves && { bend: moves.map(({ steps }) => steps) }),
    ...(link && { link }),
    ...(slideIn && { slideIn }),
    ...(slideOut && { slideOut }),
  };
}

/** Whether a place is a guess that nobody has settled: it is shown, and makes no sound. */
export function isGuessed(sought: Sought | undefined): boolean {
  return sought?.by === 'string' || sought?.by === 'fret';
}
