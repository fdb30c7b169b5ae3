import { HIGHEST_FRET, TUNINGS, type Tuning } from '../pitch/index.ts';
import { checkBars } from './bars.ts';
import { closerAt, hushed, quiet, readGluedMarks, readPasses, readSpans, type Wrap } from './braces.ts';
import { ChordReader } from './chordReader.ts';
import type { Report } from './cursor.ts';
import { glued } from './handSlips.ts';
import { LinkReader } from './links.ts';
import { isNest, type BendMove, type Item, type Phrase, type Setting, type Span, type WayItem } from './model.ts';
import type { Writable } from './model.ts';
import { ProblemList, shifted, type Fix, type Problem, type ProblemCode } from './problems.ts';
import { readEvents } from './readEvent.ts';
import { scan, type Token } from './scan.ts';
import { readSetting, readStamp } from './settings.ts';
import type { TypedEvent, WordContext } from './typed.ts';
import { MAX_PLAYED, unroll } from './unroll.ts';
import { COMMON_TIME, readValue, STARTING_VALUE, type Meter, type NoteValue } from './values.ts';

/** What the reader must know besides the text. */
export interface ReadOptions {
  /** Names the strings; standard when left out. */
  readonly tuning?: Tuning;
  /** The meter in force where the phrase begins; 4/4 when left out. */
  readonly meter?: Meter;
  /** Fret of the capo, for names of pitches; none when left out. */
  readonly capo?: number;
  /** The value that a phrase begins with; an eighth when left out. */
  readonly startValue?: NoteValue;
}

/** A phrase and everything that was wrong with its text, in the order of the text. */
export interface Reading {
  readonly phrase: Phrase;
  readonly problems: readonly Problem[];
}

/** Most items read from one text; what comes after is left unread and reported: as many as can be played. */
export const MAX_ITEMS = MAX_PLAYED;

/** Deepest nesting of brackets and braces; deeper ones are read as if not there. Our choice. */
export const DEEPEST_NEST = 24;

/** Most passes of a repeat that can be written. Our choice; playing out has its own limit. */
export const MAX_PASSES = 999_999;

/**
 * Reads the fret shorthand. Never throws: what cannot be read is skipped and listed in `problems`.
 * Cost is linear in the text, up to `MAX_ITEMS` items.
 */
export function readShorthand(text: string, options: ReadOptions = {}): Reading {
  const reader = new PhraseReader(text, options);
  return reader.read();
}

interface Frame {
  readonly opener: Omit<Token, 'kind'> & { readonly kind: Token['kind'] | 'paren' };
  readonly items: Item[];
  /** Undefined for a nest too deep or without meaning: its items stand directly in the one around. */
  readonly wrap: Wrap | undefined;
  /** The ways that are complete, where several are parted. */
  readonly ways?: WayItem[];
}

class PhraseReader {
  readonly #text: string;
  readonly #meter: Meter;
  /** The word that is read. */
  #typed = '';
  /** What words are read in, changed from one to the next. */
  readonly #context: Writable<WordContext>;
  readonly #reader = {
    isFull: () => this.#problems.isFull,
    report: (...told: Parameters<Report>) => this.#report(...told),
    take: (event: TypedEvent) => this.#takeEvent(event),
  };
  readonly #problems = new ProblemList();
  readonly #root: Item[] = [];
  readonly #open: Frame[] = [];
  readonly #links: LinkReader;
  readonly #chords: ChordReader;
  #value: NoteValue;
  #count = 0;
  /** Whether no event of the word has been read yet. */
  #isFirst = true;
  /** The last stamp read, seconds. */
  #stampedAt = 0;
  /** Openers left out because they stand too deep; their closers are passed over. */
  #tooDeep = 0;
  /** Where the last brace was closed; what is glued to it speaks of all inside. */
  #closedAt = -1;

  constructor(text: string, options: ReadOptions) {
    this.#text = text;
    this.#meter = options.meter ?? COMMON_TIME;
    const { tuning = TUNINGS.standard, capo = 0 } = options;
    this.#value = options.startValue ?? STARTING_VALUE;
    this.#links = new LinkReader(this.#problems);
    this.#chords = new ChordReader(this.#problems);
    this.#context = { tuning, capo, sounding: this.#links, hasChord: false, offset: 0 };
  }

  read(): Reading {
    for (const token of scan(this.#text)) {
      if (this.#count >= MAX_ITEMS) {
        if (this.#count < Infinity) this.#endAt(token.span.from);
        break;
      }
      this.#count += 1;
      this.#take(token);
    }
    while (this.#open.length > 0) this.#closeLeftOpen();
    const phrase: Phrase = { meter: this.#meter, items: this.#root };
    checkBars(unroll(phrase), this.#text.length, this.#problems);
    return { phrase, problems: this.#problems.inOrder() };
  }

  #endAt(from: number): void {
    const span = { from, to: this.#text.length };
    this.#problems.add('too-long', span, `Only the first ${MAX_ITEMS} items are read; the text goes on.`);
  }

  /** Takes an event of a word; false where no more can be read. The first of a word is counted with it. */
  #takeEvent(event: TypedEvent): boolean {
    this.#event(event);
    if (this.#isFirst) this.#isFirst = false;
    else this.#count += 1;
    if (this.#count < MAX_ITEMS) return true;
    if (event.span.to < this.#text.length) this.#endAt(event.span.to);
    this.#count = Infinity;
    return false;
  }

  get #items(): Item[] {
    return this.#open.at(-1)?.items ?? this.#root;
  }

  #take(token: Token): void {
    const { span } = token;
    switch (token.kind) {
      case 'word':
        return this.#word(token);
      case 'bar':
        this.#items.push({ kind: 'bar', span });
        return;
      case 'harmony':
        return this.#harmony(token);
      case 'words':
        this.#items.push({ kind: 'words', span, text: token.text });
        return;
      case 'words-unclosed':
        this.#items.push({ kind: 'words', span, text: token.text });
        this.#problems.add('unknown-item', span, 'These words have no closing quotation mark.', {
          title: 'Close the quotation',
          span: { from: span.to, to: span.to },
          text: '"',
        });
        return;
      case 'repeat-open':
        return this.#push(token, readOnce);
      case 'brace-open':
        if (token.text.trim() === 'either') {
          this.#links.part();
          return this.#push(token, (items) => items, []);
        }
        return this.#push(token, this.#braceWrap(token));
      case 'brace-bare':
        this.#problems.add('unknown-item', span, 'A brace begins with what it says and a colon, as in {m: … }.');
        return this.#push(token, undefined);
      case 'repeat-close':
      case 'brace-close':
        return this.#close(token);
    }
  }

  #word(token: Token): void {
    const { text, span } = token;
    if (text === '_') return this.#hold(span);
    if (text === '//') return this.#nextWay(span);
    if (text.startsWith('@') && text.includes(':')) return this.#stamp(text, span);
    if (text.startsWith('/')) return this.#noteValue(text.slice(1), span);
    if (this.#markClosed(text, span)) return;
    const setting = this.#setting(text, span);
    if (setting === 'bad') return;
    if (setting) {
      this.#items.push({ kind: 'setting', span, setting });
      return;
    }
    const held = /^[^_]+(_+)$/.exec(text)?.[1]?.length ?? 0;
    const end = span.to - held;
    this.#sound(text.slice(0, text.length - held), { from: span.from, to: end });
    for (let at = end; at < span.to; at += 1) this.#hold({ from: at, to: at + 1 });
  }

  /** A second way of what stands in these braces begins. */
  #nextWay(span: Span): void {
    const frame = this.#open.at(-1);
    if (!frame?.ways) {
      const message = 'Two ways are parted by // inside {either: … // … } only.';
      this.#problems.add('unknown-item', span, message);
      return;
    }
    frame.ways.push(this.#wayOf(frame, span.from));
    this.#links.part();
  }

  /** What has been read of one way, up to a place. */
  #wayOf({ items, ways = [], opener }: Frame, to: number): WayItem {
    const before = ways.at(-1);
    const from = before ? before.span.to + '//'.length : opener.span.to;
    return { kind: 'way', span: { from, to }, items: items.splice(0) };
  }

  /** Ways that are parted; one alone stands as it is. */
  #closeWays(frame: Frame, span: Span, end: number): void {
    const items = [...(frame.ways ?? []), this.#wayOf(frame, end)];
    this.#links.part();
    const [first] = items;
    if (!first || items.length < 2) {
      const message = 'Only one way stands here; write the other behind //.';
      this.#problems.add('unknown-item', span, message);
      this.#items.push(...(first?.items ?? []));
      return;
    }
    const lengths = items.map((way) => unroll({ meter: this.#meter, items: way.items }).length);
    if (new Set(lengths).size > 1)
      this.#problems.add('ways-differ', span, 'The ways do not last equally long; the first one counts.');
    this.#links.soundsLast(first.items);
    this.#items.push({ kind: 'either', span, items });
  }

  /** What comes next sounds at a place of the recording. */
  #stamp(text: string, span: Span): void {
    const seconds = readStamp(text);
    if (seconds === undefined) {
      const message = `The stamp ${text.slice(0, 16)} is no time; write minutes and seconds, as in @1:09.5.`;
      this.#problems.add('unknown-item', span, message);
      return;
    }
    if (seconds < this.#stampedAt)
      this.#problems.add('stamp-backwards', span, 'This stamp lies before the one that stands before it.');
    this.#stampedAt = seconds;
    this.#items.push({ kind: 'stamp', span, seconds });
  }

  /** Reads a word of events, or a rest with a value of its own. */
  #sound(text: string, span: Span): void {
    if (text === '-' || text.startsWith('-/')) return this.#rest(text.slice(2), span);
    this.#typed = text;
    this.#isFirst = true;
    this.#context.offset = span.from;
    this.#context.hasChord = this.#chords.isKnown;
    readEvents(text, this.#context, this.#reader);
  }

  /** Tells of something wrong inside the word that is being read. */
  #report(code: ProblemCode, inner: Span, message: string, ...fixes: readonly Fix[]): void {
    if (this.#problems.isFull) return;
    const { offset } = this.#context;
    const there = fixes.map((fix) => ({ ...fix, span: shifted(fix.span, offset) }));
    this.#problems.add(
      code,
      shifted(inner, offset),
      message,
      ...there,
      ...glued(this.#text, { from: offset, to: offset + this.#typed.length }, this.#links.before?.span),
    );
  }

  #event(typed: TypedEvent): void {
    const { bracket, span } = typed;
    if (typed.late) return this.#late(typed.late, span);
    const item = this.#links.resolve(typed, this.#value);
    if (bracket === 'open')
      this.#push({ kind: 'paren', text: '(', span: { from: span.from - 1, to: span.from } }, quiet);
    if (item) this.#items.push(item);
    if (bracket === 'close') this.#closeParen(span);
  }

  /** A bend typed apart from its note, where none stands that it could move: the note right before is bent. */
  #late(moves: readonly BendMove[], span: Span): void {
    const { before } = this.#links;
    const fixes = glued(this.#text, span, before?.span);
    if (!before || this.#items.at(-1) !== before) {
      const message = 'Nothing stands bent here that this could move; a bend is typed behind its note.';
      this.#problems.add('nothing-bent', span, message, ...fixes);
      return;
    }
    const bent = this.#links.bendBefore(moves, span.to);
    if (bent) this.#items.splice(-1, 1, bent);
    this.#problems.add(
      'bend-whose',
      span,
      `Read as ${this.#text.slice(span.from, span.to)} on the note before, which nothing stands bent on.`,
      ...fixes,
    );
  }

  /** Quiet from its opening bracket on, over several events. */
  #closeParen(span: Span): void {
    const frame = this.#open.at(-1);
    if (frame?.opener.kind !== 'paren') {
      const fix = { title: 'Open it', span: { from: span.from, to: span.from }, text: '(' };
      this.#problems.add('unknown-item', span, 'This bracket was not opened; what is quiet stands in a pair.', fix);
      const last = this.#items.pop();
      if (last) this.#items.push(...hushed([last]));
      return;
    }
    this.#open.pop();
    this.#items.push(...quiet(frame.items, { from: frame.opener.span.from, to: span.to + 1 }));
  }

  /** A rest of the value in force, or of its own. */
  #rest(own: string, span: Span): void {
    const value = own === '' ? this.#value : readValue(own);
    if (value === undefined || value === 'grace') return this.#noValue(own, span);
    this.#links.rest();
    this.#items.push({ kind: 'rest', span, value });
  }

  #hold(span: Span): void {
    if (this.#links.canHold) this.#items.push({ kind: 'hold', span, value: this.#value });
    else this.#problems.add('link-without-note', span, 'There is nothing before this hold that could last longer.');
  }

  #noteValue(text: string, span: Span): void {
    const value = text === 'g' ? undefined : readValue(text);
    if (value === undefined) return this.#noValue(text, span);
    this.#value = value;
  }

  #noValue(text: string, span: Span): void {
    const meant = { '12': '8t', '24': '16t', '6': '4t', '48': '32t', '3': '2t', '20': '16t5' }[text];
    const message = `The text /${text.slice(0, 12)} is no note value; write /1 to /64, with dots, t or t5.`;
    const fix = meant && { title: `Write /${meant}`, span, text: `/${meant}` };
    this.#problems.add('value-unknown', span, message, ...(fix ? [fix] : []));
  }

  #setting(text: string, span: Span): Setting | 'bad' | undefined {
    const { setting, wants } = readSetting(text);
    if (wants !== undefined) this.#problems.add('unknown-item', span, wants);
    return wants === undefined ? setting : 'bad';
  }

  #harmony(token: Token): void {
    const item = this.#chords.read(token);
    if (item) this.#items.push(item);
  }

  #push(opener: Frame['opener'], wrap: Wrap | undefined, ways?: WayItem[]): void {
    if (this.#open.length < DEEPEST_NEST) {
      this.#open.push({ opener, wrap, items: wrap ? [] : this.#items, ...(ways && { ways }) });
      return;
    }
    this.#tooDeep += 1;
    this.#problems.add('too-long', opener.span, `Brackets stand at most ${DEEPEST_NEST} deep; this one is left out.`);
  }

  #braceWrap({ text, span }: Token): Wrap | undefined {
    const head = text.trim();
    const rounds = readPasses(head.replace(/^round\s+/, ''));
    const isRound = head.startsWith('round') || !this.#open.some((frame) => frame.opener.kind === 'repeat-open');
    if (rounds)
      return (items, whole) => [
        isRound
          ? { kind: 'rounds', span: whole, items, rounds }
          : { kind: 'passes', span: whole, items, passes: rounds },
      ];
    const wrap = readSpans(head, (fret) => {
      this.#problems.add('fret-range', span, `A barre at fret ${fret} is beyond fret ${HIGHEST_FRET}.`);
    });
    if (wrap) return wrap;
    this.#problems.add(
      'unknown-item',
      span,
      `“{${head.slice(0, 24)}:” says nothing known; its notes are read without it.`,
    );
    return undefined;
  }

  #close(token: Token): void {
    if (this.#tooDeep > 0) {
      this.#tooDeep -= 1;
      return;
    }
    const wanted = token.kind === 'repeat-close' ? isRepeat : isBrace;
    const depth = this.#open.findLastIndex(wanted);
    if (depth < 0) {
      const opener = token.kind === 'repeat-close' ? '[' : '{';
      const message = `Nothing is open here that this could close; ${opener} is missing.`;
      this.#problems.add('unknown-item', token.span, message);
      return;
    }
    while (this.#open.length > depth + 1) this.#closeLeftOpen();
    const frame = this.#open.pop();
    if (!frame?.wrap) return;
    const span = { from: frame.opener.span.from, to: token.span.to };
    if (frame.ways) this.#closeWays(frame, span, token.span.from);
    else if (token.kind === 'repeat-close') this.#closeRepeat(frame.items, token, span);
    else this.#items.push(...frame.wrap(frame.items, span));
    this.#closedAt = span.to;
  }

  /** Marks glued to a closing brace are of every event inside, `{bar7: 7DGB}m`. */
  #markClosed(text: string, span: Span): boolean {
    const marks = span.from === this.#closedAt ? readGluedMarks(text) : undefined;
    const nest = marks && this.#items.at(-1);
    if (!marks || !nest || !isNest(nest)) return false;
    const whole = { from: nest.span.from, to: span.to };
    this.#items.splice(-1, 1, { kind: 'marked', span: whole, items: [nest], marks });
    return true;
  }

  #closeRepeat(items: readonly Item[], token: Token, span: Span): void {
    const open = token.text.endsWith('+');
    const typed = open ? token.text.slice(0, -1) : token.text;
    const times = typed === '' ? 2 : Number(typed);
    if (times < 1) this.#problems.add('value-unknown', token.span, 'A repeat is played at least once.');
    if (times > MAX_PASSES)
      this.#problems.add('too-long', token.span, `A repeat is played at most ${MAX_PASSES} times.`);
    const passes = Math.max(1, Math.min(MAX_PASSES, times));
    for (const item of items) this.#checkPasses(item, passes);
    this.#items.push({ kind: 'repeat', span, items, times: passes, open });
  }

  #checkPasses(item: Item, times: number): void {
    if (item.kind !== 'passes') return;
    for (const range of item.passes)
      if (range !== 'last' && range[1] > times) {
        const message = `There is no pass ${range[1]}; the repeat is played ${times} times.`;
        this.#problems.add('pass-outside-repeat', item.span, message);
      }
  }

  /** A bracket that is never closed makes its first event quiet. */
  #leaveParen({ opener, items }: Frame): void {
    const [first, ...others] = items;
    const to = first?.span.to ?? opener.span.to;
    const fix = { title: 'Close it', span: { from: to, to }, text: ')' };
    const span = { from: opener.span.from, to };
    this.#problems.add('unknown-item', span, 'This bracket is not closed; what is quiet stands in a pair.', fix);
    this.#items.push(...(first ? hushed([first]) : []), ...others);
  }

  #closeLeftOpen(): void {
    const frame = this.#open.pop();
    if (!frame) return;
    const { span } = frame.opener;
    if (frame.opener.kind === 'paren') return this.#leaveParen(frame);
    const repeat = isRepeat(frame);
    const sign = repeat ? '[' : '{';
    if (frame.ways) this.#closeWays(frame, span, this.#text.length);
    else if (frame.wrap) {
      const whole = { from: span.from, to: frame.items.at(-1)?.span.to ?? span.to };
      this.#items.push(...frame.wrap(frame.items, whole));
    }
    const message = `This ${sign} is never closed${repeat ? '; what follows is read once' : ''}.`;
    const end = { from: this.#text.length, to: this.#text.length };
    const closer = closerAt(this.#text, repeat);
    this.#problems.add('repeat-unclosed', span, message, { title: 'Close it at the end', span: end, text: closer });
  }
}

/** What becomes of a repeat that is never closed. */
function readOnce(items: readonly Item[], span: Span): readonly Item[] {
  return [{ kind: 'repeat', span, items, times: 1, open: false }];
}

function isRepeat(frame: Frame): boolean {
  return frame.opener.kind === 'repeat-open';
}

function isBrace({ opener }: Frame): boolean {
  return opener.kind === 'brace-open' || opener.kind === 'brace-bare';
}
