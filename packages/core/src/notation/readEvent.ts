import { chromaOfName, HIGHEST_FRET, midiOf, type Tuning } from '../pitch/index.ts';
import { FIRST, HIGHEST_STEPS, PATTERNS, readSteps } from './eventParts.ts';
import { EventDraft, fingerOf, NoteDraft, type NoteMarks } from './drafts.ts';
import { meantBy } from './handSlips.ts';
import { linkOfCode, type Link } from './linkRecords.ts';
import { EVENT_MARKS, markOfCode, SAID_FIRST_PATTERN, type EventMark } from './marks.ts';
import type { Span, Writable, WrittenNote } from './model.ts';
import type { Fix, ProblemCode } from './problems.ts';
import { letterOfString, LETTERED_STRINGS, stringOfLetter } from './strings.ts';
import { readValue, type NoteValue } from './values.ts';

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
  readonly value?: NoteValue;
  readonly times: number;
  /** A bracket that it opens and does not close, or closes and has not opened. */
  readonly bracket?: 'open' | 'close';
  readonly span: Span;
}

/** What a word stands in. */
export interface WordContext {
  /** Where it begins in the text. */
  readonly offset: number;
  readonly stringCount: number;
  readonly tuning: Tuning;
  readonly capo: number;
  /** The notes of the last event that sounded before it; none at the start of a phrase. */
  readonly sounded: readonly WrittenNote[];
}

/** Told of everything wrong inside a word; spans count from the start of the word. */
export type Report = (code: ProblemCode, span: Span, message: string, ...fixes: readonly Fix[]) => void;

/** Most times `%` may say. More is a repeat that nobody plays. Our choice. */
export const MAX_TIMES = 999;

/** An octave in whole steps. */
const OCTAVE_STEPS = 6;

/** Thrown where a word stops making sense, and caught by `readEvents`; one for all, since a stack of calls is costly to note down. */
const UNREADABLE = new Error('the rest of this word is not read');

/**
 * Reads a word as a chain of glued events, `7Dh9p7`. What was read before the first unreadable event is
 * returned; the rest is reported and skipped.
 */
export function readEvents(word: string, context: WordContext, report: Report): readonly TypedEvent[] {
  const reader = new WordReader(word, context, report);
  const events: TypedEvent[] = [];
  while (!reader.done) {
    try {
      events.push(reader.event());
    } catch (error) {
      if (error !== UNREADABLE) throw error;
      break;
    }
  }
  return events;
}

class WordReader {
  #at = 0;
  readonly #word: string;
  readonly #stringCount: number;
  readonly #tuning: Tuning;
  readonly #offset: number;
  readonly #capo: number;
  readonly #report: Report;
  /** The notes that sounded last; a fret without a string lies on their strings. */
  #sounded: readonly WrittenNote[];

  constructor(word: string, { offset, stringCount, tuning, capo, sounded }: WordContext, report: Report) {
    this.#capo = capo;
    this.#offset = offset;
    this.#word = word;
    this.#stringCount = stringCount;
    this.#tuning = tuning;
    this.#sounded = sounded;
    this.#report = report;
  }

  get done(): boolean {
    return this.#at >= this.#word.length;
  }

  event(): TypedEvent {
    const from = this.#at;
    const draft = new EventDraft();
    if (from === 0) this.#marksSaidBefore(draft);
    const front = this.#literal('(') ?? this.#literal('<') ?? this.#literal('>');
    const link = linkOfCode(this.#take('link')?.[0] ?? '');
    const far = link && this.#take('far')?.[0];
    const bare = far === undefined ? this.#stack(draft, link !== undefined) : undefined;
    const marks = far === undefined ? undefined : this.#marks(draft, null);
    this.#tail(draft);
    if (front === '(' && draft.closed) draft.marks.add('quiet');
    const word = this.#word.slice(from, this.#at);
    if (!this.done && !this.#atLink()) this.#unknown(from, `“${word}” is followed by something that is no mark`);
    // Assigned one by one: this runs for every event at every keystroke, and spreads are slow.
    const event: Writable<TypedEvent> = {
      notes: draft.notes,
      marks: draft.marks.size === 0 ? [] : EVENT_MARKS.filter((mark) => draft.marks.has(mark)),
      times: draft.times,
      span: { from: this.#offset + from, to: this.#offset + this.#at },
    };
    if (link) event.link = link;
    if (bare) {
      event.bareFret = bare.fret;
      event.bareMarks = bare.marks;
    }
    if (far !== undefined && marks) {
      event.far = Number(far);
      event.bareMarks = marks;
    }
    if ((front === '(') !== draft.closed) this.#standApart(event, draft.closed ? 'close' : 'open');
    if (draft.notes.length > 0) this.#sounded = draft.notes;
    if (front === '<') event.slideIn = 'below';
    if (front === '>') event.slideIn = 'above';
    if (draft.slideOut) event.slideOut = draft.slideOut;
    if (draft.value !== undefined) event.value = draft.value;
    return event;
  }

  /** A bracket around several events is none of theirs: whoever writes one of them anew leaves it where it is. */
  #standApart(event: Writable<TypedEvent>, bracket: 'open' | 'close'): void {
    event.bracket = bracket;
    const { from, to } = event.span;
    const isLast = this.#word.charAt(this.#at - 1) === ')';
    event.span = bracket === 'open' ? { from: from + 1, to } : { from, to: isLast ? to - 1 : to };
  }

  /** Marks that are said before their note, `d12B`; only at the start of a word, and those that mean nothing else there. */
  #marksSaidBefore(draft: EventDraft): void {
    const said = SAID_BEFORE.exec(this.#word)?.[0] ?? '';
    if (this.#isString(said)) return;
    for (const code of said) {
      const mark = markOfCode(code);
      if (mark) draft.marks.add(mark);
    }
    this.#at = said.length;
  }

  /** A `d` before a fret is the string where nothing has sounded yet; later it is read as the stroke, and asked. */
  #isString(said: string): boolean {
    const fret = said === 'd' ? /^d(\d+)$/.exec(this.#word)?.[1] : undefined;
    if (fret === undefined) return false;
    const fix = { title: `Write ${fret}D`, span: { from: 0, to: this.#word.length }, text: `${fret}D` };
    if (this.#sounded.length > 0)
      this.#report(
        'string-or-mark',
        fix.span,
        `Read as a down-stroke on the same string; the D string is ${fret}D.`,
        fix,
      );
    return this.#sounded.length === 0;
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
      const strings = this.#strings(fret, from, { linked, first });
      const before = this.#at;
      const marks = this.#marks(draft, fret, strings?.[0]);
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

  /** The strings of a fret: those that are written, else those that sounded last. Undefined for a link, which knows its own. */
  #strings(
    fret: number | null,
    from: number,
    { linked, first }: { readonly linked: boolean; readonly first: boolean },
  ): readonly number[] | undefined {
    const numbers = this.#take('numbers');
    if (numbers) return Array.from(numbers[1] ?? '', (digit) => this.#knownString(Number(digit), from));
    const letters = this.#take('letters');
    if (letters) return Array.from(letters[0], (letter) => this.#letteredString(letter, from));
    if (linked && first) return undefined;
    const shown = fret === null ? 'The dead note' : `Fret ${fret}`;
    const small = this.#smallString(fret, from);
    if (small !== undefined) return [small];
    if (first && this.#sounded.length > 0) return this.#sameStrings(shown, fret, from);
    this.#fail(
      'string-missing',
      { from, to: this.#word.length },
      `${shown} has no string; write the string behind it, as in ${fret ?? 'x'}G.`,
    );
  }

  /** `9b` and `11d` are strings where nothing has sounded yet; later they are read as marks on the same string, and asked. */
  #smallString(fret: number | null, from: number): number | undefined {
    const letter = this.#word.slice(this.#at);
    if ((letter !== 'b' && letter !== 'd') || fret === null || this.#stringCount !== LETTERED_STRINGS) return undefined;
    const text = `${fret}${letter.toUpperCase()}`;
    if (this.#sounded.length === 0) {
      this.#at += 1;
      return stringOfLetter(letter);
    }
    const read = letter === 'b' ? 'a bend' : 'a down-stroke';
    const span = { from, to: this.#word.length };
    const message = `Read as ${read} on the same string; the ${letter.toUpperCase()} string is ${text}.`;
    this.#report('string-or-mark', span, message, { title: `Write ${text}`, span, text });
    return undefined;
  }

  /** The strings that sounded last, as long as they were fretted alike. */
  #sameStrings(shown: string, fret: number | null, from: number): readonly number[] {
    const frets = new Set(this.#sounded.map((note) => note.fret));
    if (frets.size < 2) return this.#sounded.map(({ string }) => string);
    const span = { from, to: this.#at };
    const fixes = this.#sounded.map(({ string }): Fix => {
      const text = `${fret ?? 'x'}${this.#nameOf(string)}`;
      return { title: `Write ${text}`, span, text };
    });
    const message = `${shown} has no string, and the event before lies on several frets; write the string.`;
    this.#fail('string-missing', { from, to: this.#word.length }, message, ...fixes);
  }

  #nameOf(string: number): string {
    return (this.#stringCount === LETTERED_STRINGS ? letterOfString(string) : undefined) ?? `@${string}`;
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

  #marks(draft: EventDraft, fret: number | null, string = this.#sounded[0]?.string): NoteMarks {
    const marks = new NoteDraft();
    while (this.#noteMark(marks, { fret, string }) || this.#eventMark(draft));
    return marks.result();
  }

  #noteMark(note: NoteDraft, place: PlaceOnNeck): boolean {
    const from = this.#at;
    let match: RegExpExecArray | undefined;
    if ((match = this.#take('preBend'))) note.preBend = readSteps(match[1]) ?? 1;
    else if ((match = this.#take('bend'))) this.#bend(note, match, place, from);
    else if ((match = this.#take('trill'))) note.trill = this.#inRange(Number(match[1]), from);
    else if (this.#atLink()) return false;
    else if ((match = this.#take('release'))) this.#release(note, match, place, from);
    else if ((match = this.#take('vibrato'))) note.vibrato = match[0] === '~~' ? 'wide' : 'narrow';
    else if ((match = this.#take('harmonic'))) note.harmonic = match[0] === '*p' ? 'pinch' : 'natural';
    else if ((match = this.#take('dip'))) note.dip = readSteps(match[1]) ?? 1;
    else if ((match = this.#take('finger'))) note.finger = fingerOf(match[1]);
    else if ((match = this.#take('claim'))) note.claim = match[1] ?? '';
    else return false;
    return true;
  }

  #bend(note: NoteDraft, match: RegExpExecArray, place: PlaceOnNeck, from: number): void {
    const [, word, letters, unsized, sized, target, steps, upTo] = match;
    const { fret } = place;
    const slow = letters === 'bb' ? ({ slow: true } as const) : {};
    const span = { from, to: this.#at };
    if (unsized) {
      this.#report('bend-unsized', span, 'How far is this bent? Listen again; until then it sounds as half a step.');
      note.moves.push({ kind: 'bend', steps: 0.5, unsized: true, ...slow });
      return;
    }
    if (target !== undefined) {
      const far = this.#stepsTo(target, place);
      // A bend to the name of its own fret goes an octave up.
      const up = far === 0 && !/^\d/.test(target) ? OCTAVE_STEPS : Math.min(HIGHEST_STEPS, far);
      if (Number.isNaN(up) || up <= 0)
        this.#report('bend-target', span, `A bend goes up: fret ${target} is not above fret ${fret ?? 'x'}.`);
      else note.moves.push({ kind: 'bend', steps: this.#sizeOrTarget(sized, up, { target, span }), ...slow });
      return;
    }
    const height = word === undefined ? (readSteps(steps) ?? 1) : word === 'full' ? 1 : 0.5;
    const max = readSteps(upTo);
    if (height <= 0) this.#report('bend-target', span, 'A bend of no size does not bend.');
    else if (max !== undefined && max > height) note.moves.push({ kind: 'bend', steps: height, upTo: max, ...slow });
    else note.moves.push({ kind: 'bend', steps: height, ...slow });
  }

  /** How many whole steps lie from a place of the neck up to a fret, or to the next pitch of a name, its own among them. */
  #stepsTo(target: string, { fret, string }: PlaceOnNeck): number {
    if (fret === null) return NaN;
    if (/^\d/.test(target)) return (Number(target) - fret) / 2;
    if (string === undefined) return NaN;
    const semitones = chromaOfName(target) - midiOf(this.#tuning, string, fret, this.#capo);
    return (((semitones % 12) + 12) % 12) / 2;
  }

  /** The size that was said with a target; where they differ, that is asked, and the size stands. */
  #sizeOrTarget(sized: string | undefined, up: number, { target, span }: { target: string; span: Span }): number {
    const said = readSteps(sized);
    if (said === undefined || said === up) return up;
    const message = `A bend of ${said} does not reach ${target}; that would take ${up}.`;
    const written = this.#word.slice(span.from, span.to);
    const write = (text: string): Fix => ({ title: `Write ${text}`, span, text });
    const letters = written.startsWith('bb') ? 'bb' : 'b';
    this.#report('bend-target', span, message, write(`${letters}${up}`), write(`${letters}${said}`));
    return said;
  }

  #release(note: NoteDraft, match: RegExpExecArray, place: PlaceOnNeck, from: number): void {
    const [, , target, steps] = match;
    const to = target === undefined ? readSteps(steps) : this.#stepsTo(target, place);
    const height = to === undefined || Number.isNaN(to) ? 0 : Math.max(0, to);
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

  #ownValue(text: string, from: number): NoteValue {
    return (
      readValue(text) ??
      this.#fail(
        'value-unknown',
        { from, to: this.#at },
        `The text /${text} is no note value; write /1 to /64.`,
        ...meantBy(this.#word),
      )
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
    this.#fail('unknown-item', { from, to: this.#word.length }, `Not read: ${why}.`, ...meantBy(this.#word));
  }

  #fail(code: ProblemCode, span: Span, message: string, ...fixes: readonly Fix[]): never {
    this.#report(code, span, message, ...fixes);
    throw UNREADABLE;
  }
}

/** A place of the neck; no fret for a dead note or one that is not known yet. */
interface PlaceOnNeck {
  readonly fret: number | null;
  readonly string: number | undefined;
}

/** Marks that may be said before their note: those that begin nothing else. */
const SAID_BEFORE = new RegExp(`^${SAID_FIRST_PATTERN}+(?=[\\dx<>])`);
