import {
  STARTING_VALUE,
  writeEvent,
  type EventItem,
  type EventMark,
  type Link,
  type Span,
  type Sureness,
  type Writable,
  type WrittenNote,
} from '../notation/index.ts';

/** What is played by one name: a chord of root and fifth, a note with its octave. */
export type Shape = 'power' | 'power with octave' | 'octave';

/** A note while it is read; `string` 0 until that is said. */
export type DraftNote = Writable<WrittenNote>;

/** An event while it is read. */
export interface Draft {
  /** The words it comes from. */
  span: Span;
  notes: DraftNote[];
  link?: Link;
  slideIn?: 'below' | 'above';
  slideOut?: 'up' | 'down';
  /** How far the tremolo arm takes it, one way after the other, whole steps. */
  arm?: readonly number[];
  marks: Set<EventMark>;
  times: number;
  /** The fret at which it is barred. */
  barre?: number;
  /** What its one note stands for, once its string is known. */
  shape?: Shape;
  /** Whether its first note stands for the rest. */
  isShaped?: true;
  /** What it is written as before it, a value or a stamp. */
  before: string[];
  isRest?: true;
  isGrace?: true;
  sureness?: Sureness;
  /** Whether it sounds together with the one before. */
  joins?: true;
  /** Whether it was said as a number alone. */
  isBare?: true;
  /** Whether a comma and “then” stand before it. */
  isAfterBreak?: true;
  /** Whether the hand goes to it from the note before: “up to thirteen”. */
  isTo?: true;
  /** Whether “then” stands before it. */
  isAfterThen?: true;
}

export function draftOf(notes: readonly DraftNote[], span: Span): Draft {
  return { span, notes: [...notes], marks: new Set(), times: 1, before: [] };
}

/** A copy, moved by so many strings (thinner is negative) and frets. */
export function movedDraft(draft: Draft, strings = 0, frets = 0): Draft {
  return {
    ...draft,
    marks: new Set(draft.marks),
    before: [],
    notes: draft.notes.map((note) => ({
      ...note,
      string: note.string + strings,
      fret: note.fret === null ? null : note.fret + frets,
    })),
  };
}

/** An event struck once more: a copy that nothing leads to. */
export function struckAgain(draft: Draft): Draft {
  const { link, ...again } = movedDraft(draft);
  return again;
}

export function isWhole({ notes }: Draft): boolean {
  return notes.every(({ string }) => string > 0);
}

export function grown(span: Span, by: Span): Span {
  return { from: Math.min(span.from, by.from), to: Math.max(span.to, by.to) };
}

/** The shorthand of what was read. */
export function writeDrafts(drafts: readonly Draft[], strings: 'letters' | 'numbers'): readonly string[] {
  return drafts.map((draft) => {
    if (draft.isRest) return [...draft.before, '-'].join(' ');
    const { barre, before, span, notes, marks, times, link, slideIn, slideOut, arm } = draft;
    const event: EventItem = {
      ...{ kind: 'event', span, value: draft.isGrace ? 'grace' : STARTING_VALUE, notes, marks: [...marks], times },
      ...(link && { link }),
      ...(slideIn && { slideIn }),
      ...(slideOut && { slideOut }),
      ...(arm && { arm }),
    };
    const text = writeEvent(event, { strings });
    const barred = barre === undefined ? text : `{bar${barre}: ${text}}`;
    return [...before, draft.sureness ? `{${draft.sureness}: ${barred}}` : barred].join(' ');
  });
}
