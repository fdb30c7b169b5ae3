import type { Link } from './linkRecords.ts';
import type { EventMark } from './marks.ts';
import type { BendMove, Finger, PluckingMark, Sureness, Writable, WrittenNote } from './model.ts';
import type { NoteValue } from './values.ts';

/** What note marks say of every note of their group. */
export type NoteMarks = Omit<WrittenNote, 'string' | 'fret'>;

/** What is known of an event while its word is read. */
export class EventDraft {
  readonly notes: WrittenNote[] = [];
  readonly marks = new Set<EventMark>();
  closed = false;
  slideOut?: 'up' | 'down';
  /** Moves of the tremolo arm. */
  arm?: readonly number[];
  /** Moves of a bend that are the note's before. */
  late?: readonly BendMove[];
  link?: Link | undefined;
  /** How the notes read last are plucked. */
  plucked?: PluckingMark | undefined;
  value?: NoteValue;
  times = 1;
}

/** What is known of the notes of a group while their marks are read. */
export class NoteDraft {
  preBend?: number;
  readonly moves: BendMove[] = [];
  vibrato?: 'narrow' | 'wide';
  harmonic?: 'natural' | 'pinch';
  trill?: number;
  finger?: Finger;
  fingerBehind?: Finger;
  fingerOr?: Finger;
  plucked?: PluckingMark;
  quiet?: true;
  sureness?: Sureness;
  again?: number;
  claim?: string;
  /** How high its string stands bent as it begins, whole steps. */
  readonly #base: number;

  constructor(base = 0) {
    this.#base = base;
  }

  /** Where the bend stands after the moves so far, whole steps above the fret. */
  height(): number {
    return this.moves.at(-1)?.steps ?? this.preBend ?? this.#base;
  }

  result(): NoteMarks {
    const marks: Writable<NoteMarks> = {};
    if (this.preBend !== undefined) marks.preBend = this.preBend;
    if (this.moves.length > 0) marks.moves = this.moves;
    if (this.vibrato) marks.vibrato = this.vibrato;
    if (this.harmonic) marks.harmonic = this.harmonic;
    if (this.trill !== undefined) marks.trill = this.trill;
    if (this.finger) marks.finger = this.finger;
    if (this.fingerBehind) marks.fingerBehind = this.fingerBehind;
    if (this.fingerOr) marks.fingerOr = this.fingerOr;
    if (this.plucked) marks.plucked = this.plucked;
    if (this.quiet) marks.quiet = true;
    if (this.sureness) marks.sureness = this.sureness;
    if (this.again !== undefined) marks.again = this.again;
    if (this.claim !== undefined) marks.claim = this.claim;
    return marks;
  }
}

/** The finger that was typed. */
export function fingerOf(text: string | undefined): Finger {
  return FINGERS.find((finger) => finger === text) ?? '1';
}

const FINGERS = ['1', '2', '3', '4', 'T'] as const satisfies readonly Finger[];
