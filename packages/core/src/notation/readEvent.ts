import { HIGHEST_FRET } from '../pitch/index.ts';
import { LINK_BEGINS, linkOfCode, type Link } from './linkRecords.ts';
import { EVENT_MARKS, MARK_BEGINS, MARK_PATTERN, markOfCode, type EventMark } from './marks.ts';
import type { BendMove, Finger, Span, Writable, WrittenNote } from './model.ts';
import { NOTE_MARK_RECORDS, type NoteMark } from './noteMarks.ts';
import type { Fix, ProblemCode } from './problems.ts';
import { LETTERED_STRINGS, stringOfLetter } from './strings.ts';
import { readValue, type NoteValue } from './values.ts';

/** One event as typed, before its links and the value in force are known. Offsets count from the word. */
export interface TypedEvent {
  readonly link?: Link;
  /** The bare fret of a linked event that takes the strings of the event before; null for `x`. */
  readonly bareFret?: number | null;
  /** Marks of the notes of a bare linked event. */
  readonly bareMarks?: NoteMarks;
  readonly notes: readonly WrittenNote[];
  readonly marks: readonly EventMark[];
  readonly slideIn?: 'below' | 'above';
  readonly slideOut?: 'up' | 'down';
  readonly value?: NoteValue;
  readonly times: number;
  readonly span: Span;
}

/** What note marks say of every note of their group. */
export type NoteMarks = Omit<WrittenNote, 'string' | 'fret'>;

/** Told of everything wrong inside a word; spans count from the start of the word. */
export type Report = (code: ProblemCode, span: Span, message: string, fix?: Fix) => void;

/** Most times `%` may say. More is a repeat that nobody plays. Our choice. */
export const MAX_TIMES = 999;

/** Heights may not be written above this, whole steps; it only keeps slips from sounding absurd. Our choice. */
const HIGHEST_STEPS = 12;

const note = (name: NoteMark) => new RegExp(NOTE_MARK_RECORDS[name].pattern, 'y');

/** What an event is made of. The records of marks and links say how those are typed. */
const PATTERNS = {
  link: new RegExp(`[${LINK_BEGINS}](?=\\d|x)`, 'y'),
  fret: /\d+|x/y,
  letters: /[EADGBe]+/y,
  numbers: /@(\d+)/y,
  preBend: note('preBend'),
  bend: note('bend'),
  release: note('release'),
  vibrato: note('vibrato'),
  harmonic: note('harmonic'),
  trill: note('trill'),
  dip: note('dip'),
  finger: note('finger'),
  mark: new RegExp(MARK_PATTERN, 'y'),
  slideOut: /[<>]/y,
  value: /\/(\d+|[?g])(\.{0,2})(t(?:1[02]|[35679])?)?/y,
  times: /%(\d+)/y,
} as const satisfies Readonly<Record<NoteMark | 'link' | 'mark', RegExp>> & Readonly<Record<string, RegExp>>;
/** A part of an event. */
export type EventPart = keyof typeof PATTERNS;

/** What a match of each pattern can begin with; most places of a word need no pattern tried at all. */
const FIRST: Readonly<Record<EventPart, string>> = {
  link: LINK_BEGINS,
  fret: '0123456789x',
  letters: 'EADGBe',
  numbers: '@',
  preBend: NOTE_MARK_RECORDS.preBend.begins,
  bend: NOTE_MARK_RECORDS.bend.begins,
  release: NOTE_MARK_RECORDS.release.begins,
  vibrato: NOTE_MARK_RECORDS.vibrato.begins,
  harmonic: NOTE_MARK_RECORDS.harmonic.begins,
  trill: NOTE_MARK_RECORDS.trill.begins,
  dip: NOTE_MARK_RECORDS.dip.begins,
  finger: NOTE_MARK_RECORDS.finger.begins,
  mark: MARK_BEGINS,
  slideOut: '<>',
  value: '/',
  times: '%',
};

/** The parts of an event in the order in which the reader tries them, each as a pattern: what else shows them reads them alike. */
export const EVENT_PARTS: readonly (readonly [part: EventPart, pattern: string])[] = (
  [
    'preBend',
    'bend',
    'trill',
    'link',
    'release',
    'vibrato',
    'harmonic',
    'dip',
    'finger',
    'mark',
    'value',
    'times',
    'numbers',
    'letters',
    'fret',
    'slideOut',
  ] as const
).map((part) => [part, PATTERNS[part].source]);

const FRACTIONS: Readonly<Record<string, number>> = { '¼': 0.25, '½': 0.5, '¾': 0.75 };

/** A height in whole steps as typed, `1`, `.5`, `1½`; undefined when nothing stands there. */
function readSteps(text: string | undefined): number | undefined {
  if (!text) return undefined;
  const fraction = FRACTIONS[text.slice(-1)];
  const whole = Number((fraction === undefined ? text : text.slice(0, -1)) || 0);
  return Math.min(HIGHEST_STEPS, whole + (fraction ?? 0));
}

/** A place where a word stops making sense; caught by `readEvents`, which skips the rest of the word. */
class Unreadable extends Error {}

/**
 * Reads a word as a chain of glued events, `7Dh9p7`. What was read before the first unreadable event is
 * returned; the rest is reported and skipped.
 */
export function readEvents(word: string, stringCount: number, report: Report): readonly TypedEvent[] {
  const reader = new WordReader(word, stringCount, report);
  const events: TypedEvent[] = [];
  while (!reader.done) {
    try {
      events.push(reader.event());
    } catch (error) {
      if (!(error instanceof Unreadable)) throw error;
      break;
    }
  }
  return events;
}

class WordReader {
  #at = 0;
  readonly #word: string;
  readonly #stringCount: number;
  readonly #report: Report;

  constructor(word: string, stringCount: number, report: Report) {
    this.#word = word;
    this.#stringCount = stringCount;
    this.#report = report;
  }

  get done(): boolean {
    return this.#at >= this.#word.length;
  }

  event(): TypedEvent {
    const from = this.#at;
    const front = this.#literal('(') ?? this.#literal('<') ?? this.#literal('>');
    const link = linkOfCode(this.#take('link')?.[0] ?? '');
    const draft = new EventDraft();
    if (front === '(') draft.marks.add('quiet');
    const bare = this.#stack(draft, link !== undefined);
    this.#tail(draft);
    this.#checkBrackets(draft, front === '(', from);
    const word = this.#word.slice(from, this.#at);
    if (!this.done && !this.#atLink()) this.#unknown(from, `“${word}” is followed by something that is no mark`);
    // Assigned one by one: this runs for every event at every keystroke, and spreads are slow.
    const event: Writable<TypedEvent> = {
      notes: draft.notes,
      marks: draft.marks.size === 0 ? [] : EVENT_MARKS.filter((mark) => draft.marks.has(mark)),
      times: draft.times,
      span: { from, to: this.#at },
    };
    if (link) event.link = link;
    if (bare) {
      event.bareFret = bare.fret;
      event.bareMarks = bare.marks;
    }
    if (front === '<') event.slideIn = 'below';
    if (front === '>') event.slideIn = 'above';
    if (draft.slideOut) event.slideOut = draft.slideOut;
    if (draft.value !== undefined) event.value = draft.value;
    return event;
  }

  #atLink(): boolean {
    if (!this.#mayBegin('link')) return false;
    PATTERNS.link.lastIndex = this.#at;
    return PATTERNS.link.test(this.#word);
  }

  /** Reads groups; a linked event may be a bare fret, which is returned instead of notes. */
  #stack(draft: EventDraft, linked: boolean): { fret: number | null; marks: NoteMarks } | undefined {
    for (let first = true; ; first = false) {
      const from = this.#at;
      const fret = this.#fret(from);
      const strings = this.#strings(fret, from, linked && first);
      const before = this.#at;
      const marks = this.#marks(draft, fret);
      if (strings === undefined) return { fret, marks };
      for (const string of strings) this.#addNote(draft, { string, fret, ...marks }, from);
      const glued = this.#at === before && /[\dx]/.test(this.#word.charAt(this.#at));
      if (this.#literal('+') === undefined && !glued) return undefined;
    }
  }

  #addNote(draft: EventDraft, note: WrittenNote, from: number): void {
    if (draft.notes.some((other) => other.string === note.string)) {
      this.#report(
        'same-string-twice',
        { from, to: this.#at },
        `String ${note.string} already has a fret here; one string sounds one note at a time.`,
      );
      return;
    }
    draft.notes.push(note);
  }

  #fret(from: number): number | null {
    const typed = this.#take('fret')?.[0];
    if (typed === undefined) this.#unknown(from, `“${this.#shown(from)}” is not a fret and string`);
    if (typed === 'x') return null;
    return this.#inRange(Number(typed), from);
  }

  #inRange(fret: number, from: number): number {
    if (fret <= HIGHEST_FRET) return fret;
    return this.#fail('fret-range', { from, to: this.#at }, `Fret ${fret} is beyond fret ${HIGHEST_FRET}.`);
  }

  #strings(fret: number | null, from: number, mayBeBare: boolean): readonly number[] | undefined {
    const numbers = this.#take('numbers');
    if (numbers) return Array.from(numbers[1] ?? '', (digit) => this.#knownString(Number(digit), from));
    const letters = this.#take('letters');
    if (letters) return Array.from(letters[0], (letter) => this.#letteredString(letter, from));
    if (mayBeBare) return undefined;
    const shown = fret === null ? 'The dead note' : `Fret ${fret}`;
    this.#fail(
      'string-missing',
      { from, to: this.#word.length },
      `${shown} has no string; write the string behind it, as in ${fret ?? 'x'}G.`,
      this.#letterFix(),
    );
  }

  /** `7g` can only mean `7G`, since no mark begins with that letter. */
  #letterFix(): Fix | undefined {
    const letter = this.#word.charAt(this.#at);
    if (letter !== 'a' && letter !== 'g') return undefined;
    const text = letter.toUpperCase();
    return { title: `Write ${text}`, span: { from: this.#at, to: this.#at + 1 }, text };
  }

  #letteredString(letter: string, from: number): number {
    const string = stringOfLetter(letter);
    if (this.#stringCount === LETTERED_STRINGS && string !== undefined) return string;
    return this.#fail(
      'string-missing',
      { from, to: this.#at },
      `With ${this.#stringCount} strings, write numbers: @1 is the thinnest.`,
    );
  }

  #knownString(string: number, from: number): number {
    if (string >= 1 && string <= this.#stringCount) return string;
    return this.#fail(
      'string-missing',
      { from, to: this.#at },
      `There is no string ${string}; this tuning has strings 1 to ${this.#stringCount}.`,
    );
  }

  #marks(draft: EventDraft, fret: number | null): NoteMarks {
    const marks = new NoteDraft();
    while (this.#noteMark(marks, fret) || this.#eventMark(draft));
    return marks.result();
  }

  #noteMark(note: NoteDraft, fret: number | null): boolean {
    const from = this.#at;
    let match: RegExpExecArray | undefined;
    if ((match = this.#take('preBend'))) note.preBend = readSteps(match[1]) ?? 1;
    else if ((match = this.#take('bend'))) this.#bend(note, match, fret, from);
    else if ((match = this.#take('trill'))) note.trill = this.#inRange(Number(match[1]), from);
    else if (this.#atLink()) return false;
    else if ((match = this.#take('release'))) this.#release(note, match, from);
    else if ((match = this.#take('vibrato'))) note.vibrato = match[0] === '~~' ? 'wide' : 'narrow';
    else if ((match = this.#take('harmonic'))) note.harmonic = match[0] === '*p' ? 'pinch' : 'natural';
    else if ((match = this.#take('dip'))) note.dip = readSteps(match[1]) ?? 1;
    else if ((match = this.#take('finger'))) note.finger = fingerOf(match[1]);
    else return false;
    return true;
  }

  #bend(note: NoteDraft, match: RegExpExecArray, fret: number | null, from: number): void {
    const [, letters, unsized, target, steps, upTo] = match;
    const slow = letters === 'bb' ? ({ slow: true } as const) : {};
    const span = { from, to: this.#at };
    if (unsized) {
      this.#report('bend-unsized', span, 'How far is this bent? Listen again; until then it sounds as half a step.');
      note.moves.push({ kind: 'bend', steps: 0.5, unsized: true, ...slow });
      return;
    }
    if (target !== undefined) {
      const up = Math.min(HIGHEST_STEPS, (Number(target) - (fret ?? 0)) / 2);
      if (fret === null || up <= 0)
        this.#report('bend-target', span, `A bend goes up: fret ${target} is not above fret ${fret ?? 'x'}.`);
      else note.moves.push({ kind: 'bend', steps: up, ...slow });
      return;
    }
    const height = readSteps(steps) ?? 1;
    const max = readSteps(upTo);
    if (height <= 0) this.#report('bend-target', span, 'A bend of no size does not bend.');
    else if (max !== undefined && max > height) note.moves.push({ kind: 'bend', steps: height, upTo: max, ...slow });
    else note.moves.push({ kind: 'bend', steps: height, ...slow });
  }

  #release(note: NoteDraft, match: RegExpExecArray, from: number): void {
    const height = readSteps(match[2]) ?? 0;
    const span = { from, to: this.#at };
    const standing = note.height();
    if (standing <= height) {
      const why = standing === 0 ? 'nothing is bent here' : `the bend stands at ${standing} only`;
      const fix = { title: 'Take the release away', span, text: '' };
      this.#report('release-without-bend', span, `There is nothing to let down: ${why}.`, fix);
      return;
    }
    const slow = match[1] === 'rr' ? ({ slow: true } as const) : {};
    note.moves.push({ kind: 'release', steps: height, ...slow });
  }

  #eventMark(draft: EventDraft): boolean {
    const mark = markOfCode(this.#take('mark')?.[0] ?? '');
    if (mark) {
      draft.marks.add(mark);
      return true;
    }
    const away = this.#take('slideOut')?.[0];
    if (away === undefined) return false;
    draft.slideOut = away === '<' ? 'up' : 'down';
    return true;
  }

  /** Reads what may stand behind the stack: the closing bracket, a value of its own, a count. */
  #tail(draft: EventDraft): void {
    for (;;) {
      const from = this.#at;
      const value = this.#take('value');
      const times = value ? undefined : this.#take('times');
      if (value) draft.value = this.#ownValue(value[0].slice(1), from);
      else if (times) draft.times = this.#count(times[1], from);
      else if (!draft.closed && this.#literal(')')) draft.closed = true;
      else return;
    }
  }

  /** A quiet event has its own pair of brackets; half a pair is read as meant and reported. */
  #checkBrackets(draft: EventDraft, opened: boolean, from: number): void {
    const span = { from, to: this.#at };
    if (opened && !draft.closed)
      this.#report('unknown-item', span, 'This bracket is not closed; every quiet event has its own pair.', {
        title: 'Close it',
        span: { from: this.#at, to: this.#at },
        text: ')',
      });
    if (draft.closed && !opened)
      this.#report('unknown-item', span, 'This bracket was not opened; every quiet event has its own pair.', {
        title: 'Open it',
        span: { from, to: from },
        text: '(',
      });
  }

  #ownValue(text: string, from: number): NoteValue {
    return (
      readValue(text) ??
      this.#fail('value-unknown', { from, to: this.#at }, `The text /${text} is no note value; write /1 to /64.`)
    );
  }

  #count(text: string | undefined, from: number): number {
    const times = Number(text);
    if (times >= 1 && times <= MAX_TIMES) return times;
    return this.#fail('too-long', { from, to: this.#at }, `An event is played 1 to ${MAX_TIMES} times in a row.`);
  }

  #take(name: keyof typeof PATTERNS): RegExpExecArray | undefined {
    if (!this.#mayBegin(name)) return undefined;
    const pattern = PATTERNS[name];
    pattern.lastIndex = this.#at;
    const match = pattern.exec(this.#word);
    if (match) this.#at += match[0].length;
    return match ?? undefined;
  }

  #mayBegin(name: keyof typeof PATTERNS): boolean {
    return !this.done && FIRST[name].includes(this.#word.charAt(this.#at));
  }

  #literal(sign: string): string | undefined {
    if (this.#word.charAt(this.#at) !== sign) return undefined;
    this.#at += 1;
    return sign;
  }

  #shown(from: number): string {
    const text = this.#word.slice(from);
    return text.length > 24 ? `${text.slice(0, 24)}…` : text;
  }

  #unknown(from: number, why: string): never {
    this.#fail('unknown-item', { from, to: this.#word.length }, `Not read: ${why}.`);
  }

  #fail(code: ProblemCode, span: Span, message: string, fix?: Fix): never {
    this.#report(code, span, message, fix);
    throw new Unreadable(message);
  }
}

class EventDraft {
  readonly notes: WrittenNote[] = [];
  readonly marks = new Set<EventMark>();
  closed = false;
  slideOut?: 'up' | 'down';
  value?: NoteValue;
  times = 1;
}

class NoteDraft {
  preBend?: number;
  readonly moves: BendMove[] = [];
  vibrato?: 'narrow' | 'wide';
  harmonic?: 'natural' | 'pinch';
  trill?: number;
  dip?: number;
  finger?: Finger;

  /** Where the bend stands after the moves so far, whole steps above the fret. */
  height(): number {
    return this.moves.at(-1)?.steps ?? this.preBend ?? 0;
  }

  result(): NoteMarks {
    const marks: Writable<NoteMarks> = {};
    if (this.preBend !== undefined) marks.preBend = this.preBend;
    if (this.moves.length > 0) marks.moves = this.moves;
    if (this.vibrato) marks.vibrato = this.vibrato;
    if (this.harmonic) marks.harmonic = this.harmonic;
    if (this.trill !== undefined) marks.trill = this.trill;
    if (this.dip !== undefined) marks.dip = this.dip;
    if (this.finger) marks.finger = this.finger;
    return marks;
  }
}

function fingerOf(text: string | undefined): Finger {
  return FINGERS.find((finger) => finger === text) ?? '1';
}

const FINGERS = ['1', '2', '3', '4', 'T'] as const satisfies readonly Finger[];
