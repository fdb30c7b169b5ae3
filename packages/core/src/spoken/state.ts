import type { EventMark, Finger, Link, Span } from '../notation/index.ts';
import { takenFirst, type DoubtKind, type Habits, type SpokenChoice, type SpokenDoubt } from './doubts.ts';
import { draftOf, grown, isWhole, movedDraft, struckAgain, type Draft, type DraftNote, type Shape } from './drafts.ts';
import { bentToUnison, inShape } from './shapes.ts';
import type { Word } from './words.ts';

/** No more events are written of one text. Our choice. */
const MOST_EVENTS = 50_000;

/** Where words are read: for which strings, by whom, after what. */
export interface SpokenSetup {
  /** MIDI numbers of the open strings, the thinnest first. */
  readonly openMidis: readonly number[];
  readonly habits: Habits;
  /** The string of the last note that stands before; undefined where nothing does. */
  readonly before: number | undefined;
}

/** Something that can be read in several ways, and the one that was taken. */
export interface ChoicePoint {
  /** How unlikely each is in itself, log-odds against the first. */
  readonly costs: readonly number[];
  readonly taken: number;
}

/** What was said before a note that it is about. */
export interface Ahead {
  bend?: { steps: number | undefined; isPre: boolean };
  slideIn?: 'below' | 'above';
  slideOut?: 'up' | 'down';
  harmonic?: 'natural' | 'pinch';
  shape?: Shape;
  strokes?: ('down' | 'up')[];
  vibrato?: 'narrow' | 'wide';
  barre?: true;
  isGrace?: true;
  times?: number;
  finger?: Finger;
  marks: EventMark[];
}

/** What has been read so far. */
export class SpokenState {
  readonly drafts: Draft[] = [];
  /** What was chosen so far, and what is to be chosen at each point; the first of its ways where nothing is said. */
  points: readonly ChoicePoint[] = [];
  script: readonly number[] = [];
  readonly doubts: SpokenDoubt[] = [];
  readonly stamps: { readonly seconds: number; readonly before: number }[] = [];
  /** Events whose strings are not said yet. */
  pending: Draft[] = [];
  /** Strings that were said before their frets. */
  forward: readonly number[] | undefined;
  ahead: Ahead = { marks: [] };
  /** Where the sentence, and the clause, began: numbers of events. */
  sentence = 0;
  before = 0;
  clause = 0;
  /** Whether the next event sounds together with the last. */
  joinsNext = false;
  /** Whether notes are struck together in pairs: octaves, double stops. */
  isInPairs = false;
  /** Whether the thicker string of a pair is bent to the pitch of the thinner. */
  isUnison = false;
  /** Whether chords are named, so that a letter alone is one. */
  isNaming = false;
  /** The shape that was named in this sentence; of every fret, or of those that are “at”. */
  everyShape: { readonly shape: Shape; readonly isMany: boolean } | undefined;
  /** The event from which on one stroke goes through the strings. */
  sweepFrom: number | undefined;
  /** The fret that every string is played at which is named without one. */
  everyFret: number | undefined;
  /** Slurs that were named and whose frets were said before. */
  slurs: Link[] = [];
  /** The bends whose size is still to be said. */
  openBend: readonly DraftNote[] = [];
  /** Which note of the last stack is spoken of; all of them where it is none. */
  focus: number | undefined;
  /** Values that were said, and the number of the event they begin at. */
  readonly values: { readonly value: string; readonly before: number }[] = [];
  /** Whether the fret after the next is what that trills with. */
  isTrilling = false;
  /** Strings that were said, and no fret on them yet; and whether they were said to be struck. */
  unused: Span | undefined;
  isStruck = false;
  isMuting = false;
  /** Words of the sentence that were not understood; words of the trade are told whatever else is said. */
  strange: { readonly word: Word; readonly isTrade: boolean }[] = [];
  /** Whether “then” was the last that was said. */
  isThen = false;
  isBreak = false;
  /** A mark of every event of the sentence; from which event on all sound together; how often the sentence is played. */
  everyMark: EventMark | undefined;
  stackFrom: number | undefined;
  repeatAhead = 1;
  /** The number of the word to be read next. */
  at = 0;
  /** How many words were not understood. */
  unknown = 0;
  /** How many events were put aside. */
  earlier = 0;
  /** The words that opened the bend. */
  openSpan: Span | undefined;
  readonly setup: SpokenSetup;

  constructor(setup: SpokenSetup) {
    this.setup = setup;
  }

  /** The same with nothing shared, to be read on from in the ways of a script. */
  fork(script: readonly number[]): SpokenState {
    const notes = new Map<DraftNote, DraftNote>();
    const drafts = new Map(this.drafts.map((draft) => [draft, copied(draft, notes)]));
    return Object.assign(new SpokenState(this.setup), this, {
      ...{ script, points: [], drafts: [...drafts.values()] },
      pending: this.pending.flatMap((draft) => drafts.get(draft) ?? []),
      openBend: this.openBend.flatMap((note) => notes.get(note) ?? []),
      ...{ doubts: [...this.doubts], stamps: [...this.stamps], values: [...this.values] },
      ...{ slurs: [...this.slurs], strange: [...this.strange] },
      ahead: { ...this.ahead, marks: [...this.ahead.marks] },
    });
  }

  /** Which of several ways is taken: costs as in `ChoicePoint`. */
  pick(costs: readonly number[]): number {
    const taken = this.script[this.points.length] ?? 0;
    this.points = [...this.points, { costs, taken }];
    return taken;
  }

  get strings(): number {
    return this.setup.openMidis.length;
  }

  get habits(): Habits {
    return this.setup.habits;
  }

  /** The notes that are spoken of. */
  get notes(): readonly DraftNote[] {
    const notes = this.last?.notes ?? [];
    const one = this.focus === undefined ? undefined : notes[this.focus];
    return one ? [one] : notes;
  }

  get last(): Draft | undefined {
    return this.drafts.findLast(({ isRest }) => !isRest);
  }

  doubt(kind: DoubtKind, span: Span, says: string, choices: readonly SpokenChoice[] = []): void {
    this.doubts.push({ kind, span, says, choices });
  }

  /** A fret is said: an event on strings that are said already, or still to be said. */
  addFret(fret: number | null, span: Span, link?: Link): Draft {
    const last = this.last;
    const at = link && last && link !== 'shift' ? last.notes.map(({ string }) => string) : this.forward;
    const strings = at && at.length > 0 ? at : [0];
    const draft = this.#ahead(
      draftOf(
        strings.map((string) => ({ string, fret })),
        span,
      ),
    );
    this.focus = undefined;
    this.unused = undefined;
    if (link) draft.link = link;
    if (this.joinsNext && last) {
      this.joinsNext = false;
      draft.joins = true;
    }
    this.#add(draft);
    const { strokes = [] } = this.ahead;
    this.ahead = { marks: [] };
    const [, ...others] = strokes;
    if (strokes[0]) draft.marks.add(strokes[0]);
    others.forEach((stroke) => this.strike(draft, stroke));
    return draft;
  }

  #add(draft: Draft): void {
    this.drafts.push(draft);
    if (!isWhole(draft)) this.pending.push(draft);
    else this.#settle(draft);
  }

  /** An event is struck once more. */
  strike(draft: Draft, stroke: 'down' | 'up'): void {
    const more = { ...struckAgain(draft), marks: new Set([stroke]) };
    this.drafts.push(more);
    if (this.pending.includes(draft)) this.pending.push(more);
  }

  /** What was said ahead of a note is put to it. */
  #ahead(draft: Draft): Draft {
    const { bend, slideIn, slideOut, harmonic, shape, vibrato, barre, isGrace, times, finger, marks } = this.ahead;
    const [note] = draft.notes;
    if (bend && note) {
      if (bend.isPre) note.preBend = bend.steps ?? 0;
      else note.moves = [{ kind: 'bend', steps: bend.steps ?? 0 }];
      if (bend.steps === undefined) this.openBend = [note];
    }
    if (shape) draft.shape = shape;
    if (isGrace) draft.isGrace = isGrace;
    if (slideIn) draft.slideIn = slideIn;
    if (slideOut) draft.slideOut = slideOut;
    for (const one of draft.notes) {
      if (harmonic) one.harmonic = harmonic;
      if (vibrato) one.vibrato = vibrato;
      if (finger) one.finger = finger;
    }
    if (barre && note?.fret) draft.barre = note.fret;
    for (const mark of marks) draft.marks.add(mark);
    if (times !== undefined) draft.times = times;
    return draft;
  }

  /** Strings are said for the frets before them. */
  assign(strings: readonly number[], span: Span): void {
    this.#carryEarlier();
    const { pending } = this;
    this.pending = [];
    const isPlain = pending.every(({ notes, link, joins }) => notes.length === 1 && !link && !joins);
    if (strings.length > 1 && pending.length === strings.length && isPlain) {
      const isTogether = !pending.some(({ isAfterThen }, index) => index > 0 && isAfterThen);
      pending.forEach(({ notes: [note] }, index) => note && (note.string = strings[index] ?? 0));
      if (isTogether) this.merge(pending);
      else pending.forEach((draft) => this.#settle(draft));
      return;
    }
    for (const draft of pending) {
      const isOpen = draft.notes.some((note) => this.openBend.includes(note));
      draft.notes = strings.flatMap((string) => draft.notes.slice(0, 1).map((note) => ({ ...note, string })));
      draft.span = grown(draft.span, span);
      if (isOpen) this.openBend = draft.notes;
      this.#settle(draft);
    }
  }

  /** “10 on the B, up to 13, then 12 on the E”: what the hand goes to before “then” stays on the string before. */
  #carryEarlier(): void {
    const { pending } = this;
    const at = pending.findLastIndex(({ isAfterThen }) => isAfterThen);
    const [first] = pending;
    const isApart = first?.isTo ?? pending[at]?.isAfterBreak;
    if (at < 1 || !first || !isApart || this.drafts.indexOf(first) <= this.sentence) return;
    this.pending = pending.slice(0, at);
    this.carry();
    this.pending = pending.slice(at);
  }

  /** Several events become one stack. */
  merge(drafts: readonly Draft[]): void {
    const [first, ...others] = drafts;
    if (!first) return;
    for (const other of others) {
      first.notes.push(...other.notes);
      other.marks.forEach((mark) => first.marks.add(mark));
      first.span = grown(first.span, other.span);
      const at = this.drafts.lastIndexOf(other);
      if (at >= 0) this.drafts.splice(at, 1);
    }
    if (this.isUnison) first.notes = bentToUnison(first.notes, this.setup.openMidis);
  }

  /** An event has its strings: it joins the one before where that was said. */
  #settle(draft: Draft): void {
    const { shape } = draft;
    if (shape) {
      delete draft.shape;
      draft.isShaped = true;
      draft.notes = inShape(shape, draft.notes, this.setup.openMidis);
    }
    const before = this.drafts[this.drafts.lastIndexOf(draft) - 1];
    if (draft.joins && before) {
      delete draft.joins;
      this.merge([before, draft]);
    } else if (
      this.isInPairs &&
      before &&
      before.notes.length === 1 &&
      draft.notes.length === 1 &&
      this.drafts.lastIndexOf(before) >= this.clause
    ) {
      this.merge([before, draft]);
    }
  }

  /** Frets whose strings nobody said stay on the string before them, and are asked. */
  carry(): void {
    this.flushSlurs();
    if (this.pending.length === 0 || this.#carryPairs()) return;
    const { pending } = this;
    this.pending = [];
    let taken: number | undefined;
    for (const draft of pending) {
      const before = this.drafts
        .slice(0, this.drafts.lastIndexOf(draft))
        .findLast((one) => !one.isRest && isWhole(one));
      const known = before?.notes.at(before.isShaped ? 0 : -1)?.string ?? this.setup.before;
      const ways = nearest(known ?? Math.min(3, this.strings), this.strings);
      taken ??= this.pick(ways.slice(0, 3).map((_, index) => (index === 0 ? 0 : 5)));
      const string = ways[taken] ?? 1;
      const many = taken === 0 && before && isAcross(before) ? before.notes.map((note) => note.string) : [string];
      draft.notes = many.flatMap((one) => draft.notes.slice(0, 1).map((note) => ({ ...note, string: one })));
      this.#settle(draft);
      const says =
        many.length > 1
          ? 'Which strings were not said; those before are taken.'
          : known === string
            ? 'Which string was not said; the one before is taken.'
            : 'Which string was not said.';
      this.doubt('string', draft.span, says, takenFirst(string, ways).map(onString));
    }
  }

  /** “seven and nine together, then ten and twelve”: frets in pairs stay on the two strings of the pair before. */
  #carryPairs(): boolean {
    const { pending } = this;
    const [first] = pending;
    const before = first && this.drafts[this.drafts.indexOf(first) - 1];
    const isPairs = before?.notes.length === 2 && isWhole(before) && !before.isShaped && pending.length % 2 === 0;
    const isPlain = pending.every(
      ({ notes, link, isAfterThen }, index) => notes.length === 1 && !link && !(isAfterThen && index % 2 === 1),
    );
    if (!isPairs || !isPlain || (isAcross(before) && !this.isInPairs)) return false;
    const strings = before.notes.map(({ string }) => string);
    this.pending = [];
    for (let at = 0; at < pending.length; at += 2) {
      const pair = pending.slice(at, at + 2);
      pair.forEach(({ notes: [note] }, index) => note && (note.string = strings[index] ?? 0));
      this.merge(pair);
      const span = pair.map((draft) => draft.span).reduce(grown);
      this.doubt('string', span, 'Which strings were not said; those before are taken, together.');
    }
    return true;
  }

  /**
   * Notes that were said one after the other in this clause sound together.
   * @param isWide whether it is said of those of the whole sentence where there is only one in the clause
   */
  carryTogether(isWide: boolean): void {
    const strung = this.drafts.findLast((draft) => isWhole(draft) && !draft.isRest);
    if (this.pending.length > 1 && this.pending.length === strung?.notes.length) {
      this.assign(
        strung.notes.map(({ string }) => string),
        this.pending.map(({ span }) => span).reduce(grown),
      );
      return;
    }
    const { last } = this;
    // “fifth string, seventh fret; fourth string, ninth fret; both together”.
    const isNew = this.drafts.length === this.sentence;
    const isOne = isWide && this.drafts.length - this.clause === 1 && last?.notes.length === 1 && !last.isAfterThen;
    const run = this.drafts
      .slice(isNew ? Math.max(this.before - 1, this.drafts.length - 2, 0) : isOne ? this.sentence : this.clause)
      .filter(({ link, notes }) => !link && notes.length === 1);
    const strings = new Set(run.map(({ notes }) => notes[0]?.string));
    if (run.length < 2 || strings.size < run.length || strings.has(0)) return;
    this.merge(run);
  }

  /** Slurs that were named behind their frets: “five seven five, hammer on and pull off”. */
  flushSlurs(): void {
    const { slurs } = this;
    this.slurs = [];
    const targets = this.drafts.slice(-slurs.length);
    if (slurs.length === 0 || targets.length < slurs.length) return;
    targets.forEach((draft, index) => {
      const link = slurs[index];
      if (link && !draft.link) draft.link = link;
    });
  }

  /** Strings that were said to be muted, or struck, without a fret. */
  strikeStrings(): void {
    const { unused, isMuting } = this;
    this.isMuting = false;
    if (!unused || !isMuting) this.openStrings();
    else {
      this.isStruck = false;
      this.addFret(null, unused);
    }
  }

  /** Strings that were said to be struck, and have no fret, are open; that is asked. */
  openStrings(): void {
    const { unused } = this;
    this.isStruck = false;
    if (!unused || !this.forward) return;
    this.addFret(0, unused);
    if (this.habits.open === undefined) this.doubt('open', unused, 'No fret was said; open is taken.', [OPEN]);
  }

  /** A clause ends. */
  endClause(): void {
    this.flushSlurs();
    if (this.isInPairs) this.#carryPairs();
    if (this.isStruck) this.openStrings();
    this.clause = this.drafts.length;
    this.focus = undefined;
  }

  /** “on the E, the high one”: which E is said after it. */
  nameE(string: number): void {
    const at = this.doubts.findLastIndex(({ kind }) => kind === 'which E');
    if (at < 0) return;
    const [{ span } = { span: { from: 0, to: 0 } }] = this.doubts.splice(at, 1);
    for (const { span: own, notes } of this.drafts.slice(this.sentence))
      for (const note of notes) if (own.to >= span.to && [1, 6].includes(note.string)) note.string = string;
    if (this.forward) this.forward = this.forward.map((one) => ([1, 6].includes(one) ? string : one));
  }

  /**
   * The events of the sentence, or of the one before where nothing is said in it yet, so many times more, moved.
   * @param last how many of them; all where left out
   */
  repeat(
    more: number,
    move: { readonly strings: number; readonly frets: number },
    { span, last = Infinity }: { readonly span: Span; readonly last?: number },
  ): readonly Draft[] {
    this.carry();
    const from = this.sentence < this.drafts.length ? this.sentence : this.before;
    const group = this.drafts.slice(Math.max(from, this.drafts.length - last));
    const made: Draft[] = [];
    if (this.earlier + this.drafts.length + group.length * more > MOST_EVENTS) {
      this.doubt('not understood', span, 'That is more than is written at once; it is not written again.');
      return made;
    }
    for (let time = 0; time < more; time += 1) {
      const steps = time + 1;
      made.push(...group.map((draft) => movedDraft(draft, move.strings * steps, move.frets * steps)));
    }
    this.drafts.push(...made);
    return made;
  }

  /** The words between two numbers of words. */
  static span(words: readonly Word[], from: number, to: number): Span {
    return { from: words[from]?.span.from ?? 0, to: words[Math.max(from, to - 1)]?.span.to ?? 0 };
  }
}

/** Strings that may be meant, the nearest first. */
function nearest(string: number, strings: number): readonly number[] {
  return Array.from({ length: strings }, (_, index) => index + 1).toSorted(
    (a, b) => Math.abs(a - string) - Math.abs(b - string) || a - b,
  );
}

/** Whether one fret is played across several strings. */
function isAcross({ notes, isShaped }: Draft): boolean {
  return notes.length > 1 && !isShaped && notes.every(({ fret }) => fret === notes[0]?.fret);
}

/** @param copies each note with its copy */
function copied(draft: Draft, copies: Map<DraftNote, DraftNote>): Draft {
  const notes = draft.notes.map((note) => {
    const copy = { ...note };
    copies.set(note, copy);
    return copy;
  });
  return { ...draft, notes, marks: new Set(draft.marks), before: [...draft.before] };
}

export const OPEN: SpokenChoice = { label: 'open', say: 'open …' };
const onString = (string: number): SpokenChoice => ({ label: `string ${string}`, say: `… on string ${string}` });
