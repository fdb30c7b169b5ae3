import { FIRST, PATTERNS, type EventPart } from './eventParts.ts';
import { meantBy } from './handSlips.ts';
import type { Span } from './model.ts';
import type { Fix, ProblemCode } from './problems.ts';

/** Told of everything wrong inside a word; spans count from the start of the word. */
export type Report = (code: ProblemCode, span: Span, message: string, ...fixes: readonly Fix[]) => void;

/** Who is told, and whether no more is wanted: what would be told need not be put together then. */
export interface Told {
  readonly report: Report;
  readonly isFull: () => boolean;
}

/** Thrown where a word stops making sense; one for all, since a stack of calls is costly to note down. */
export const UNREADABLE = new Error('the rest of this word is not read');

/** A word and how far it has been read. */
export class WordCursor {
  readonly word: string;
  readonly report: Report;
  readonly #isFull: Told['isFull'];
  at = 0;

  constructor(word: string, { report, isFull }: Told) {
    this.word = word;
    this.report = report;
    this.#isFull = isFull;
  }

  get done(): boolean {
    return this.at >= this.word.length;
  }

  /** What is read next, one character; empty at the end. */
  get next(): string {
    return this.word.charAt(this.at);
  }

  /** Reads a part of an event where one stands next. */
  take(name: EventPart): RegExpExecArray | undefined {
    if (!this.mayBegin(name)) return undefined;
    const pattern = PATTERNS[name];
    pattern.lastIndex = this.at;
    const match = pattern.exec(this.word);
    if (match) this.at += match[0].length;
    return match ?? undefined;
  }

  /** Whether such a part stands next; nothing is read. */
  sees(name: EventPart): boolean {
    if (!this.mayBegin(name)) return false;
    const pattern = PATTERNS[name];
    pattern.lastIndex = this.at;
    return pattern.test(this.word);
  }

  mayBegin(name: EventPart): boolean {
    return !this.done && FIRST[name].includes(this.next);
  }

  /** Reads one sign where it stands next. */
  literal(sign: string): string | undefined {
    if (this.next !== sign) return undefined;
    this.at += 1;
    return sign;
  }

  /** The text from a place on, cut where it is long. */
  shown(from: number): string {
    const text = this.word.slice(from);
    return text.length > 24 ? `${text.slice(0, 24)}…` : text;
  }

  /** Gives the rest of the word up, for a reason. */
  fail(code: ProblemCode, span: Span, message: string, ...fixes: readonly Fix[]): never {
    this.report(code, span, message, ...fixes);
    throw UNREADABLE;
  }

  /** Gives the rest of the word up without a word where no more is told. */
  giveUpIfFull(): void {
    if (this.#isFull()) throw UNREADABLE;
  }

  /** Gives the rest of the word up as something unknown; slips of the hand that it looks like are offered. */
  unknown(from: number, why: string): never {
    this.giveUpIfFull();
    this.fail('unknown-item', { from, to: this.word.length }, `Not read: ${why}.`, ...meantBy(this.word));
  }
}
