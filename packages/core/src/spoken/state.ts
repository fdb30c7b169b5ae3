import type { EventMark, Finger, Link, Span } from '../notation/index.ts';
import { draftOf, grown, isWhole, movedDraft, type Draft, type DraftNote } from './drafts.ts';
import type { Word } from './words.ts';

/** What can be read in two ways. */
export type DoubtKind =
  'which E' | 'string' | 'how far' | 'slide' | 'correction' | 'not understood' | 'fret' | 'nothing before';

/** Something that is asked rather than guessed, at its words. */
export interface SpokenDoubt {
  readonly kind: DoubtKind;
  readonly span: Span;
  readonly says: string;
  /** What may be meant, the one that was taken first; empty where only the teacher knows. */
  readonly choices: readonly SpokenChoice[];
}

/** One of several things that may be meant. */
export interface SpokenChoice {
  readonly label: string;
  /** What would be said in place of the words in doubt; `…` stands for those words. */
  readonly say: string;
}

/** What a teacher means by words that others mean otherwise: the label that was chosen before, by the kind of the doubt. */
export type Habits = Readonly<Partial<Record<DoubtKind, string>>>;

/** What was said before a note that it is about. */
export interface Ahead {
  bend?: { steps: number | undefined; isPre: boolean };
  slideIn?: 'below' | 'above';
  slideOut?: 'up' | 'down';
  harmonic?: 'natural' | 'pinch';
  vibrato?: 'narrow' | 'wide';
  barre?: true;
  times?: number;
  finger?: Finger;
  marks: EventMark[];
}

/** What has been read so far. */
export class SpokenState {
  readonly drafts: Draft[] = [];
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
  /** Whether pairs of notes are octaves, struck together. */
  isOctaves = false;
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
  /** Strings that were said, and no fret on them yet. */
  unused: Span | undefined;
  /** Words of the sentence that were not understood; words of the trade are told whatever else is said. */
  strange: { readonly word: Word; readonly isTrade: boolean }[] = [];
  /** Whether “then” was the last that was said. */
  isThen = false;
  /** The words that opened the bend. */
  openSpan: Span | undefined;
  readonly strings: number;
  readonly habits: Habits;

  constructor(strings: number, habits: Habits) {
    this.strings = strings;
    this.habits = habits;
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
    this.drafts.push(draft);
    if (!isWhole(draft)) this.pending.push(draft);
    else this.#settle(draft);
    return draft;
  }

  /** What was said ahead of a note is put to it. */
  #ahead(draft: Draft): Draft {
    const { bend, slideIn, slideOut, harmonic, vibrato, barre, times, finger, marks } = this.ahead;
    this.ahead = { marks: [] };
    const [note] = draft.notes;
    if (bend && note) {
      if (bend.isPre) note.preBend = bend.steps ?? 0;
      else note.moves = [{ kind: 'bend', steps: bend.steps ?? 0 }];
      if (bend.steps === undefined) this.openBend = [note];
    }
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
      if (isOpen) this.openBend = draft.notes.slice(0, 1);
      this.#settle(draft);
    }
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
  }

  /** An event has its strings: it joins the one before where that was said. */
  #settle(draft: Draft): void {
    const before = this.drafts[this.drafts.lastIndexOf(draft) - 1];
    if (draft.joins && before) {
      delete draft.joins;
      this.merge([before, draft]);
    } else if (
      this.isOctaves &&
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
    const { pending } = this;
    if (pending.length === 0) return;
    this.pending = [];
    for (const draft of pending) {
      const before = this.drafts
        .slice(0, this.drafts.lastIndexOf(draft))
        .findLast((one) => !one.isRest && isWhole(one));
      const string = before?.notes.at(-1)?.string ?? Math.min(3, this.strings);
      for (const note of draft.notes) note.string = string;
      this.#settle(draft);
      const says = before ? 'Which string was not said; the one before is taken.' : 'Which string was not said.';
      this.doubt('string', draft.span, says, nearest(string, this.strings));
    }
  }

  /** Notes that were said one after the other in this clause sound together. */
  carryTogether(): void {
    const strung = this.drafts.findLast((draft) => isWhole(draft) && !draft.isRest);
    if (this.pending.length > 1 && this.pending.length === strung?.notes.length) {
      this.assign(
        strung.notes.map(({ string }) => string),
        this.pending.map(({ span }) => span).reduce(grown),
      );
      return;
    }
    const run = this.drafts.slice(this.clause).filter(({ link, notes }) => !link && notes.length === 1);
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

  /** A clause ends. */
  endClause(): void {
    this.flushSlurs();
    this.clause = this.drafts.length;
    this.focus = undefined;
  }

  /** A sentence ends: what follows is said anew. */
  endSentence(): void {
    this.carry();
    if (this.unused) this.doubt('not understood', this.unused, 'A string was named, and no fret on it.');
    this.unused = undefined;
    const hasNotes = this.drafts.length > this.sentence;
    for (const { word, isTrade } of this.strange)
      if (isTrade || hasNotes)
        this.doubt('not understood', word.span, `“${word.raw}” was not understood; nothing is written for it.`);
    this.strange = [];
    this.forward = undefined;
    this.isTrilling = false;
    this.ahead = { marks: [] };
    this.joinsNext = false;
    this.isOctaves = false;
    if (this.drafts.length > this.sentence) this.before = this.sentence;
    this.sentence = this.drafts.length;
    this.clause = this.drafts.length;
  }

  /** The events of the sentence, or of the one before where nothing is said in it yet, so many times more, moved. */
  repeat(more: number, move: { readonly strings: number; readonly frets: number }): void {
    this.carry();
    const from = this.sentence < this.drafts.length ? this.sentence : this.before;
    const group = this.drafts.slice(from);
    for (let time = 0; time < more; time += 1) {
      const steps = time + 1;
      this.drafts.push(...group.map((draft) => movedDraft(draft, move.strings * steps, move.frets * steps)));
    }
  }

  /** The words between two numbers of words. */
  static span(words: readonly Word[], from: number, to: number): Span {
    return { from: words[from]?.span.from ?? 0, to: words[Math.max(from, to - 1)]?.span.to ?? 0 };
  }
}

/** Strings that may be meant, the nearest first. */
function nearest(string: number, strings: number): readonly SpokenChoice[] {
  return Array.from({ length: strings }, (_, index) => index + 1)
    .toSorted((a, b) => Math.abs(a - string) - Math.abs(b - string) || a - b)
    .map((one) => ({ label: `string ${one}`, say: `… on string ${one}` }));
}
