import { HIGHEST_FRET } from '../pitch/index.ts';
import { STEP_CENTS } from './contour.ts';
import { eventsOf } from './edit.ts';
import { bendHeight, type BendMove, type EventItem, type Item, type Link, type Span } from './model.ts';
import type { Writable, WrittenNote } from './model.ts';
import type { Fix, ProblemCode, ProblemList } from './problems.ts';
import type { Sounding, TypedEvent } from './typed.ts';
import { StandingBends } from './standing.ts';
import { letterOfString } from './strings.ts';
import type { NoteValue } from './values.ts';

/** Steps above which a bend is more than strings and fingers bear: two whole steps. Source: common practice. */
export const WIDEST_BEND_STEPS = 2;

/**
 * Frets at which a natural harmonic speaks, counted from the capo, and the ratio to the open string.
 * Source: the nodes of an ideal string (1/2, 1/3, 1/4, 1/5 of its length), common practice.
 */
export const HARMONIC_RATIOS: Readonly<Record<number, number>> = {
  12: 2,
  7: 3,
  19: 3,
  5: 4,
  24: 4,
  4: 5,
  9: 5,
  16: 5,
  28: 5,
};

const LINK_LETTERS: Readonly<Record<Link, string>> = { hammer: 'h', pull: 'p', slide: 's', shift: 'S', tap: 't' };
const LINK_WORDS: Readonly<Record<Link, string>> = {
  hammer: 'hammer-on',
  pull: 'pull-off',
  slide: 'slide',
  shift: 'shift slide',
  tap: 'tap',
};

/** Gives typed events the strings they grow from, in the order of the text, and checks what hands can do. */
export class LinkReader implements Sounding {
  readonly #problems: ProblemList;
  /** Strings that stand bent, in the order of the text. */
  readonly bends = new StandingBends();
  #before: EventItem | undefined;
  #sounded: readonly WrittenNote[] = [];
  #canHold = false;

  constructor(problems: ProblemList) {
    this.#problems = problems;
  }

  /** Whether something stands before that a hold could make longer; a grace note cannot be held. */
  get canHold(): boolean {
    return this.#canHold;
  }

  /** The notes of the last event that sounded, whatever came after it; none before the first. */
  get sounded(): readonly WrittenNote[] {
    return this.#sounded;
  }

  /** The event right before; none after a rest. */
  get before(): EventItem | undefined {
    return this.#before;
  }

  /** A rest was read: nothing can be linked across it, and no string goes on. */
  rest(): void {
    this.#before = undefined;
    this.#canHold = true;
    this.bends.silence();
  }

  /** What comes next grows out of nothing before it, and nothing after it out of what is read until then. */
  part(): void {
    this.#before = undefined;
    this.bends.silence();
  }

  /** What sounded last is the last of some items. */
  soundsLast(items: readonly Item[]): void {
    const last = eventsOf({ items }).at(-1);
    if (last) this.#sounded = last.item.notes;
  }

  /** The event right before with more moves of its bend. */
  bendBefore(moves: readonly BendMove[], to: number): EventItem | undefined {
    const before = this.#before;
    if (!before) return undefined;
    const notes = before.notes.map((note) => ({ ...note, moves: [...(note.moves ?? []), ...moves] }));
    const event = { ...before, notes, span: { from: before.span.from, to } };
    this.#checkNotes(event);
    this.#take(event);
    return event;
  }

  #take(event: EventItem): void {
    const { notes, link, marks } = event;
    for (const note of notes) {
      const end = note.moves?.at(-1)?.steps ?? note.preBend;
      const isPlain = link === undefined && note.held === undefined && note.again === undefined;
      const start = end !== undefined || isPlain ? 0 : this.bends.under(note, { link, before: this.#before });
      this.bends.take(note, event, end === undefined ? start : end * STEP_CENTS);
    }
    if (marks.includes('cut')) this.bends.silence(notes.map(({ string }) => string));
    this.#before = event;
    this.#sounded = notes;
    this.#canHold = event.value !== 'grace';
  }

  /** The event with its notes known, or undefined when a linked fret has no string to stand on. */
  resolve(typed: TypedEvent, inForce: NoteValue): EventItem | undefined {
    const notes = this.#notes(typed);
    if (!notes || notes.length === 0) return undefined;
    const link = this.#soundLink(typed, notes);
    const event: Writable<EventItem> = {
      kind: 'event',
      span: typed.span,
      value: typed.value ?? inForce,
      notes,
      marks: typed.marks,
      times: typed.times,
    };
    if (link) event.link = link;
    if (typed.slideIn) event.slideIn = typed.slideIn;
    if (typed.slideOut) event.slideOut = typed.slideOut;
    if (typed.arm) event.arm = typed.arm;
    this.#checkNotes(event);
    this.#take(event);
    return event;
  }

  #notes(typed: TypedEvent): readonly WrittenNote[] | undefined {
    const { bareFret, bareMarks, far, link } = typed;
    if ((bareFret === undefined && far === undefined) || !link) return typed.notes;
    const from = this.#before?.notes;
    if (from && far !== undefined) return this.#moved(typed, from, far);
    if (from && bareFret !== undefined) {
      this.#checkShape(typed, from, bareFret);
      return from.map(({ string }) => ({ string, fret: bareFret, ...bareMarks }));
    }
    this.#report(typed, 'link-without-note', `A ${LINK_WORDS[link]} needs a note right before it to start from.`);
    return undefined;
  }

  /** Every string of the event before, moved by so many frets. */
  #moved(typed: TypedEvent, from: readonly WrittenNote[], far: number): readonly WrittenNote[] | undefined {
    const notes = from.map(({ string, fret }) => ({
      ...{ string, fret: fret === null ? null : fret + far },
      ...typed.bareMarks,
    }));
    const off = notes.find(({ fret }) => fret !== null && (fret < 0 || fret > HIGHEST_FRET));
    if (!off) return notes;
    const where = far < 0 ? 'below the open string' : `beyond fret ${HIGHEST_FRET}`;
    this.#report(typed, 'fret-range', `Moved by ${Math.abs(far)} frets this would go ${where}.`);
    return undefined;
  }

  /** A link to one fret from a stack of several makes another shape of it. */
  #checkShape(typed: TypedEvent, from: readonly WrittenNote[], fret: number | null): void {
    const frets = new Set(from.map((note) => note.fret));
    const [first] = frets;
    if (frets.size < 2 || fret === null || first === null || first === undefined || !typed.link) return;
    const far = fret - first;
    const text = `${LINK_LETTERS[typed.link]}${far < 0 ? '' : '+'}${far}`;
    const span = { from: typed.span.from, to: typed.span.from + 1 + String(fret).length };
    this.#report(typed, 'shape-changes', `All strings go to fret ${fret} here, so that the shape changes.`, {
      ...{ title: `Write ${text}, which keeps the shape`, span, text },
    });
  }

  /** The link that stands; none when the strings are others than those sounding before. */
  #soundLink(typed: TypedEvent, notes: readonly WrittenNote[]): Link | undefined {
    const { link } = typed;
    if (!link) return undefined;
    const from = this.#before?.notes ?? [];
    const isOnSame = notes.every(({ string }) => from.some((note) => note.string === string));
    if (!isOnSame && link === 'hammer') this.#hammerFromNowhere(typed, notes);
    // A slide that is struck again may go to another string: away from the one, into the other.
    else if (!isOnSame && link !== 'tap' && !(link === 'shift' && from.length > 0)) {
      const message = `A ${LINK_WORDS[link]} needs a note right before it on the same string.`;
      const fix = { title: 'Write S, away from one string and into the other', span: letterOf(typed), text: 'S' };
      this.#report(typed, 'link-without-note', message, link === 'slide' && from.length > 0 ? fix : undefined);
      return undefined;
    }
    for (const note of notes)
      this.#checkStep(typed, link, from.find(({ string }) => string === note.string)?.fret, note.fret);
    return link;
  }

  /** Nothing sounds on the string that is hammered: it can be done, and it may be the string before that was meant. */
  #hammerFromNowhere(typed: TypedEvent, notes: readonly WrittenNote[]): void {
    const [note] = notes;
    const meant = this.#before?.notes.length === 1 && notes.length === 1 ? this.#before.notes[0] : undefined;
    const name = meant && letterOfString(meant.string);
    const message = 'Hammered from nowhere: nothing sounds on this string before it.';
    if (!note || note.fret === null || name === undefined || note.sought) {
      this.#report(typed, 'hammer-from-nowhere', message);
      return;
    }
    const letters = `h${note.fret}`.length;
    const span = { from: typed.span.from + letters, to: typed.span.from + letters + 1 };
    this.#report(typed, 'hammer-from-nowhere', message, { title: `Write h${note.fret}${name}`, span, text: name });
  }

  #checkStep(typed: TypedEvent, link: Link, from: number | null | undefined, to: number | null): void {
    if (from === null || from === undefined || to === null) return;
    const instead = (other: Link): Fix => {
      const span = letterOf(typed);
      return { title: `Make it a ${LINK_WORDS[other]}`, span, text: LINK_LETTERS[other] };
    };
    if (link === 'hammer' && to <= from)
      this.#report(
        typed,
        'hammer-not-up',
        `A hammer-on goes up, but fret ${to} is not above fret ${from}.`,
        to < from ? instead('pull') : undefined,
      );
    if (link === 'pull' && to >= from)
      this.#report(
        typed,
        'pull-not-down',
        `A pull-off goes down, but fret ${to} is not below fret ${from}.`,
        to > from ? instead('hammer') : undefined,
      );
    if ((link === 'slide' || link === 'shift') && to === from)
      this.#report(typed, 'slide-nowhere', `This slide starts and ends at fret ${to}.`);
  }

  #checkNotes(event: EventItem): void {
    for (const note of event.notes) {
      const bends = note.moves !== undefined || note.preBend !== undefined;
      if (note.held !== undefined) continue;
      if (bends && note.fret === 0)
        this.#report(event, 'bend-on-open-string', 'An open string cannot be bent with the fretting fingers.');
      const widest = bendHeight(note);
      if (widest > WIDEST_BEND_STEPS)
        this.#report(event, 'bend-too-wide', `A bend of ${widest} whole steps is wider than ${WIDEST_BEND_STEPS}.`);
      if (note.harmonic === 'natural' && HARMONIC_RATIOS[note.fret ?? -1] === undefined)
        this.#report(
          event,
          'not-a-harmonic',
          `No natural harmonic speaks at fret ${note.fret ?? 'x'}; try 12, 7, 5, 4, 9, 16, 19, 24 or 28.`,
        );
    }
    const lowest = Math.min(...event.notes.map(({ fret }) => fret ?? Infinity));
    if (lowest === 0 && (event.slideIn === 'below' || event.slideOut === 'down'))
      this.#report(event, 'slide-nowhere', 'There is no fret below the open string to slide from or to.');
  }

  #report(event: { readonly span: EventItem['span'] }, code: ProblemCode, message: string, fix?: Fix): void {
    this.#problems.add(code, event.span, message, ...(fix ? [fix] : []));
  }
}

/** Where the letter of its link stands. */
function letterOf({ span: { from } }: TypedEvent): Span {
  return { from, to: from + 1 };
}
