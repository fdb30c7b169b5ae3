import { UNREADABLE, WordCursor, type Told } from './cursor.ts';
import { EventDraft } from './drafts.ts';
import { meantBy } from './handSlips.ts';
import { linkOfCode } from './linkRecords.ts';
import { EVENT_MARKS, markOfCode, SAID_FIRST_PATTERN } from './marks.ts';
import type { Writable, WrittenNote } from './model.ts';
import { StackReader } from './readStack.ts';
import type { TypedEvent, WordContext } from './typed.ts';
import { readValue, type NoteValue } from './values.ts';

/** Most times `%` may say. More is a repeat that nobody plays. Our choice. */
export const MAX_TIMES = 999;

/**
 * Reads a word as a chain of glued events, `7Dh9p7`, one at a time: each is taken before the next is read, which may ask what sounds before
 * it. What comes from the first unreadable event on is reported and skipped;
 * so is what comes once no more is taken.
 */
export function readEvents(
  word: string,
  context: WordContext,
  told: Told & { readonly take: (event: TypedEvent) => boolean },
): void {
  const reader = new WordReader(word, context, told);
  while (!reader.done) {
    let event: TypedEvent;
    try {
      event = reader.event();
    } catch (error) {
      if (error !== UNREADABLE) throw error;
      return;
    }
    if (!told.take(event)) return;
  }
}

class WordReader {
  readonly #cursor: WordCursor;
  readonly #context: WordContext;
  readonly #stack: StackReader;

  constructor(word: string, context: WordContext, told: Told) {
    this.#cursor = new WordCursor(word, told);
    this.#context = context;
    this.#stack = new StackReader(this.#cursor, context);
  }

  get done(): boolean {
    return this.#cursor.done;
  }

  event(): TypedEvent {
    const cursor = this.#cursor;
    const from = cursor.at;
    const draft = new EventDraft();
    if (from === 0) this.#marksSaidBefore(draft);
    const front = this.#front();
    draft.link = linkOfCode(cursor.take('link')?.[0] ?? '');
    const far = draft.link && cursor.take('far')?.[0];
    const bare = far === undefined ? this.#stack.read(draft) : undefined;
    const marks =
      far === undefined ? undefined : this.#stack.marks(draft, { fret: null, string: this.#sounded[0]?.string });
    if (draft.plucked) draft.marks.add(draft.plucked);
    this.#tail(draft);
    if (front === '(' && draft.closed) draft.marks.add('quiet');
    const word = cursor.word.slice(from, cursor.at);
    if (!this.done && !cursor.sees('link'))
      this.#cursor.unknown(from, `“${word}” is followed by something that is no mark`);
    // Assigned one by one: this runs for every event at every keystroke, and spreads are slow.
    const event: Writable<TypedEvent> = {
      notes: draft.notes,
      marks: draft.marks.size === 0 ? [] : EVENT_MARKS.filter((mark) => draft.marks.has(mark)),
      times: draft.times,
      span: { from: this.#context.offset + from, to: this.#context.offset + cursor.at },
    };
    if (draft.link) event.link = draft.link;
    if (bare) {
      event.bareFret = bare.fret;
      event.bareMarks = bare.marks;
    }
    if (far !== undefined && marks) {
      event.far = Number(far);
      event.bareMarks = marks;
    }
    if ((front === '(') !== draft.closed) this.#standApart(event, draft.closed ? 'close' : 'open');
    if (front === '<') event.slideIn = 'below';
    if (front === '>') event.slideIn = 'above';
    if (draft.slideOut) event.slideOut = draft.slideOut;
    if (draft.arm) event.arm = draft.arm;
    if (draft.late) event.late = draft.late;
    if (draft.value !== undefined) event.value = draft.value;
    return event;
  }

  get #sounded(): readonly WrittenNote[] {
    return this.#context.sounding.sounded;
  }

  /** The bracket or slide that an event begins with; a bracket around one note of a stack is that note's. */
  #front(): string | undefined {
    const cursor = this.#cursor;
    if (cursor.next === '(' && QUIET_NOTE.test(cursor.word.slice(cursor.at, cursor.at + LONGEST_GROUP)))
      return undefined;
    return cursor.literal('(') ?? cursor.literal('<') ?? cursor.literal('>');
  }

  /** A bracket around several events is none of theirs: whoever writes one of them anew leaves it where it is. */
  #standApart(event: Writable<TypedEvent>, bracket: 'open' | 'close'): void {
    event.bracket = bracket;
    const { from, to } = event.span;
    const isLast = this.#cursor.word.charAt(this.#cursor.at - 1) === ')';
    event.span = bracket === 'open' ? { from: from + 1, to } : { from, to: isLast ? to - 1 : to };
  }

  /** Marks that are said before their note, `d12B`; only at the start of a word, and those that mean nothing else there. */
  #marksSaidBefore(draft: EventDraft): void {
    const said = SAID_BEFORE.exec(this.#cursor.word)?.[0] ?? '';
    if (this.#isString(said)) return;
    for (const code of said) {
      const mark = markOfCode(code);
      if (mark) draft.marks.add(mark);
    }
    this.#cursor.at = said.length;
  }

  /** A `d` before a fret is the string where nothing has sounded yet; later it is read as the stroke, and asked. */
  #isString(said: string): boolean {
    const fret = said === 'd' ? /^d(\d+)$/.exec(this.#cursor.word)?.[1] : undefined;
    if (fret === undefined) return false;
    const fix = { title: `Write ${fret}D`, span: { from: 0, to: this.#cursor.word.length }, text: `${fret}D` };
    if (this.#sounded.length > 0)
      this.#cursor.report(
        'string-or-mark',
        fix.span,
        `Read as a down-stroke on the same string; the D string is ${fret}D.`,
        fix,
      );
    return this.#sounded.length === 0;
  }

  /** Reads what may stand behind the stack: the closing bracket, a value of its own, a count. */
  #tail(draft: EventDraft): void {
    for (;;) {
      const from = this.#cursor.at;
      const value = this.#cursor.take('value');
      const times = value ? undefined : this.#cursor.take('times');
      if (value) draft.value = this.#ownValue(value[0].slice(1), from);
      else if (times) draft.times = this.#count(times[1], from);
      else if (!draft.closed && this.#cursor.literal(')')) draft.closed = true;
      else return;
    }
  }

  #ownValue(text: string, from: number): NoteValue {
    return (
      readValue(text) ??
      this.#cursor.fail(
        'value-unknown',
        { from, to: this.#cursor.at },
        `The text /${text} is no note value; write /1 to /64.`,
        ...meantBy(this.#cursor.word),
      )
    );
  }

  #count(text: string | undefined, from: number): number {
    const times = Number(text);
    if (times >= 1 && times <= MAX_TIMES) return times;
    return this.#cursor.fail(
      'too-long',
      { from, to: this.#cursor.at },
      `An event is played 1 to ${MAX_TIMES} times in a row.`,
    );
  }
}

/** A bracket around the first note of a stack. */
const QUIET_NOTE = /^\([^()]*\)\+/;
/** It is looked for so far, characters. Our choice. */
const LONGEST_GROUP = 24;

/** Marks that may be said before their note: those that begin nothing else. */
const SAID_BEFORE = new RegExp(`^${SAID_FIRST_PATTERN}+(?=[\\dx<>'^?])`);
