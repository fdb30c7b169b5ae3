import type { NoteMarks } from './drafts.ts';
import type { Link } from './linkRecords.ts';
import type { EventMark } from './marks.ts';
import type { BendMove, EventItem, Span, WrittenNote } from './model.ts';
import type { Strings } from './readNoteMarks.ts';
import type { StandingBends } from './standing.ts';
import type { NoteValue } from './values.ts';

/** One event as typed, before its links and the value in force are known; its span is that of the whole text. */
export interface TypedEvent {
  readonly link?: Link;
  /** The bare fret of a linked event that takes the strings of the event before; null for `x`. */
  readonly bareFret?: number | null;
  /** How many frets a link moves every string of the event before. */
  readonly far?: number;
  /** Marks of the notes of a bare linked event. */
  readonly bareMarks?: NoteMarks;
  readonly notes: readonly WrittenNote[];
  readonly marks: readonly EventMark[];
  readonly slideIn?: 'below' | 'above';
  readonly slideOut?: 'up' | 'down';
  readonly arm?: readonly number[];
  /** Moves of a bend that nothing stands bent for; they are the note's before them. */
  readonly late?: readonly BendMove[];
  readonly value?: NoteValue;
  readonly times: number;
  /** A bracket that it opens and does not close, or closes and has not opened. */
  readonly bracket?: 'open' | 'close';
  readonly span: Span;
}

/** What sounds where an event is read. */
export interface Sounding {
  /** The notes of the last event that sounded before it; none at the start of a phrase. */
  readonly sounded: readonly WrittenNote[];
  /** The event right before it; none after a rest. */
  readonly before: EventItem | undefined;
  readonly bends: StandingBends;
}

/** What a word stands in. */
export interface WordContext extends Strings {
  /** Where it begins in the text. */
  readonly offset: number;
  /** Whether degrees have a chord to count from. */
  readonly hasChord: boolean;
  /** Asked anew for each event of the word. */
  readonly sounding: Sounding;
}
